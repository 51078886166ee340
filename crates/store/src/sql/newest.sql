SELECT build_id, name, number, saved_at, document, digest
FROM revision
WHERE build_id = ?
ORDER BY number DESC
LIMIT 1
