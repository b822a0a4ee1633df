SELECT revision_id, parent_revision_id, redo_revision_id FROM revision WHERE document_id = :document_id
