-- Results of practice, one a drill that was played to its end.
CREATE TABLE practice (
  result_id TEXT PRIMARY KEY CHECK (length(result_id) = 32),
  kind TEXT NOT NULL,
  result_json TEXT NOT NULL CHECK (json_valid(result_json)),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX practice_by_kind ON practice (kind, at);
