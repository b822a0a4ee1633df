UPDATE trial SET believed = :believed, put_aside = :put_aside WHERE trial_id = :trial_id;
