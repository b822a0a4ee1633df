"""Measured values that replace the model: a ruler in a frame, a lens by two tubes."""
