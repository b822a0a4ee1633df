-- The kit is kept as shots are, with every form it ever had: the tables now hold documents of either kind.
ALTER TABLE shot RENAME TO document;
ALTER TABLE document RENAME COLUMN shot_id TO document_id;
ALTER TABLE document ADD COLUMN kind TEXT NOT NULL DEFAULT 'shot' CHECK (kind IN ('shot', 'kit'));
ALTER TABLE shot_revision RENAME TO revision;
ALTER TABLE revision RENAME COLUMN shot_id TO document_id;
DROP INDEX shot_revision_by_shot;
CREATE INDEX revision_by_document ON revision (document_id, revision_id);
CREATE UNIQUE INDEX one_kit ON document (kind) WHERE kind = 'kit';
