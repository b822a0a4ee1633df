INSERT INTO trial (trial_id, job_id, asked_json, asked_at) VALUES (:trial_id, :job_id, :asked_json, :now);
