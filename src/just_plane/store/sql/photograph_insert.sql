INSERT INTO photograph (photograph_id, added_at, width_px, height_px, jpeg)
VALUES (:photograph_id, :now, :width_px, :height_px, :jpeg)
ON CONFLICT (photograph_id) DO NOTHING
