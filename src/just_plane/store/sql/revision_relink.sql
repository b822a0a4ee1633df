UPDATE revision SET parent_revision_id = :parent_revision_id, redo_revision_id = :redo_revision_id
WHERE revision_id = :revision_id
