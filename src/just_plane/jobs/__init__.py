"""Long work beside the server: asked for in the data file, done in processes of its own, resumed after a kill."""
