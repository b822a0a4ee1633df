SELECT number, press, at, event_json FROM run_event WHERE run_id = :run_id ORDER BY number;
