SELECT * FROM task WHERE job_id = :job_id ORDER BY ordinal;
