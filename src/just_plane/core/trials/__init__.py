"""Gear measured from photographs instead of believed: pure functions of arrays."""
