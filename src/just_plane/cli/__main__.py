"""``python -m just_plane.cli``."""

import sys

from just_plane.cli import main

if __name__ == "__main__":
    sys.exit(main())
