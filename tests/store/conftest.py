"""Faults of the machine, made up."""

import pytest

from just_plane.store.connection import Database


@pytest.fixture
def fill_disk(monkeypatch):
    """A function: from then on the disk has no room for another page; ``monkeypatch.undo()`` makes room again."""
    opened = Database._open

    def open_on_a_full_disk(database):
        connection = opened(database)
        # SQLite refuses pages past this count with the very error of a full disk.
        pages = connection.execute("PRAGMA page_count").fetchone()[0]
        connection.execute(f"PRAGMA max_page_count = {pages}")
        return connection

    return lambda: monkeypatch.setattr(Database, "_open", open_on_a_full_disk)
