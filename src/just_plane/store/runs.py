"""Runs as they are kept: what each was made from, and its events, which are only ever added."""

import uuid
from datetime import UTC, datetime
from typing import NamedTuple

from just_plane.store.connection import statement
from just_plane.store.errors import ConflictError, NotFoundError


class Run(NamedTuple):
    """A run as it is kept."""

    run_id: str
    document_id: str
    revision: int
    plan_json: str
    started_at: str
    events: tuple
    """Of (at, event_json), in order."""


def _now():
    return datetime.now(UTC).isoformat(timespec="milliseconds")


class Runs:
    """The runs of one database."""

    def __init__(self, database):
        self.database = database

    def begin(self, document_id, revision, plan_json, check):
        """A new run: Run.

        ``check(last)`` is called inside the transaction, with the newest run of the shot or None; what it raises
        refuses the new one.
        """
        run_id = uuid.uuid4().hex
        with self.database.write() as connection:
            last = connection.execute(statement("runs_of_document"), {"document_id": document_id, "most": 1}).fetchone()
            check(None if last is None else _with_events(connection, last))
            connection.execute(
                statement("run_insert"),
                {
                    "run_id": run_id,
                    "document_id": document_id,
                    "revision": revision,
                    "plan_json": plan_json,
                    "now": _now(),
                },
            )
            return _read(connection, run_id)

    def get(self, run_id):
        """One run with its events. Raises NotFoundError."""
        with self.database.read() as connection:
            return _read(connection, run_id)

    def of_document(self, document_id, most=20):
        """Runs of a shot, the newest first: list of Run."""
        with self.database.read() as connection:
            rows = connection.execute(
                statement("runs_of_document"), {"document_id": document_id, "most": most}
            ).fetchall()
            return [_with_events(connection, row) for row in rows]

    def without_entry(self, most):
        """Runs that are not in the notebook yet, the oldest first: list of Run."""
        with self.database.read() as connection:
            rows = connection.execute(statement("runs_without_entry"), {"most": most}).fetchall()
            return [_with_events(connection, row) for row in rows]

    def add(self, run_id, number, press, event_json, check):
        """Add an event after ``number`` others; the same press twice is one event.

        ``check(run)`` is called inside the transaction, with the run as it is then; what it raises refuses the event.

        Raises
        ------
        NotFoundError   There is no such run.
        ConflictError   Others were added since.
        """
        with self.database.write() as connection:
            run = _read(connection, run_id)
            presses = [row["press"] for row in connection.execute(statement("run_events"), {"run_id": run_id})]
            if press in presses:
                return run
            if number != len(run.events):
                raise ConflictError(
                    "Something was done in this run since you last saw it.",
                    "Look where it stands now, and go on from there.",
                )
            check(run)
            connection.execute(
                statement("run_event_insert"),
                {"run_id": run_id, "number": number, "press": press, "now": _now(), "event_json": event_json},
            )
            return _read(connection, run_id)


def _read(connection, run_id):
    row = connection.execute(statement("run_by_id"), {"run_id": run_id}).fetchone()
    if row is None:
        raise NotFoundError("There is no such run.", "Begin one at the shot's station Run.")
    return _with_events(connection, row)


def _with_events(connection, row):
    events = connection.execute(statement("run_events"), {"run_id": row["run_id"]}).fetchall()
    return Run(**dict(row), events=tuple((event["at"], event["event_json"]) for event in events))
