INSERT INTO device (device_id, name, secret_sha256, let_in_at) VALUES (:device_id, :name, :secret_sha256, :now)
