UPDATE device SET last_seen_at = :now WHERE device_id = :device_id
