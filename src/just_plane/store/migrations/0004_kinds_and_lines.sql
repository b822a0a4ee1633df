-- Kinds of documents are rows, so that a new kind is one more row and no table is made anew.
CREATE TABLE document_kind (
  kind TEXT PRIMARY KEY CHECK (length(kind) BETWEEN 1 AND 40)
) STRICT, WITHOUT ROWID;
INSERT INTO document_kind (kind) VALUES ('shot'), ('kit');

CREATE TABLE document_anew (
  document_id TEXT PRIMARY KEY CHECK (length(document_id) BETWEEN 8 AND 40),
  kind TEXT NOT NULL REFERENCES document_kind (kind),
  created_at TEXT NOT NULL,
  removed_at TEXT,
  current_revision_id INTEGER REFERENCES revision (revision_id) DEFERRABLE INITIALLY DEFERRED
) STRICT;
INSERT INTO document_anew (document_id, kind, created_at, removed_at, current_revision_id)
SELECT document_id, kind, created_at, removed_at, current_revision_id FROM document;
DROP TABLE document;
ALTER TABLE document_anew RENAME TO document;
CREATE UNIQUE INDEX one_kit ON document (kind) WHERE kind = 'kit';
CREATE INDEX document_by_kind ON document (kind, removed_at, current_revision_id);

-- What the list says of a revision, kept with it: made once, by one form of the program, in one unit of length.
CREATE TABLE revision_line (
  revision_id INTEGER NOT NULL REFERENCES revision (revision_id) ON DELETE CASCADE,
  units TEXT NOT NULL CHECK (units IN ('mm', 'in')),
  made_by TEXT NOT NULL,
  line_json TEXT NOT NULL CHECK (json_valid(line_json)),
  PRIMARY KEY (revision_id, units)
) STRICT, WITHOUT ROWID;
