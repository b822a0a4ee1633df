UPDATE log_entry SET out_json = :out_json WHERE entry_id = :entry_id;
