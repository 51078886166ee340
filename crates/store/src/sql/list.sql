-- A document that is no JSON is listed all the same: it is named when it is opened.
SELECT newest.build_id, newest.name, newest.number, newest.saved_at,
       CAST(json_extract(sound, '$.use') AS TEXT) AS used_for,
       CAST(json_extract(sound, '$.engine.layout') AS TEXT) AS layout,
       CAST(json_extract(sound, '$.engine.bore') AS TEXT) AS bore,
       CAST(json_extract(sound, '$.engine.stroke') AS TEXT) AS stroke
FROM (SELECT build_id, name, max(number) AS number, saved_at,
             CASE WHEN json_valid(document) THEN document END AS sound
      FROM revision GROUP BY build_id) AS newest
JOIN build ON build.id = newest.build_id
WHERE (build.archived_at IS NOT NULL) = ?
ORDER BY newest.saved_at DESC, newest.build_id DESC
