SELECT build_id, name, number, saved_at
FROM revision
WHERE build_id = ?
ORDER BY number DESC
