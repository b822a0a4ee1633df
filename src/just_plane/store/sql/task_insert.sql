INSERT INTO task (job_id, result_key, kind, ordinal, weight, order_json, needs_json)
VALUES (:job_id, :result_key, :kind, :ordinal, :weight, :order_json, :needs_json);
