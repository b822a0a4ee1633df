-- Long work in pieces: which are done, which wait; what they left; and which server does them.
ALTER TABLE job ADD COLUMN paused INTEGER NOT NULL DEFAULT 0 CHECK (paused IN (0, 1));

CREATE TABLE task (
  job_id TEXT NOT NULL REFERENCES job (job_id) ON DELETE CASCADE,
  result_key TEXT NOT NULL CHECK (length(result_key) = 32),
  kind TEXT NOT NULL,
  ordinal INTEGER NOT NULL,
  weight INTEGER NOT NULL CHECK (weight > 0),
  order_json TEXT NOT NULL CHECK (json_valid(order_json)),
  needs_json TEXT NOT NULL CHECK (json_valid(needs_json)),
  state TEXT NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'sent', 'done')),
  tries INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY (job_id, result_key)
) STRICT, WITHOUT ROWID;

-- What a piece left: a file of that name. Whether it may go is a matter of its kind and of when it was last used.
CREATE TABLE result (
  result_key TEXT PRIMARY KEY CHECK (length(result_key) = 32),
  kind TEXT NOT NULL,
  bytes INTEGER NOT NULL,
  made_at TEXT NOT NULL,
  used_at TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX result_by_use ON result (used_at);

-- So that a frame is read for its name once.
CREATE TABLE frame_file (
  path TEXT PRIMARY KEY,
  bytes INTEGER NOT NULL,
  modified_ns INTEGER NOT NULL,
  frame_hash TEXT NOT NULL CHECK (length(frame_hash) = 32)
) STRICT, WITHOUT ROWID;

-- Of several servers on one folder the one that does the work.
CREATE TABLE work_owner (
  one INTEGER PRIMARY KEY CHECK (one = 1),
  owner_id TEXT NOT NULL,
  generation INTEGER NOT NULL,
  seen_at_s REAL NOT NULL
) STRICT;
