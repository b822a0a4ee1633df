SELECT * FROM run WHERE document_id = :document_id ORDER BY started_at DESC, rowid DESC LIMIT :most;
