INSERT INTO part (kind, name, content) VALUES (?, ?, ?)
ON CONFLICT (kind, name) DO UPDATE SET content = excluded.content, saved_at = excluded.saved_at
WHERE content IS NOT excluded.content
