INSERT INTO document (document_id, kind, created_at) VALUES (:document_id, :kind, :now)
