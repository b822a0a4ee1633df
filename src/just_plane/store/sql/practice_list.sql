SELECT result_json FROM (SELECT * FROM practice ORDER BY at DESC, rowid DESC LIMIT :most) ORDER BY at, result_id;
