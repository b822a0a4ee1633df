SELECT shot.shot_id, shot.created_at, shot.removed_at,
       revision.revision_id, revision.parent_revision_id, revision.redo_revision_id,
       revision.saved_at, revision.body_json
FROM shot JOIN shot_revision AS revision ON revision.revision_id = shot.current_revision_id
WHERE shot.shot_id = :shot_id
