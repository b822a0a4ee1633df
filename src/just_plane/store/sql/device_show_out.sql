UPDATE device SET shown_out_at = :now WHERE device_id = :device_id AND shown_out_at IS NULL
