"""Where the data lives: the user's own folder by the platform's custom, another by request, the demo's apart."""

from pathlib import Path
from typing import NamedTuple

import platformdirs

from just_plane.store.connection import Database
from just_plane.store.errors import DiskError
from just_plane.store.kits import KeptKit
from just_plane.store.migrate import migrate
from just_plane.store.photographs import Photographs
from just_plane.store.shots import Shots

FILE = "just-plane.sqlite3"


def own_folder():
    """The user's data folder, by the platform's custom."""
    return Path(platformdirs.user_data_dir("just-plane", appauthor=False))


def demo_folder():
    """The demo's folder: beside the user's own, never inside it."""
    return Path(platformdirs.user_data_dir("just-plane-demo", appauthor=False))


class Store(NamedTuple):
    """Everything that is kept in one folder."""

    shots: Shots
    kit: KeptKit
    photographs: Photographs


def open_store(folder):
    """What is kept in a folder, which is made if it is not there; its database is brought up to date.

    Raises
    ------
    DiskError        The folder cannot be made or written.
    MigrationError   The database in it cannot be used; it is left as it was.
    """
    folder = Path(folder)
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise DiskError(
            f"The data folder {folder} cannot be made: {error.strerror}.", "Choose another with --data."
        ) from error
    migrate(folder / FILE)
    database = Database(folder / FILE)
    return Store(Shots(database), KeptKit(database), Photographs(database))
