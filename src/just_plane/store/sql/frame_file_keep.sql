INSERT INTO frame_file (path, bytes, modified_ns, frame_hash) VALUES (:path, :bytes, :modified_ns, :frame_hash)
ON CONFLICT (path) DO UPDATE SET bytes = :bytes, modified_ns = :modified_ns, frame_hash = :frame_hash;
