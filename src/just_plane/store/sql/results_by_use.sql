SELECT * FROM result ORDER BY used_at;
