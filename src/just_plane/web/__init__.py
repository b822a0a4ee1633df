"""HTTP on this machine only: the page, and the API that it, scripts and tests use."""
