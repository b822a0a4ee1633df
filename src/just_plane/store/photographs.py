"""Framing photographs, kept beside the shots that name them; each once, by what is in it."""

import hashlib
from datetime import UTC, datetime

from just_plane.store.connection import statement
from just_plane.store.errors import NotFoundError


class Photographs:
    """The photographs of one database."""

    def __init__(self, database):
        self.database = database

    def add(self, jpeg, width, height):
        """Keep a photograph; return its id, which is the same for the same picture."""
        photograph_id = hashlib.sha256(jpeg).hexdigest()[:32]
        with self.database.write() as connection:
            connection.execute(
                statement("photograph_insert"),
                {
                    "photograph_id": photograph_id,
                    "now": datetime.now(UTC).isoformat(timespec="seconds"),
                    "width_px": width,
                    "height_px": height,
                    "jpeg": jpeg,
                },
            )
        return photograph_id

    def get(self, photograph_id):
        """Bytes of the JPEG. Raises NotFoundError."""
        with self.database.read() as connection:
            row = connection.execute(statement("photograph_by_id"), {"photograph_id": photograph_id}).fetchone()
        if row is None:
            raise NotFoundError("That photograph is not kept here.", "Load it again.")
        return bytes(row["jpeg"])
