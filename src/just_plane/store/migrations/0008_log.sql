-- The notebook: what was set and what was done as it was then, in words and numbers that nothing changes later; what
-- came out, once it was looked at; and what the photographer adds.
CREATE TABLE log_entry (
  entry_id TEXT PRIMARY KEY CHECK (length(entry_id) = 32),
  run_id TEXT UNIQUE REFERENCES run (run_id) ON DELETE CASCADE,
  document_id TEXT NOT NULL,
  revision INTEGER NOT NULL,
  set_json TEXT NOT NULL CHECK (json_valid(set_json)),
  done_json TEXT NOT NULL CHECK (json_valid(done_json)),
  out_json TEXT CHECK (out_json IS NULL OR json_valid(out_json)),
  note_json TEXT NOT NULL CHECK (json_valid(note_json)),
  note_number INTEGER NOT NULL DEFAULT 0,
  made_at TEXT NOT NULL
) STRICT;
CREATE INDEX log_by_document ON log_entry (document_id, made_at);
