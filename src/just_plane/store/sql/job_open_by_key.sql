SELECT * FROM job WHERE request_key = :request_key AND state IN ('waiting', 'running', 'cancelling');
