SELECT * FROM trial WHERE trial_id = :trial_id;
