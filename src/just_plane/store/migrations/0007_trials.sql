-- Long work is of two kinds now.
ALTER TABLE job RENAME TO job_before;
DROP INDEX job_once;
DROP INDEX job_by_document;
CREATE TABLE job (
  job_id TEXT PRIMARY KEY CHECK (length(job_id) = 32),
  document_id TEXT,
  kind TEXT NOT NULL CHECK (kind IN ('check', 'trial')),
  request_json TEXT NOT NULL CHECK (json_valid(request_json)),
  request_key TEXT NOT NULL CHECK (length(request_key) = 32),
  state TEXT NOT NULL CHECK (state IN ('waiting', 'running', 'cancelling', 'done', 'failed', 'cancelled')),
  tries INTEGER NOT NULL DEFAULT 0,
  message TEXT NOT NULL DEFAULT '',
  remedy TEXT NOT NULL DEFAULT '',
  asked_at TEXT NOT NULL,
  ended_at TEXT
) STRICT;
INSERT INTO job SELECT * FROM job_before;
DROP TABLE job_before;
CREATE UNIQUE INDEX job_once ON job (request_key) WHERE state IN ('waiting', 'running', 'cancelling');
CREATE INDEX job_by_document ON job (document_id, asked_at);

-- What was measured of the gear: what was asked, what came out once the job was done, and whether it is believed.
CREATE TABLE trial (
  trial_id TEXT PRIMARY KEY CHECK (length(trial_id) = 32),
  job_id TEXT NOT NULL REFERENCES job (job_id),
  asked_json TEXT NOT NULL CHECK (json_valid(asked_json)),
  result_json TEXT CHECK (result_json IS NULL OR json_valid(result_json)),
  believed INTEGER NOT NULL DEFAULT 0 CHECK (believed IN (0, 1)),
  put_aside INTEGER NOT NULL DEFAULT 0 CHECK (put_aside IN (0, 1)),
  asked_at TEXT NOT NULL
) STRICT;
CREATE INDEX trial_by_time ON trial (asked_at);
