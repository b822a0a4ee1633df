"""Practice on a simulated set: drills made from a seed, a good hand's moves, and what a result is worth."""
