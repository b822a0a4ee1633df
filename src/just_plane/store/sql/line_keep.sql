INSERT INTO revision_line (revision_id, units, made_by, line_json)
VALUES (:revision_id, :units, :made_by, :line_json)
ON CONFLICT (revision_id, units) DO UPDATE SET made_by = excluded.made_by, line_json = excluded.line_json
