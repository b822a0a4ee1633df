"""Stacks of frames with known truth, made by layers of discs: nothing of the core is used, so it is judged by them."""
