SELECT run.* FROM run LEFT JOIN log_entry ON log_entry.run_id = run.run_id WHERE log_entry.run_id IS NULL ORDER BY run.started_at LIMIT :most;
