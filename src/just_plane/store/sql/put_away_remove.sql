DELETE FROM document WHERE kind = :kind AND removed_at IS NOT NULL
