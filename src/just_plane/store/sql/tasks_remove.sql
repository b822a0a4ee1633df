DELETE FROM task WHERE job_id = :job_id;
