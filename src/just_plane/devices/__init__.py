"""What moves and what takes pictures: protocols, a clock, and stand-ins that ship with the program.

A real driver is one file that fits a protocol and passes the contract test; docs/devices.md says how.
"""
