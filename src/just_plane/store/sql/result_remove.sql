DELETE FROM result WHERE result_key = :result_key;
