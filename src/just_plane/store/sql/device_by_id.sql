SELECT device_id, name, secret_sha256, let_in_at, last_seen_at FROM device
WHERE device_id = :device_id AND shown_out_at IS NULL
