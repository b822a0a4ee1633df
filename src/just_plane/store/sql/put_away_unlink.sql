UPDATE revision SET parent_revision_id = NULL, redo_revision_id = NULL
WHERE document_id IN (SELECT document_id FROM document WHERE kind = :kind AND removed_at IS NOT NULL)
