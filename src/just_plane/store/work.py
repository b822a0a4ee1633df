"""Work in pieces, as the one server sees to it that does it; of several on one folder the others stand back.

Whoever writes here is asked whether it is still the one: a server that slept for too long finds another in its place,
and what it wanted to write is not written.
"""

import json
from contextlib import contextmanager
from datetime import UTC, datetime
from typing import NamedTuple

from just_plane.store.connection import statement
from just_plane.store.errors import StoreError
from just_plane.store.jobs import Job

SILENT_S = 15.0
"""After so long without a sign another server takes over."""


class StoodBackError(StoreError):
    """Another server does the work now."""

    def __init__(self):
        super().__init__("Another server on this folder does the work now.", "")


class Owner(NamedTuple):
    """A server's turn."""

    owner_id: str
    generation: int


class Task(NamedTuple):
    """One piece of a job."""

    result_key: str
    kind: str
    weight: int
    order_json: str
    needs: list
    """Keys of the pieces it rests on, in order."""
    state: str = "waiting"
    tries: int = 0


class Work:
    """The pieces of all jobs of one database."""

    def __init__(self, database):
        self.database = database

    def claim(self, owner_id, now_s, gone=lambda _owner_id: False):
        """Become the one that works, when nobody is or it has been silent.

        Parameters
        ----------
        owner_id : str    Of this process alone.
        now_s : float     By the clock on the wall. A sign from later than now is none: the clock was set back.
        gone : function   Of another's id, whether it is known to have ended: then nobody waits for its silence.

        Returns
        -------
        Owner or None    None: another works. What the last one had begun waits again.
        """
        with self.database.write() as connection:
            row = connection.execute(statement("owner")).fetchone()
            another = row is not None and row["owner_id"] != owner_id
            if another and abs(now_s - row["seen_at_s"]) < SILENT_S and not gone(row["owner_id"]):
                return None
            connection.execute(statement("owner_take"), {"owner_id": owner_id, "now_s": now_s})
            connection.execute(statement("jobs_taken_up"))
            connection.execute(statement("tasks_wait_again"), {"job_id": None})
            return Owner(owner_id, connection.execute(statement("owner")).fetchone()["generation"])

    def seen(self, owner, now_s):
        """Give a sign. Raises StoodBackError."""
        with self._mine(owner) as connection:
            connection.execute(statement("owner_seen"), owner._asdict() | {"now_s": now_s})

    def let_go(self, owner):
        """This server ends; the next may begin at once."""
        with self.database.write() as connection:
            connection.execute(statement("owner_gone"), owner._asdict())

    def take(self, owner):
        """The next job that waits, running from now: Job or None. Raises StoodBackError."""
        with self._mine(owner) as connection:
            row = connection.execute(statement("job_next")).fetchone()
            if row is None:
                return None
            connection.execute(statement("job_start"), {"job_id": row["job_id"]})
            row = connection.execute(statement("job_by_id"), {"job_id": row["job_id"]}).fetchone()
            return Job(**dict(row))

    def end(self, owner, job_id, state, message="", remedy=""):
        """Done, failed or cancelled; its pieces are forgotten. Raises StoodBackError."""
        now = datetime.now(UTC).isoformat(timespec="milliseconds")
        with self._mine(owner) as connection:
            connection.execute(
                statement("job_end"),
                {"job_id": job_id, "state": state, "message": message, "remedy": remedy, "now": now},
            )
            connection.execute(statement("tasks_remove"), {"job_id": job_id})

    def rests(self, owner, job_id):
        """A paused job waits with what is done of it. Raises StoodBackError."""
        with self._mine(owner) as connection:
            connection.execute(statement("job_rests"), {"job_id": job_id})
            connection.execute(statement("tasks_wait_again"), {"job_id": job_id})

    def plan(self, owner, job_id, tasks):
        """Write down the pieces of a job. Raises StoodBackError."""
        with self._mine(owner) as connection:
            for ordinal, task in enumerate(tasks):
                values = task._asdict() | {"job_id": job_id, "ordinal": ordinal, "needs_json": json.dumps(task.needs)}
                del values["needs"], values["state"], values["tries"]
                connection.execute(statement("task_insert"), values)

    def tasks(self, job_id):
        """The pieces of a job, in order: list of Task; empty before they were written down."""
        with self.database.read() as connection:
            rows = connection.execute(statement("tasks_of_job"), {"job_id": job_id}).fetchall()
        return [
            Task(
                row["result_key"],
                row["kind"],
                row["weight"],
                row["order_json"],
                json.loads(row["needs_json"]),
                row["state"],
                row["tries"],
            )
            for row in rows
        ]

    def sent(self, owner, job_id, result_key):
        """A piece is being done. Raises StoodBackError."""
        self._state(owner, job_id, result_key, "sent", 0)

    def waits(self, owner, job_id, result_key, *, lost):
        """A piece was not done; ``lost`` counts as a try. Raises StoodBackError."""
        self._state(owner, job_id, result_key, "waiting", int(lost))

    def done(self, owner, job_id, task, size):
        """A piece is done: its file is there. Raises StoodBackError."""
        now = datetime.now(UTC).isoformat(timespec="milliseconds")
        kept = {"result_key": task.result_key, "kind": task.kind, "bytes": size, "now": now}
        with self._mine(owner) as connection:
            connection.execute(statement("result_keep"), kept)
            self._set(connection, job_id, task.result_key, "done", 0)

    def skip(self, owner, job_id, keys):
        """Pieces that need not be done; what they left, if anything, was used now. Raises StoodBackError."""
        now = datetime.now(UTC).isoformat(timespec="milliseconds")
        with self._mine(owner) as connection:
            for key in keys:
                self._set(connection, job_id, key, "done", 0)
                connection.execute(statement("result_used"), {"result_key": key, "now": now})

    def frame_hash(self, path, stamp):
        """The name of a file's bytes, if it was read when it was so long and so old: str or None."""
        with self.database.read() as connection:
            row = connection.execute(statement("frame_file"), _file(path, stamp)).fetchone()
        return None if row is None else row["frame_hash"]

    def keep_frame_hashes(self, found):
        """Remember names of files.

        Parameters
        ----------
        found : list of (str, (int, int), str)   Path; bytes and time; 32 hexadecimal digits.
        """
        with self.database.write() as connection:
            for path, stamp, frame_hash in found:
                connection.execute(statement("frame_file_keep"), _file(path, stamp) | {"frame_hash": frame_hash})

    def results(self):
        """What was left by pieces, the longest unused first: list of (key, kind, bytes, used at)."""
        with self.database.read() as connection:
            rows = connection.execute(statement("results_by_use")).fetchall()
        return [(row["result_key"], row["kind"], row["bytes"], row["used_at"]) for row in rows]

    def forget_results(self, keys):
        """Results whose files went."""
        with self.database.write() as connection:
            connection.executemany(statement("result_remove"), [{"result_key": key} for key in keys])

    def keeping(self):
        """Of every request that was made: its key to (when it was last asked for, whether it is open)."""
        with self.database.read() as connection:
            rows = connection.execute(statement("jobs_keeping")).fetchall()
        return {row["request_key"]: (row["asked_at"], bool(row["is_open"])) for row in rows}

    def _state(self, owner, job_id, result_key, state, tries):
        with self._mine(owner) as connection:
            self._set(connection, job_id, result_key, state, tries)

    @staticmethod
    def _set(connection, job_id, result_key, state, tries):
        connection.execute(
            statement("task_state"), {"job_id": job_id, "result_key": result_key, "state": state, "tries": tries}
        )

    @contextmanager
    def _mine(self, owner):
        """A transaction of the server whose turn it is."""
        with self.database.write() as connection:
            row = connection.execute(statement("owner")).fetchone()
            if row is None or (row["owner_id"], row["generation"]) != tuple(owner):
                raise StoodBackError
            yield connection


def _file(path, stamp):
    return {"path": str(path), "bytes": stamp[0], "modified_ns": stamp[1]}
