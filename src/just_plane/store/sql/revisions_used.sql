SELECT revision FROM run UNION SELECT revision FROM log_entry
