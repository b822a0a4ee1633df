"""The notebook as it is kept: entries made once a run, what came out set when it is known, notes with a count."""

import uuid
from typing import NamedTuple

from just_plane.store.connection import statement
from just_plane.store.errors import ConflictError, NotFoundError


class Entry(NamedTuple):
    """One entry."""

    entry_id: str
    run_id: str | None
    document_id: str
    revision: int
    set_json: str
    done_json: str
    out_json: str | None
    note_json: str
    note_number: int
    made_at: str


class Log:
    """The notebook of one database."""

    def __init__(self, database):
        self.database = database

    def add(self, run, set_json, done_json, note_json="{}", out_json=None, made_at=None):
        """An entry of a run, once; of the same run twice it is the first: Entry."""
        values = {
            "entry_id": uuid.uuid4().hex,
            "run_id": run.run_id,
            "document_id": run.document_id,
            "revision": run.revision,
            "set_json": set_json,
            "done_json": done_json,
            "note_json": note_json,
            "made_at": made_at or run.started_at,
        }
        with self.database.write() as connection:
            connection.execute(statement("log_insert"), values)
            if out_json is not None:
                connection.execute(statement("log_out"), {"entry_id": values["entry_id"], "out_json": out_json})

    def get(self, entry_id):
        """One entry. Raises NotFoundError."""
        with self.database.read() as connection:
            return _get(connection, entry_id)

    def list(self, most=500):
        """The last entries, the newest first: list of Entry."""
        with self.database.read() as connection:
            return [Entry(**dict(row)) for row in connection.execute(statement("log_list"), {"most": most})]

    def set_done(self, entry_id, done_json):
        """What was done since, while the run went on."""
        with self.database.write() as connection:
            connection.execute(statement("log_done"), {"entry_id": entry_id, "done_json": done_json})

    def set_out(self, entry_id, out_json):
        """What came out."""
        with self.database.write() as connection:
            connection.execute(statement("log_out"), {"entry_id": entry_id, "out_json": out_json})

    def note(self, entry_id, note_json, note_number):
        """Keep what the photographer wrote. Raises NotFoundError, ConflictError where another window wrote since."""
        with self.database.write() as connection:
            values = {"entry_id": entry_id, "note_json": note_json, "note_number": note_number}
            changed = connection.execute(statement("log_note"), values).rowcount
            entry = _get(connection, entry_id)
            if not changed:
                raise ConflictError(
                    "Somebody wrote in this entry since you opened it.", "Look at it again, then write yours."
                )
            return entry


def _get(connection, entry_id):
    row = connection.execute(statement("log_by_id"), {"entry_id": entry_id}).fetchone()
    if row is None:
        raise NotFoundError("There is no such entry.", "Look at the notebook.")
    return Entry(**dict(row))
