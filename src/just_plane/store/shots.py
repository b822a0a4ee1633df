"""Shots and their revisions. Every change is a new revision; undo and redo only move which one is current."""

import uuid
from datetime import UTC, datetime
from typing import NamedTuple

from just_plane.contract.shot import Shot
from just_plane.store.connection import statement
from just_plane.store.errors import ConflictError, NotFoundError


class KeptShot(NamedTuple):
    """A shot as it is kept now."""

    shot_id: str
    revision: int
    saved_at: str
    """ISO 8601, UTC."""
    can_undo: bool
    can_redo: bool
    removed: bool
    shot: Shot


class ShotSummary(NamedTuple):
    """One line of the list of shots."""

    shot_id: str
    revision: int
    saved_at: str
    shot: Shot


class Shots:
    """The shots of one database."""

    def __init__(self, database):
        self.database = database

    def add(self, shot):
        """Keep a new shot; return it as kept."""
        shot_id = uuid.uuid4().hex[:12]
        with self.database.write() as connection:
            connection.execute(statement("shot_insert"), {"shot_id": shot_id, "now": _now()})
            self._append(connection, shot_id, None, shot)
            return self._kept(connection, shot_id)

    def get(self, shot_id):
        """The shot as it is now. Raises NotFoundError."""
        with self.database.read() as connection:
            return self._kept(connection, shot_id)

    def list(self, *, removed=False):
        """Summaries, last changed first; of the removed ones when asked."""
        with self.database.read() as connection:
            rows = connection.execute(statement("shots_list"), {"removed": int(removed)}).fetchall()
        return [ShotSummary(row["shot_id"], row["revision_id"], row["saved_at"], _shot(row)) for row in rows]

    def save(self, shot_id, shot, base_revision):
        """Keep a changed shot as its newest revision.

        Raises
        ------
        NotFoundError    There is no such shot.
        ConflictError    ``base_revision`` is not the current one: someone else has changed the shot since.
        """
        with self.database.write() as connection:
            kept = self._kept(connection, shot_id)
            self._must_be_current(kept, base_revision)
            if kept.shot != shot:
                self._append(connection, shot_id, kept.revision, shot)
            return self._kept(connection, shot_id)

    def undo(self, shot_id, base_revision):
        """Go back to the revision before; what is undone stays for redo. Nothing to undo changes nothing."""
        return self._step(shot_id, base_revision, "parent_revision_id")

    def redo(self, shot_id, base_revision):
        """Go forward again to the revision last undone. Nothing to redo changes nothing."""
        return self._step(shot_id, base_revision, "redo_revision_id")

    def remove(self, shot_id):
        """Put a shot away; it can be brought back."""
        self._set_removed(shot_id, _now())

    def bring_back(self, shot_id):
        """Bring a removed shot back."""
        self._set_removed(shot_id, None)

    def count(self):
        """How many shots there are, removed ones included."""
        with self.database.read() as connection:
            return connection.execute(statement("shots_count")).fetchone()["shots"]

    def _step(self, shot_id, base_revision, direction):
        with self.database.write() as connection:
            kept = self._kept(connection, shot_id)
            self._must_be_current(kept, base_revision)
            row = connection.execute(statement("shot_by_id"), {"shot_id": shot_id}).fetchone()
            target = row[direction]
            if target is not None:
                if direction == "parent_revision_id":
                    connection.execute(
                        statement("revision_set_redo"), {"revision_id": target, "redo_revision_id": kept.revision}
                    )
                connection.execute(statement("shot_set_current"), {"shot_id": shot_id, "revision_id": target})
            return self._kept(connection, shot_id)

    def _append(self, connection, shot_id, parent, shot):
        cursor = connection.execute(
            statement("revision_insert"),
            {
                "shot_id": shot_id,
                "parent_revision_id": parent,
                "now": _now(),
                "body_json": shot.model_dump_json(),
            },
        )
        connection.execute(statement("shot_set_current"), {"shot_id": shot_id, "revision_id": cursor.lastrowid})

    def _kept(self, connection, shot_id):
        row = connection.execute(statement("shot_by_id"), {"shot_id": shot_id}).fetchone()
        if row is None:
            raise NotFoundError("There is no such shot.", "It may be of another data folder; open the list of shots.")
        return KeptShot(
            row["shot_id"],
            row["revision_id"],
            row["saved_at"],
            row["parent_revision_id"] is not None,
            row["redo_revision_id"] is not None,
            row["removed_at"] is not None,
            _shot(row),
        )

    def _must_be_current(self, kept, base_revision):
        if base_revision != kept.revision:
            raise ConflictError(
                "This shot was changed in another window since it was opened here.",
                "Take the other version, or keep this one; the other stays one undo away.",
            )

    def _set_removed(self, shot_id, removed_at):
        with self.database.write() as connection:
            self._kept(connection, shot_id)
            connection.execute(statement("shot_set_removed"), {"shot_id": shot_id, "removed_at": removed_at})


def _shot(row):
    return Shot.model_validate_json(row["body_json"])


def _now():
    return datetime.now(UTC).isoformat(timespec="milliseconds")
