SELECT document.document_id, document.created_at, document.removed_at,
       revision.revision_id, revision.parent_revision_id, revision.redo_revision_id,
       revision.saved_at, revision.body_json
FROM document JOIN revision ON revision.revision_id = document.current_revision_id
WHERE document.kind = :kind AND (document.removed_at IS NOT NULL) = :removed
ORDER BY revision.saved_at DESC, revision.revision_id DESC
