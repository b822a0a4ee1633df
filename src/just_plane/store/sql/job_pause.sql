UPDATE job SET paused = :paused WHERE job_id = :job_id AND state IN ('waiting', 'running');
