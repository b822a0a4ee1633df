INSERT INTO job (job_id, document_id, kind, request_json, request_key, state, asked_at)
VALUES (:job_id, :document_id, :kind, :request_json, :request_key, 'waiting', :now);
