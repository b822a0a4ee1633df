INSERT INTO shot_revision (shot_id, parent_revision_id, saved_at, body_json)
VALUES (:shot_id, :parent_revision_id, :now, :body_json)
