SELECT * FROM job WHERE document_id IS :document_id ORDER BY asked_at DESC, rowid DESC LIMIT :most;
