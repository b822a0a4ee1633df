UPDATE job SET state = 'waiting' WHERE job_id = :job_id AND state = 'running';
