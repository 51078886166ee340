SELECT newest.build_id, newest.name, newest.number, newest.saved_at
FROM (SELECT build_id, name, max(number) AS number, saved_at FROM revision GROUP BY build_id) AS newest
JOIN build ON build.id = newest.build_id
WHERE (build.archived_at IS NOT NULL) = ?
ORDER BY newest.saved_at DESC, newest.build_id DESC
