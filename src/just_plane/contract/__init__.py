"""The one contract: a shot and its plan, as the page, the HTTP API, the command line and the shot file share them.

The only place where units are spelled in names (``_mm _um _nm _s``) and where they meet the core's.
"""
