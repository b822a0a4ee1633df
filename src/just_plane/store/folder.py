"""A folder of data, opened: made if missing, brought to this program's form, set aside where it is none."""

import time
from pathlib import Path
from typing import NamedTuple

from just_plane.store.connection import Database
from just_plane.store.copies import is_whole, latest_copy, set_aside
from just_plane.store.devices import Devices
from just_plane.store.errors import DiskError, MigrationError
from just_plane.store.jobs import Jobs
from just_plane.store.kits import KeptKit
from just_plane.store.log import Log
from just_plane.store.migrate import migrate
from just_plane.store.photographs import Photographs
from just_plane.store.places import FILE
from just_plane.store.practice import Practice
from just_plane.store.runs import Runs
from just_plane.store.shots import Shots
from just_plane.store.trials import Trials


def _is_being_made(path):
    """Another starter has just begun it: a file with a log beside it, or one that appears whole in a moment."""
    for _ in range(20):
        if is_whole(path):
            return True
        time.sleep(0.05)
    return False


def _set_aside(path):
    """What is no data file is moved away under a name that says so, never overwritten; then a copy is offered."""
    away, copy = set_aside(path), latest_copy(path)
    offered = (
        f'The latest good copy is of {copy.stem[-10:]}: put it back with: just-plane restore "{copy}"'
        if copy is not None
        else "There is no copy beside it"
    )
    return MigrationError(
        f"The data file {path.name} in {path.parent} cannot be read; it was set aside as {away.name}.",
        f"{offered}; or start again, and an empty one is made.",
    )


class Store(NamedTuple):
    """Everything that is kept in one folder."""

    shots: Shots
    kit: KeptKit
    photographs: Photographs
    jobs: Jobs
    runs: Runs
    trials: Trials
    log: Log
    practice: Practice
    devices: Devices


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
    path = folder / FILE
    if path.exists() and not is_whole(path) and not _is_being_made(path):
        raise _set_aside(path)
    migrate(path)
    database = Database(folder / FILE)
    shots, kit, photographs = Shots(database), KeptKit(database), Photographs(database)
    work = Jobs(database), Runs(database), Trials(database), Log(database), Practice(database), Devices(database)
    return Store(shots, kit, photographs, *work)
