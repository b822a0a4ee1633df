UPDATE job SET state = CASE state WHEN 'running' THEN 'waiting' ELSE 'cancelled' END
WHERE state IN ('running', 'cancelling');
