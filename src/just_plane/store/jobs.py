"""Long work as it is asked for and ends; the work itself is elsewhere, its results are files in a folder."""

import sqlite3
import uuid
from datetime import UTC, datetime
from typing import NamedTuple

from just_plane.store.connection import statement
from just_plane.store.errors import NotFoundError

OPEN = ("waiting", "running", "cancelling")


class Job(NamedTuple):
    """One request."""

    job_id: str
    document_id: str | None
    kind: str
    request_json: str
    request_key: str
    state: str
    tries: int
    message: str
    remedy: str
    asked_at: str
    ended_at: str | None
    paused: int = 0
    """1: it rests until somebody says go on."""


def _now():
    return datetime.now(UTC).isoformat(timespec="milliseconds")


class Jobs:
    """The jobs of one database; ``folder`` is where results lie."""

    def __init__(self, database):
        self.database = database
        self.folder = database.path.parent / "results"

    def ask(self, kind, request_json, request_key, document_id=None):
        """A new job, or the open one that asks the same: Job."""
        with self.database.write() as connection:
            row = connection.execute(statement("job_open_by_key"), {"request_key": request_key}).fetchone()
            if row is not None:
                return Job(**dict(row))
            job_id = uuid.uuid4().hex
            connection.execute(
                statement("job_insert"),
                {
                    "job_id": job_id,
                    "document_id": document_id,
                    "kind": kind,
                    "request_json": request_json,
                    "request_key": request_key,
                    "now": _now(),
                },
            )
            return self._get(connection, job_id)

    def get(self, job_id):
        """One job. Raises NotFoundError."""
        with self.database.read() as connection:
            return self._get(connection, job_id)

    def of_document(self, document_id, most=20):
        """The last jobs of a shot, the newest first: list of Job."""
        with self.database.read() as connection:
            rows = connection.execute(
                statement("jobs_of_document"), {"document_id": document_id, "most": most}
            ).fetchall()
        return [Job(**dict(row)) for row in rows]

    def asked_since(self, moment):
        """What was asked since a moment, or is open (ISO 8601, UTC): list of request_json, str."""
        with self.database.read() as connection:
            return [row[0] for row in connection.execute(statement("jobs_asked_since"), {"since": moment})]

    def cancel(self, job_id):
        """Ask a job to stop; nothing happens to one that ended. Returns the job as it is then."""
        with self.database.write() as connection:
            connection.execute(statement("job_cancel"), {"job_id": job_id, "now": _now()})
            return self._get(connection, job_id)

    def pause(self, job_id, *, paused):
        """Let a job rest, or go on; nothing happens to one that ended. Returns the job as it is then."""
        with self.database.write() as connection:
            connection.execute(statement("job_pause"), {"job_id": job_id, "paused": int(paused)})
            return self._get(connection, job_id)

    @staticmethod
    def _get(connection: sqlite3.Connection, job_id):
        row = connection.execute(statement("job_by_id"), {"job_id": job_id}).fetchone()
        if row is None:
            raise NotFoundError("There is no such job.", "Start it again.")
        return Job(**dict(row))
