"""The shots that are kept."""

from just_plane.contract.shot import Shot
from just_plane.store.documents import Documents


class Shots(Documents):
    """The shots of one database."""

    def __init__(self, database):
        super().__init__(database, "shot", Shot, "shot")
