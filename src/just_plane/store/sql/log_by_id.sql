SELECT * FROM log_entry WHERE entry_id = :entry_id;
