SELECT jpeg FROM photograph WHERE photograph_id = :photograph_id
