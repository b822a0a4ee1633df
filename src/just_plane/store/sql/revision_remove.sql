DELETE FROM revision WHERE revision_id = :revision_id
