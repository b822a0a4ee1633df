SELECT * FROM job WHERE state = 'waiting' ORDER BY asked_at, job_id LIMIT 1;
