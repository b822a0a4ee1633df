INSERT INTO result (result_key, kind, bytes, made_at, used_at) VALUES (:result_key, :kind, :bytes, :now, :now)
ON CONFLICT (result_key) DO UPDATE SET bytes = :bytes, used_at = :now;
