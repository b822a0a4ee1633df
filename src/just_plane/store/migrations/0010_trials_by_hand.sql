-- Trials that no job worked out: a ruler in a frame, a lens by two tubes.
ALTER TABLE trial RENAME TO trial_before;
DROP INDEX trial_by_time;
CREATE TABLE trial (
  trial_id TEXT PRIMARY KEY CHECK (length(trial_id) = 32),
  job_id TEXT REFERENCES job (job_id),
  asked_json TEXT NOT NULL CHECK (json_valid(asked_json)),
  result_json TEXT CHECK (result_json IS NULL OR json_valid(result_json)),
  believed INTEGER NOT NULL DEFAULT 0 CHECK (believed IN (0, 1)),
  put_aside INTEGER NOT NULL DEFAULT 0 CHECK (put_aside IN (0, 1)),
  asked_at TEXT NOT NULL,
  CHECK (job_id IS NOT NULL OR result_json IS NOT NULL)
) STRICT;
INSERT INTO trial (trial_id, job_id, asked_json, result_json, believed, put_aside, asked_at)
  SELECT trial_id, job_id, asked_json, result_json, believed, put_aside, asked_at FROM trial_before;
DROP TABLE trial_before;
CREATE INDEX trial_by_time ON trial (asked_at);
