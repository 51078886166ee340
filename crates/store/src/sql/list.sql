SELECT build_id, name, max(number) AS number, saved_at
FROM revision
GROUP BY build_id
ORDER BY saved_at DESC, build_id DESC
