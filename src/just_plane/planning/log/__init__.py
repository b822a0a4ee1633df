"""The notebook's rules: what an entry says of a shot, which shots are alike, what is found by words."""
