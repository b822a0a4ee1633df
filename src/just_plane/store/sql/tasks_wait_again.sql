UPDATE task SET state = 'waiting' WHERE state = 'sent' AND (:job_id IS NULL OR job_id = :job_id);
