"""A run carried out by devices: the loop, what it writes down, the simulated set, and the threads of the server."""
