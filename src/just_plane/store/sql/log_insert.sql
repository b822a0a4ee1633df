INSERT OR IGNORE INTO log_entry (entry_id, run_id, document_id, revision, set_json, done_json, note_json, made_at)
VALUES (:entry_id, :run_id, :document_id, :revision, :set_json, :done_json, :note_json, :made_at);
