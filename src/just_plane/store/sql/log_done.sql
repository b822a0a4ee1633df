UPDATE log_entry SET done_json = :done_json WHERE entry_id = :entry_id;
