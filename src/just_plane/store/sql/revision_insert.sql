INSERT INTO revision (document_id, parent_revision_id, saved_at, body_json)
VALUES (:document_id, :parent_revision_id, :now, :body_json)
