"""Where the data lives: the user's own folder by the platform's custom, another by request, the demo's apart."""

from pathlib import Path

import platformdirs

FILE = "just-plane.sqlite3"


def own_folder():
    """The user's data folder, by the platform's custom."""
    return Path(platformdirs.user_data_dir("just-plane", appauthor=False))


def demo_folder():
    """The demo's folder: beside the user's own, never inside it."""
    return Path(platformdirs.user_data_dir("just-plane-demo", appauthor=False))
