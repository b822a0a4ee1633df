SELECT * FROM trial ORDER BY asked_at DESC, rowid DESC LIMIT :most;
