UPDATE trial SET result_json = :result_json WHERE trial_id = :trial_id AND result_json IS NULL;
