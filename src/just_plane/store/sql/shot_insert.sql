INSERT INTO shot (shot_id, created_at) VALUES (:shot_id, :now)
