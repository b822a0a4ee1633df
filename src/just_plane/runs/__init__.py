"""A run of frames: what follows from what was done. Pure: no clock, no data file, no device."""
