"""What is kept: shots with every revision, in one SQLite file in the user's data folder. See ``connection.py``."""
