UPDATE revision SET redo_revision_id = :redo_revision_id WHERE revision_id = :revision_id
