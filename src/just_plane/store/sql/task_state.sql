UPDATE task SET state = :state, tries = tries + :tries WHERE job_id = :job_id AND result_key = :result_key;
