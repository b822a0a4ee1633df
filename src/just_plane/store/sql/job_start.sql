UPDATE job SET state = 'running', tries = tries + 1 WHERE job_id = :job_id AND state = 'waiting';
