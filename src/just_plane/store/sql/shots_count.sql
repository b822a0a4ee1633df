SELECT count(*) AS shots FROM shot
