SELECT count(DISTINCT document.document_id) AS documents, count(revision.revision_id) AS revisions
FROM document LEFT JOIN revision ON revision.document_id = document.document_id
WHERE document.kind = :kind AND document.removed_at IS NOT NULL
