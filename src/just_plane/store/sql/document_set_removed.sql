UPDATE document SET removed_at = :removed_at WHERE document_id = :document_id
