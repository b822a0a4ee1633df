INSERT INTO work_owner (one, owner_id, generation, seen_at_s) VALUES (1, :owner_id, 1, :now_s)
ON CONFLICT (one) DO UPDATE SET owner_id = :owner_id, generation = generation + 1, seen_at_s = :now_s;
