SELECT request_json FROM job WHERE asked_at >= :since OR state IN ('waiting', 'running', 'cancelling');
