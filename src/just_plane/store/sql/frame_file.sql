SELECT frame_hash FROM frame_file WHERE path = :path AND bytes = :bytes AND modified_ns = :modified_ns;
