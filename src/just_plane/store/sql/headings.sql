SELECT DISTINCT json_extract(revision.body_json, '$.heading') AS heading
FROM document JOIN revision ON revision.revision_id = document.current_revision_id
WHERE document.kind = :kind AND document.removed_at IS NULL AND json_valid(revision.body_json)
  AND coalesce(json_extract(revision.body_json, '$.heading'), '') <> ''
ORDER BY lower(heading)
