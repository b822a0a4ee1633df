UPDATE job SET state = CASE state WHEN 'waiting' THEN 'cancelled' ELSE 'cancelling' END,
  ended_at = CASE state WHEN 'waiting' THEN :now ELSE ended_at END
WHERE job_id = :job_id AND state IN ('waiting', 'running');
