UPDATE result SET used_at = :now WHERE result_key = :result_key;
