SELECT * FROM job WHERE state = 'waiting' AND paused = 0 ORDER BY asked_at, job_id LIMIT 1;
