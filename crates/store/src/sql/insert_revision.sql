INSERT INTO revision (build_id, number, name, document, digest)
VALUES (?, ?, ?, ?, ?)
RETURNING build_id, number, name, saved_at
