-- Long work: what was asked, how far it is, and which folder of results holds the answer.
CREATE TABLE job (
  job_id TEXT PRIMARY KEY CHECK (length(job_id) = 32),
  document_id TEXT,
  kind TEXT NOT NULL CHECK (kind IN ('check')),
  request_json TEXT NOT NULL CHECK (json_valid(request_json)),
  request_key TEXT NOT NULL CHECK (length(request_key) = 32),
  state TEXT NOT NULL CHECK (state IN ('waiting', 'running', 'cancelling', 'done', 'failed', 'cancelled')),
  tries INTEGER NOT NULL DEFAULT 0,
  message TEXT NOT NULL DEFAULT '',
  remedy TEXT NOT NULL DEFAULT '',
  asked_at TEXT NOT NULL,
  ended_at TEXT
) STRICT;

-- A second press of the button joins the job that is open.
CREATE UNIQUE INDEX job_once ON job (request_key) WHERE state IN ('waiting', 'running', 'cancelling');
CREATE INDEX job_by_document ON job (document_id, asked_at);
