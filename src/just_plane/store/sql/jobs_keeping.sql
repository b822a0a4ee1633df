SELECT request_key, max(asked_at) AS asked_at, max(state IN ('waiting', 'running', 'cancelling')) AS is_open FROM job
GROUP BY request_key;
