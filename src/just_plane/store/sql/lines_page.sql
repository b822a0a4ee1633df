-- From the newest revision down, as far as the page goes: CROSS keeps that order of the tables.
SELECT document.document_id, revision.revision_id, revision.saved_at, revision_line.line_json,
       CASE WHEN revision_line.line_json IS NULL THEN revision.body_json END AS body_json
FROM revision CROSS JOIN document ON document.current_revision_id = revision.revision_id
LEFT JOIN revision_line ON revision_line.revision_id = revision.revision_id
  AND revision_line.units = :units AND revision_line.made_by = :made_by
WHERE document.kind = :kind AND (document.removed_at IS NOT NULL) = :removed
  AND (:before_saved_at IS NULL OR (revision.saved_at, revision.revision_id) < (:before_saved_at, :before_revision))
ORDER BY revision.saved_at DESC, revision.revision_id DESC
LIMIT :most
