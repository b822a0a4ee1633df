"""A shot in, a plan out: the contract's units into the core's, the core's answers and refusals back into words.

Used alike by the page (over HTTP), the command line and the run sheet.
"""
