UPDATE shot SET removed_at = :removed_at WHERE shot_id = :shot_id
