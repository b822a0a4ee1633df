SELECT shot.shot_id, revision.revision_id, revision.saved_at,
       revision.body_json
FROM shot JOIN shot_revision AS revision ON revision.revision_id = shot.current_revision_id
WHERE (shot.removed_at IS NOT NULL) = :removed
ORDER BY revision.saved_at DESC, revision.revision_id DESC
