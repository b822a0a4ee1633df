SELECT count(*) AS documents FROM document WHERE kind = :kind
