"""Just Plane: plan, compare and record close-up photographs, so that a sharp plane lies across the subject."""

__version__ = "0.1.0"
