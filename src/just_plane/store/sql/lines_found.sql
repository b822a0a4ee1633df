SELECT document.document_id, revision.revision_id, revision.saved_at, revision_line.line_json,
       CASE WHEN revision_line.line_json IS NULL THEN revision.body_json END AS body_json
FROM document JOIN revision ON revision.revision_id = document.current_revision_id
LEFT JOIN revision_line ON revision_line.revision_id = revision.revision_id
  AND revision_line.units = :units AND revision_line.made_by = :made_by
WHERE document.kind = :kind AND (document.removed_at IS NOT NULL) = :removed
  AND json_valid(revision.body_json)
  AND (:text = '' OR (json_extract(revision.body_json, '$.name') || ' '
    || coalesce(json_extract(revision.body_json, '$.subject.what'), '') || ' '
    || coalesce(json_extract(revision.body_json, '$.heading'), '') || ' '
    || coalesce(json_extract(revision.body_json, '$.notes'), '')) LIKE :text ESCAPE '\')
  AND (:heading = '' OR json_extract(revision.body_json, '$.heading') = :heading)
ORDER BY
  CASE WHEN :sort = 'name' THEN lower(json_extract(revision.body_json, '$.name')) END,
  CASE WHEN :sort = 'hold' THEN coalesce(json_extract(revision.body_json, '$.subject.hold_still_s'), 1e9) END,
  CASE WHEN :sort = 'depth' THEN json_extract(revision.body_json, '$.subject.depth_mm') END DESC,
  revision.saved_at DESC, revision.revision_id DESC
LIMIT :most OFFSET :skip
