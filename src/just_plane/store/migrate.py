"""Bringing a database to this program's form: numbered scripts, each whole or not at all, a copy taken first."""

import hashlib
import sqlite3
from contextlib import closing
from pathlib import Path
from typing import NamedTuple

from just_plane.store.errors import MigrationError

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
        with closing(sqlite3.connect(path, timeout=5, isolation_level=None)) as connection:
            return _bring_up(connection, Path(path), scripts)
    except sqlite3.DatabaseError as error:
        raise MigrationError(
            f"The data file {Path(path).name} cannot be read as a database: {error}.",
            "Move it away and start again, or put a copy of it back.",
        ) from error


def _bring_up(connection, path, scripts):
    connection.execute("PRAGMA journal_mode = WAL")
    connection.execute(_BOOTSTRAP)
    applied = dict(connection.execute("SELECT number, sha256 FROM schema_migration ORDER BY number").fetchall())
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
    missing = scripts[len(applied) :]
    if missing and applied:
        _copy(connection, path.with_name(f"{path.name}.before-{missing[0].number:04d}"))
    for script in missing:
        _apply(connection, script)
    return len(missing)


def _copy(connection, destination):
    with closing(sqlite3.connect(destination)) as copy:
        connection.backup(copy)


def _apply(connection, script):
    # executescript would commit an open transaction first, so the script begins and commits by itself.
    text = (
        f"BEGIN IMMEDIATE;\n{script.sql}\n"
        f"INSERT INTO schema_migration VALUES ({script.number}, '{script.sha256}');\nCOMMIT;"
    )
    try:
        connection.executescript(text)
    except sqlite3.Error as error:
        if connection.in_transaction:
            connection.execute("ROLLBACK")
        raise MigrationError(
            f"Migration {script.number:04d} failed and was rolled back: {error}.",
            "The data is as it was. Report this with the sentence above.",
        ) from error
