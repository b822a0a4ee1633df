SELECT * FROM run WHERE run_id = :run_id;
