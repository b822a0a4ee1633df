-- The expression is that of the index, to the letter: else it is not used.
SELECT DISTINCT CASE WHEN json_valid(body_json) THEN json_extract(body_json, '$.heading') END AS heading
FROM revision INDEXED BY revision_heading
WHERE CASE WHEN json_valid(body_json) THEN json_extract(body_json, '$.heading') END <> ''
  AND EXISTS (
    SELECT 1 FROM document
    WHERE document.current_revision_id = revision.revision_id
      AND document.kind = :kind AND document.removed_at IS NULL
  )
ORDER BY lower(heading)
