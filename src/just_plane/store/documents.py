"""Documents and their revisions. Every change is a new revision; undo and redo only move which one is current."""

import uuid
from datetime import UTC, datetime
from typing import Any, NamedTuple

from just_plane.store.connection import statement
from just_plane.store.errors import ConflictError, DamagedError, NotFoundError


class Kept(NamedTuple):
    """A document as it is kept now."""

    document_id: str
    revision: int
    saved_at: str
    """ISO 8601, UTC."""
    can_undo: bool
    can_redo: bool
    removed: bool
    body: Any
    """A model of the contract."""


class Documents:
    """The documents of one kind in one database."""

    def __init__(self, database, kind, model, noun):
        self.database = database
        self.kind = kind
        self.model = model
        self.noun = noun

    def add(self, body, document_id=None):
        """Keep a new document; return it as kept."""
        document_id = document_id or uuid.uuid4().hex[:12]
        with self.database.write() as connection:
            return self._add(connection, body, document_id)

    def get(self, document_id):
        """The document as it is now. Raises NotFoundError."""
        with self.database.read() as connection:
            return self._kept(connection, document_id)

    def at(self, document_id, revision):
        """The body that a document had at a revision. Raises NotFoundError, DamagedError."""
        with self.database.read() as connection:
            values = {"document_id": document_id, "revision_id": revision}
            row = connection.execute(statement("revision_by_id"), values).fetchone()
            if row is None:
                raise NotFoundError(f"There is no such form of this {self.noun}.", "Take it as it is now.")
            return self._body(row)

    def list(self, *, removed=False):
        """Documents, last changed first; the removed ones when asked."""
        with self.database.read() as connection:
            return [self._from_row(row) for row in self._rows(connection, removed)]

    def save(self, document_id, body, base_revision, *, continues=False):
        """Keep a changed document as its newest revision.

        Parameters
        ----------
        continues : bool   The change goes on with the one before, such as the next letter of a word: undo then goes
                           back to what was before both. Every form stays, for what was made from it.

        Raises
        ------
        NotFoundError    There is no such document.
        ConflictError    ``base_revision`` is not the current one: someone else has changed the document since.
        """
        with self.database.write() as connection:
            row = self._current(connection, document_id, base_revision)
            if self._body_or_none(row) != body:
                before = row["parent_revision_id"] if continues else None
                self._append(connection, document_id, before or row["revision_id"], body)
            return self._kept(connection, document_id)

    def undo(self, document_id, base_revision):
        """Go back to the revision before; what is undone stays for redo. Nothing to undo changes nothing."""
        return self._step(document_id, base_revision, "parent_revision_id")

    def redo(self, document_id, base_revision):
        """Go forward again to the revision last undone. Nothing to redo changes nothing."""
        return self._step(document_id, base_revision, "redo_revision_id")

    def remove(self, document_id):
        """Put a document away; it can be brought back."""
        self._set_removed(document_id, _now())

    def bring_back(self, document_id):
        """Bring a removed document back."""
        self._set_removed(document_id, None)

    def count(self):
        """How many documents there are, removed ones included."""
        with self.database.read() as connection:
            return connection.execute(statement("documents_count"), {"kind": self.kind}).fetchone()["documents"]

    def _add(self, connection, body, document_id):
        values = {"document_id": document_id, "kind": self.kind, "now": _now()}
        connection.execute(statement("document_insert"), values)
        self._append(connection, document_id, None, body)
        return self._kept(connection, document_id)

    def _step(self, document_id, base_revision, direction):
        with self.database.write() as connection:
            row = self._current(connection, document_id, base_revision)
            target = row[direction]
            if target is not None:
                if direction == "parent_revision_id":
                    connection.execute(
                        statement("revision_set_redo"), {"revision_id": target, "redo_revision_id": row["revision_id"]}
                    )
                connection.execute(
                    statement("document_set_current"), {"document_id": document_id, "revision_id": target}
                )
            return self._kept(connection, document_id)

    def _append(self, connection, document_id, parent, body):
        cursor = connection.execute(
            statement("revision_insert"),
            {
                "document_id": document_id,
                "parent_revision_id": parent,
                "now": _now(),
                "body_json": body.model_dump_json(),
            },
        )
        connection.execute(
            statement("document_set_current"), {"document_id": document_id, "revision_id": cursor.lastrowid}
        )

    def _row(self, connection, document_id):
        values = {"document_id": document_id, "kind": self.kind}
        return connection.execute(statement("document_by_id"), values).fetchone()

    def _rows(self, connection, removed):
        values = {"kind": self.kind, "removed": int(removed)}
        return connection.execute(statement("documents_list"), values).fetchall()

    def _kept(self, connection, document_id):
        return self._from_row(self._row_there(connection, document_id))

    def _row_there(self, connection, document_id):
        row = self._row(connection, document_id)
        if row is None:
            raise NotFoundError(
                f"There is no such {self.noun}.", f"It may be of another data folder; open the list of {self.noun}s."
            )
        return row

    def _current(self, connection, document_id, base_revision):
        """The row of a document that nobody has changed since. Raises NotFoundError, ConflictError."""
        row = self._row_there(connection, document_id)
        if base_revision != row["revision_id"]:
            raise ConflictError(
                f"This {self.noun} was changed in another window since it was opened here.",
                "Take the other version, or keep this one; the other stays one undo away.",
            )
        return row

    def _body(self, row):
        """The document of a row. Raises DamagedError: one that cannot be read never hides the others."""
        try:
            return self.model.model_validate_json(row["body_json"])
        except ValueError as error:
            raise DamagedError(
                f"This {self.noun} is damaged and cannot be read as it was last saved.",
                f"Undo goes back to the version before, where there is one; the other {self.noun}s are whole.",
            ) from error

    def _body_or_none(self, row):
        try:
            return self._body(row)
        except DamagedError:
            return None

    def _from_row(self, row):
        return Kept(
            row["document_id"],
            row["revision_id"],
            row["saved_at"],
            row["parent_revision_id"] is not None,
            row["redo_revision_id"] is not None,
            row["removed_at"] is not None,
            self._body(row),
        )

    def _set_removed(self, document_id, removed_at):
        with self.database.write() as connection:
            self._row_there(connection, document_id)
            values = {"document_id": document_id, "removed_at": removed_at}
            connection.execute(statement("document_set_removed"), values)


def _now():
    return datetime.now(UTC).isoformat(timespec="milliseconds")
