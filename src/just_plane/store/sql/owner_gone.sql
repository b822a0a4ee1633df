DELETE FROM work_owner WHERE owner_id = :owner_id AND generation = :generation;
