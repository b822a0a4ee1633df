"""A shot understood once: everything that the stations, the ways and the pictures answer from. See ``setup.py``."""
