UPDATE job SET state = :state, message = :message, remedy = :remedy, ended_at = :now
WHERE job_id = :job_id AND state IN ('waiting', 'running', 'cancelling');
