INSERT INTO practice (result_id, kind, result_json, at) VALUES (:result_id, :kind, :result_json, :at);
