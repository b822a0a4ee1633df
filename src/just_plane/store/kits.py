"""The kit that is kept: one in a data folder, with its history like a shot's."""

import sqlite3

from just_plane.contract.kit import Kit, empty_kit
from just_plane.store.documents import Documents
from just_plane.store.errors import NotFoundError

KIT_ID = "kit-here"


class KeptKit(Documents):
    """The kit of one database. It is there from the first time it is asked for, empty."""

    def __init__(self, database):
        super().__init__(database, "kit", Kit, "kit")

    def now(self):
        """The kit as it is now."""
        try:
            return self.get(KIT_ID)
        except NotFoundError:
            pass
        try:
            return self.add(empty_kit(), KIT_ID)
        except sqlite3.IntegrityError:  # another window asked at the same moment
            return self.get(KIT_ID)
