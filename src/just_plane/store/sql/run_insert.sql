INSERT INTO run (run_id, document_id, revision, plan_json, started_at)
VALUES (:run_id, :document_id, :revision, :plan_json, :now);
