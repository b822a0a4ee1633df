"""A stack of frames from files to answers: taken in, checked, merged. Pure work on paths; no server, no data file."""
