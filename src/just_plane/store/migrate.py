"""Bringing a database to this program's form: numbered scripts, each whole or not at all, a copy taken first."""

import hashlib
import sqlite3
import time
from contextlib import closing
from pathlib import Path
from typing import NamedTuple

from just_plane.store.errors import MigrationError

WAIT_S = 10.0
"""For another starter that is at it."""
MIGRATIONS = Path(__file__).parent / "migrations"
_BOOTSTRAP = """
CREATE TABLE IF NOT EXISTS schema_migration (
  number INTEGER PRIMARY KEY,
  sha256 TEXT NOT NULL
) STRICT
"""


class Migration(NamedTuple):
    """One script: its number, its text and the digest by which a later change to it is noticed."""

    number: int
    sql: str
    sha256: str


def migrations_in(folder):
    """The scripts of a folder in order.

    Raises
    ------
    MigrationError   Numbers do not run 1, 2, 3 without a gap.
    """
    found = []
    for path in sorted(Path(folder).glob("[0-9]*_*.sql")):
        number = int(path.name.partition("_")[0])
        sql = path.read_text(encoding="utf-8")
        found.append(Migration(number, sql, hashlib.sha256(sql.encode()).hexdigest()))
    if [migration.number for migration in found] != list(range(1, len(found) + 1)):
        raise MigrationError("The program's own migrations are not numbered 1, 2, 3.", "Install it again.")
    return found


def migrate(path, folder=MIGRATIONS):
    """Apply what is missing to the database at ``path``; make it if it is not there.

    Parameters
    ----------
    path : Path     The database file.
    folder : Path   Where the scripts are.

    Returns
    -------
    int             Number of scripts applied.

    Raises
    ------
    MigrationError  The file is no database of this program, is newer than it, or a script failed and was rolled back.
                    Before the first script is applied to a database with anything in it, a copy ``<name>.before-N``
                    is left beside it.
    """
    scripts = migrations_in(folder)
    try:
        with closing(sqlite3.connect(path, timeout=WAIT_S, isolation_level=None)) as connection:
            return _bring_up(connection, Path(path), scripts)
    except sqlite3.DatabaseError as error:
        raise MigrationError(
            f"The data file {Path(path).name} cannot be read as a database: {error}.",
            "Move it away and start again, or put a copy of it back.",
        ) from error


def _bring_up(connection, path, scripts):
    """Under one lock, so that of several starters one does the work and the others find it done."""
    _use_write_ahead_log(connection)
    connection.execute("BEGIN IMMEDIATE")
    try:
        connection.execute(_BOOTSTRAP)
        applied = dict(connection.execute("SELECT number, sha256 FROM schema_migration ORDER BY number").fetchall())
        _must_be_known(applied, scripts)
        missing = scripts[len(applied) :]
        if missing and applied:
            _copy(connection, path.with_name(f"{path.name}.before-{missing[0].number:04d}"))
        for script in missing:
            _apply(connection, script)
        connection.execute("COMMIT")
    except BaseException:
        if connection.in_transaction:
            connection.execute("ROLLBACK")
        raise
    return len(missing)


def _use_write_ahead_log(connection):
    """The switch needs the file to itself for a moment, and does not wait for it as everything else does."""
    until = time.monotonic() + WAIT_S
    while True:
        try:
            connection.execute("PRAGMA journal_mode = WAL")
            return
        except sqlite3.OperationalError as error:
            if error.sqlite_errorcode & 0xFF not in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
                raise
            if time.monotonic() > until:
                raise
            time.sleep(0.02)


def _must_be_known(applied, scripts):
    if len(applied) > len(scripts):
        raise MigrationError(
            f"The data file is of version {len(applied)}; this program knows up to {len(scripts)}.",
            "Update the program. Nothing was changed.",
        )
    for script in scripts[: len(applied)]:
        if applied.get(script.number) != script.sha256:
            raise MigrationError(
                f"Migration {script.number:04d} is not the one this data file was made with.",
                "Install the program again. Nothing was changed.",
            )


def _copy(connection, destination):
    # By a connection of its own: it sees what is kept now, while the lock keeps everyone else from changing it.
    source = connection.execute("PRAGMA database_list").fetchone()[2]
    with closing(sqlite3.connect(source)) as reader, closing(sqlite3.connect(destination)) as copy:
        reader.backup(copy)


def _apply(connection, script):
    """Run a script statement by statement: ``executescript`` would commit the transaction that holds the lock."""
    try:
        for text in _statements(script.sql):
            connection.execute(text)
        broken = connection.execute("PRAGMA foreign_key_check").fetchone()
        if broken is not None:
            raise sqlite3.IntegrityError(f"a row of {broken[0]} points at nothing in {broken[2]}")
        connection.execute("INSERT INTO schema_migration VALUES (?, ?)", (script.number, script.sha256))
    except sqlite3.Error as error:
        raise MigrationError(
            f"Migration {script.number:04d} failed and was rolled back: {error}.",
            "The data is as it was. Report this with the sentence above.",
        ) from error


def _statements(sql):
    """The statements of a script, each whole; comments go with the statement behind them."""
    text = ""
    for line in sql.splitlines(keepends=True):
        text += line
        if sqlite3.complete_statement(text):
            yield text
            text = ""
    if text.strip():
        yield text
