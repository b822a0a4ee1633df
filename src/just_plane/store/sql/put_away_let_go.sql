UPDATE document SET current_revision_id = NULL WHERE kind = :kind AND removed_at IS NOT NULL
