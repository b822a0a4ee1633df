"""Trials of gear as they are kept: asked, settled once, believed or put aside."""

import uuid
from datetime import UTC, datetime
from typing import NamedTuple

from just_plane.store.connection import statement
from just_plane.store.errors import NotFoundError


class Trial(NamedTuple):
    """One trial."""

    trial_id: str
    job_id: str | None
    """None: it was measured at a shot's page."""
    asked_json: str
    result_json: str | None
    believed: int
    put_aside: int
    asked_at: str


class Trials:
    """The trials of one database."""

    def __init__(self, database):
        self.database = database

    def add(self, job_id, asked_json):
        """A new trial: Trial."""
        trial_id = uuid.uuid4().hex
        now = datetime.now(UTC).isoformat(timespec="milliseconds")
        with self.database.write() as connection:
            values = {"trial_id": trial_id, "job_id": job_id, "asked_json": asked_json, "now": now}
            connection.execute(statement("trial_insert"), values)
            return _get(connection, trial_id)

    def keep(self, asked_json, result_json, *, believed=True):
        """A trial that no job works out: Trial."""
        trial_id = uuid.uuid4().hex
        now = datetime.now(UTC).isoformat(timespec="milliseconds")
        with self.database.write() as connection:
            values = {"trial_id": trial_id, "asked_json": asked_json, "result_json": result_json, "now": now}
            connection.execute(statement("trial_keep"), values | {"believed": int(believed)})
            return _get(connection, trial_id)

    def get(self, trial_id):
        """One trial. Raises NotFoundError."""
        with self.database.read() as connection:
            return _get(connection, trial_id)

    def list(self, most=200):
        """The last trials, the newest first: list of Trial."""
        with self.database.read() as connection:
            return [Trial(**dict(row)) for row in connection.execute(statement("trials_list"), {"most": most})]

    def settle(self, trial_id, result_json):
        """Keep what came out; what is kept already stays."""
        with self.database.write() as connection:
            connection.execute(statement("trial_settle"), {"trial_id": trial_id, "result_json": result_json})
            return _get(connection, trial_id)

    def judge(self, trial_id, *, believed, put_aside):
        """Believe it, or put it aside. Raises NotFoundError."""
        with self.database.write() as connection:
            values = {"trial_id": trial_id, "believed": int(believed), "put_aside": int(put_aside)}
            connection.execute(statement("trial_judge"), values)
            return _get(connection, trial_id)


def _get(connection, trial_id):
    row = connection.execute(statement("trial_by_id"), {"trial_id": trial_id}).fetchone()
    if row is None:
        raise NotFoundError("There is no such trial.", "Look at the list of trials.")
    return Trial(**dict(row))
