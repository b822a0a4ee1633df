"""The ways to get the shot, what each holds and costs, how they rank, and their step tables."""
