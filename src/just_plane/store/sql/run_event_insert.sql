INSERT INTO run_event (run_id, number, press, at, event_json) VALUES (:run_id, :number, :press, :now, :event_json);
