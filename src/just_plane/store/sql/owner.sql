SELECT * FROM work_owner WHERE one = 1;
