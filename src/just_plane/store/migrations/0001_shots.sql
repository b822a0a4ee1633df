-- A shot and every form it ever had. Undo walks up the parents, redo down to the child last left.
CREATE TABLE shot (
  shot_id TEXT PRIMARY KEY CHECK (length(shot_id) BETWEEN 8 AND 40),
  created_at TEXT NOT NULL,
  removed_at TEXT,
  current_revision_id INTEGER REFERENCES shot_revision (revision_id) DEFERRABLE INITIALLY DEFERRED
) STRICT;

CREATE TABLE shot_revision (
  revision_id INTEGER PRIMARY KEY,
  shot_id TEXT NOT NULL REFERENCES shot (shot_id) ON DELETE CASCADE,
  parent_revision_id INTEGER REFERENCES shot_revision (revision_id),
  redo_revision_id INTEGER REFERENCES shot_revision (revision_id),
  saved_at TEXT NOT NULL,
  body_json TEXT NOT NULL CHECK (json_valid(body_json))
) STRICT;

CREATE INDEX shot_revision_by_shot ON shot_revision (shot_id, revision_id);
