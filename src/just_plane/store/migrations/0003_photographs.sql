-- Framing photographs, kept once each by what is in them; a shot names the one it uses.
CREATE TABLE photograph (
    photograph_id TEXT PRIMARY KEY CHECK (length(photograph_id) = 32),
    added_at TEXT NOT NULL,
    width_px INTEGER NOT NULL CHECK (width_px > 0),
    height_px INTEGER NOT NULL CHECK (height_px > 0),
    jpeg BLOB NOT NULL
) STRICT;
