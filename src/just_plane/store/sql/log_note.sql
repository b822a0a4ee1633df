UPDATE log_entry SET note_json = :note_json, note_number = note_number + 1
WHERE entry_id = :entry_id AND note_number = :note_number;
