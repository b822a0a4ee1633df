INSERT INTO trial (trial_id, job_id, asked_json, result_json, believed, asked_at)
  VALUES (:trial_id, NULL, :asked_json, :result_json, :believed, :now);
