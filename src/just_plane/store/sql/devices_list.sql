SELECT device_id, name, secret_sha256, let_in_at, last_seen_at FROM device
WHERE shown_out_at IS NULL ORDER BY let_in_at DESC, device_id
