SELECT * FROM job WHERE job_id = :job_id;
