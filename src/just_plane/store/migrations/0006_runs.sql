-- A run: what was to be set, frame by frame, as one way of one revision of a shot had it; and what was done, in order.
-- Neither changes when the shot does. Events are only ever added: a resume is a replay.
CREATE TABLE run (
  run_id TEXT PRIMARY KEY CHECK (length(run_id) = 32),
  document_id TEXT NOT NULL,
  revision INTEGER NOT NULL,
  plan_json TEXT NOT NULL CHECK (json_valid(plan_json)),
  started_at TEXT NOT NULL
) STRICT;
CREATE INDEX run_by_document ON run (document_id, started_at);

CREATE TABLE run_event (
  run_id TEXT NOT NULL REFERENCES run (run_id) ON DELETE CASCADE,
  number INTEGER NOT NULL CHECK (number >= 0),
  press TEXT NOT NULL CHECK (length(press) BETWEEN 1 AND 64),
  at TEXT NOT NULL,
  event_json TEXT NOT NULL CHECK (json_valid(event_json)),
  PRIMARY KEY (run_id, number)
) STRICT, WITHOUT ROWID;
CREATE UNIQUE INDEX run_event_once ON run_event (run_id, press);
