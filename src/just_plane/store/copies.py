"""Copies of the data file, sound with a write-ahead log beside it: once a day, by request, and before a restore."""

import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

from just_plane.store.errors import DiskError, MigrationError

FOLDER = "copies"
DAYS_KEPT = 14


def copy_to(database, destination):
    """A copy of a database as it is at one moment, whatever is being written meanwhile.

    Parameters
    ----------
    database, destination : Path

    Raises
    ------
    DiskError        It cannot be written; nothing is left half done.
    MigrationError   The database cannot be read.
    """
    destination = Path(destination)
    unfinished = destination.with_name(destination.name + ".unfinished")
    try:
        destination.parent.mkdir(parents=True, exist_ok=True)
        unfinished.unlink(missing_ok=True)
        with closing(_opened(database)) as source, closing(sqlite3.connect(unfinished)) as copy:
            source.backup(copy)
            copy.execute("PRAGMA journal_mode = DELETE")
        unfinished.replace(destination)
    except OSError as error:
        raise DiskError(
            f"The copy {destination} cannot be written: {error.strerror}.", "Choose another place."
        ) from error
    except sqlite3.DatabaseError as error:
        unfinished.unlink(missing_ok=True)
        raise MigrationError(
            f"The data file {Path(database).name} cannot be copied: {error}.", "Free some space, or use an older copy."
        ) from error


def daily_copy(database):
    """One copy a day in ``copies`` beside the database, the last fourteen kept; a disk that is full makes none.

    Returns
    -------
    Path or None     The copy, where one was made now.
    """
    folder = Path(database).with_name(FOLDER)
    today = folder / f"{Path(database).stem}-{datetime.now(UTC):%Y-%m-%d}.sqlite3"
    if today.exists():
        return None
    try:
        copy_to(database, today)
        for old in sorted(folder.glob("*.sqlite3"))[:-DAYS_KEPT]:
            old.unlink(missing_ok=True)
    except (DiskError, MigrationError, OSError):
        return None
    return today


def latest_copy(database):
    """The newest copy beside a database that can be read whole: Path, or None."""
    copies = sorted(Path(database).with_name(FOLDER).glob("*.sqlite3"), reverse=True)
    return next((copy for copy in copies if is_whole(copy)), None)


def is_whole(path):
    """Whether a file is a database that SQLite finds nothing wrong with, with something of this program in it."""
    try:
        with closing(_opened(path)) as connection:
            fine = connection.execute("PRAGMA quick_check").fetchone()[0] == "ok"
            named = connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'schema_migration'").fetchone()
            return fine and named is not None
    except sqlite3.Error:
        return False


def set_aside(database, why="unreadable"):
    """Move a database, and its log, away under a name that says so: Path of where it went."""
    database = Path(database)
    stamp = f"{datetime.now(UTC):%Y-%m-%d-%H%M%S}"
    away = database.with_name(f"{database.stem}.{why}-{stamp}{database.suffix}")
    for ending in ("", "-wal", "-shm"):
        part = database.with_name(database.name + ending)
        if part.exists():
            part.replace(away.with_name(away.name + ending))
    return away


def restore(database, copy):
    """Put a copy in the place of the database, which is set aside first: Path of where that went, or None.

    Raises
    ------
    MigrationError   The copy is no whole database of this program; nothing was changed.
    DiskError        It cannot be written.
    """
    if not is_whole(copy):
        raise MigrationError(
            f"{Path(copy).name} is no whole copy of a data file.", "Choose another; nothing was changed."
        )
    fresh = Path(database).with_name(Path(database).name + ".restoring")
    copy_to(copy, fresh)
    away = set_aside(database, "before-restore") if Path(database).exists() else None
    fresh.replace(database)
    return away


def _opened(path):
    return sqlite3.connect(f"{Path(path).absolute().as_uri()}?mode=rw", uri=True)
