INSERT INTO revision (build_id, number, name, document, digest, saved_at)
VALUES (?, ?, ?, ?, ?, ?)
