UPDATE document SET current_revision_id = :revision_id WHERE document_id = :document_id
