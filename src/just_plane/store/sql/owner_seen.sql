UPDATE work_owner SET seen_at_s = :now_s WHERE one = 1 AND owner_id = :owner_id AND generation = :generation;
