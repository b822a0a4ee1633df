"""Photographs as arrays: what can be measured in them. No files are opened here."""
