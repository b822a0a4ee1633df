-- Devices on the network that were let in: a name, and the hash of a secret that only the device has.
CREATE TABLE device (
  device_id TEXT PRIMARY KEY CHECK (length(device_id) = 32),
  name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
  secret_sha256 TEXT NOT NULL CHECK (length(secret_sha256) = 64),
  let_in_at TEXT NOT NULL,
  last_seen_at TEXT,
  shown_out_at TEXT
) STRICT;
