"""What is drawn for a shot besides its plan: a way as it would look, contrast by stop and depth."""
