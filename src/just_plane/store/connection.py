"""The one rule of connections: one connection a unit of work, opened for it and closed after it.

``Database.read()`` gives a connection that cannot write; ``Database.write()`` one inside a transaction that commits
at the end and rolls back on any error. Nothing else in the program opens the file. SQLite serialises writers; a writer
waits up to five seconds for another. Write-ahead logging with ``synchronous=FULL`` makes a committed change outlive a
killed process and a pulled plug.
"""

import sqlite3
from contextlib import contextmanager
from pathlib import Path

from just_plane.store.errors import DamagedError, DiskError, GoneError

WAIT_S = 5.0
SQL = Path(__file__).parent / "sql"


def statement(name, _cache={}):  # noqa: B006 - the files are part of the program and never change while it runs
    """Text of one SQL statement, by its file's name without ``.sql``."""
    if name not in _cache:
        _cache[name] = (SQL / f"{name}.sql").read_text(encoding="utf-8")
    return _cache[name]


class Database:
    """The file in which everything is kept."""

    def __init__(self, path):
        self.path = Path(path)

    @contextmanager
    def read(self):
        """A connection that sees one moment and cannot write."""
        connection = self._open()
        try:
            connection.execute("PRAGMA query_only = ON")
            connection.execute("BEGIN")
            yield connection
        except sqlite3.DatabaseError as error:
            said = _said_of(error)
            if said is error or error.sqlite_errorcode & 0xFF == sqlite3.SQLITE_READONLY:
                raise
            raise said from error
        finally:
            connection.close()

    @contextmanager
    def write(self):
        """A connection inside a transaction: all of it is kept, or none.

        Raises
        ------
        DiskError   The disk is full, read-only or failing; nothing of the change was kept, what was there is whole.
        """
        connection = self._open()
        try:
            connection.execute("BEGIN IMMEDIATE")
            yield connection
            connection.execute("COMMIT")
        except sqlite3.DatabaseError as error:
            _roll_back(connection)
            said = _said_of(error)
            if said is error:
                raise
            raise said from error
        except BaseException:
            _roll_back(connection)
            raise
        finally:
            connection.close()

    def _open(self):
        # Never made anew: a file that is gone must not come back empty.
        address = f"{self.path.absolute().as_uri()}?mode=rw"
        try:
            connection = sqlite3.connect(address, timeout=WAIT_S, isolation_level=None, uri=True)
        except sqlite3.OperationalError as error:
            raise _gone(self.path) from error
        connection.row_factory = sqlite3.Row
        try:
            connection.execute("PRAGMA foreign_keys = ON")
            connection.execute("PRAGMA synchronous = FULL")
        except sqlite3.DatabaseError as error:
            connection.close()
            raise _said_of(error) from error
        return connection


def _roll_back(connection):
    # SQLite may have rolled back by itself; a second error here would hide the first.
    if connection.in_transaction:
        connection.execute("ROLLBACK")


def _gone(path):
    return GoneError(
        f"The data file {path.name} is not in {path.parent} any more.",
        "Put the folder back, or plug the disk in again: this goes on by itself. Nothing was saved meanwhile.",
    )


def _said_of(error):
    """What the disk refused, in words; the error itself when it is the program's own fault."""
    code = error.sqlite_errorcode & 0xFF  # without the details that extended codes add
    if code in (sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB):
        return DamagedError(
            f"The data file is damaged: {error}.",
            "Stop the program and put the last good copy back with `just-plane restore`.",
        )
    if code == sqlite3.SQLITE_FULL:
        return DiskError("The disk is full, so this change could not be saved.", "Free some space and try again.")
    if code in (sqlite3.SQLITE_READONLY, sqlite3.SQLITE_PERM):
        return DiskError("The data folder cannot be written to.", "Check its permissions, or choose another folder.")
    if code in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
        return DiskError("Another program is writing to the data file.", "Try again in a moment.")
    if code in (sqlite3.SQLITE_IOERR, sqlite3.SQLITE_CANTOPEN):
        return DiskError(f"The data file could not be used: {error}.", "What was saved before is whole.")
    return error
