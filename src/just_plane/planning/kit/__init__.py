"""The kit: what is wrong or assumed in it, and the search for rows of its pieces that get a frame."""
