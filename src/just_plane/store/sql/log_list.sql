SELECT * FROM log_entry ORDER BY made_at DESC, rowid DESC LIMIT :most;
