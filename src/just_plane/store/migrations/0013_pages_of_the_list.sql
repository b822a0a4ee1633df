-- A page of the list is read from its end, and the headings from what stands under one, however many shots there are.
CREATE INDEX revision_by_time ON revision (saved_at, revision_id);
CREATE INDEX document_by_revision ON document (current_revision_id);
CREATE INDEX revision_heading
ON revision (CASE WHEN json_valid(body_json) THEN json_extract(body_json, '$.heading') END)
WHERE CASE WHEN json_valid(body_json) THEN json_extract(body_json, '$.heading') END <> '';
