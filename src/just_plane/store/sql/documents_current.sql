SELECT document_id, current_revision_id FROM document
