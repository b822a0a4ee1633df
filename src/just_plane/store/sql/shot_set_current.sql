UPDATE shot SET current_revision_id = :revision_id WHERE shot_id = :shot_id
