"""Photographs in and out of files: JPEG, PNG and TIFF, and the camera's notes in them."""
