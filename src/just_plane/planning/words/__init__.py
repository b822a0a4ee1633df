"""How the program speaks: numbers as a photographer reads them, and findings at the field that caused them."""
