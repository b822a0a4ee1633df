SELECT body_json FROM revision WHERE document_id = :document_id AND revision_id = :revision_id
