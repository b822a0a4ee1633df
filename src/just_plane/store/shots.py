"""The shots that are kept, and the lines by which they are listed."""

from typing import NamedTuple

from just_plane.contract.shot import Shot
from just_plane.store.connection import statement
from just_plane.store.documents import Documents
from just_plane.store.errors import DiskError


class Place(NamedTuple):
    """Where a page of the list ends: the next one begins behind it."""

    saved_at: str
    revision: int


class Asked(NamedTuple):
    """What is looked for in the list."""

    text: str = ""
    heading: str = ""
    sort: str = "changed"
    """``changed``, ``name``, ``hold`` or ``depth``."""


class Listed(NamedTuple):
    """One shot of the list: its line, or the shot to make it from."""

    shot_id: str
    revision: int
    saved_at: str
    line_json: str | None
    """None: not made yet by this form of the program."""
    shot: Shot | None
    """None: the line is there, or the shot is damaged."""
    damaged: bool = False


class Shots(Documents):
    """The shots of one database."""

    def __init__(self, database):
        super().__init__(database, "shot", Shot, "shot")

    def page(self, units, made_by, most, *, before=None, removed=False):
        """A page of the list, last changed first.

        Parameters
        ----------
        units : str             ``mm`` or ``in``: of the sentences in the lines.
        made_by : str           The form of the program whose lines are wanted.
        most : int              Shots on a page.
        before : Place or None  Where the page before ended; None: the first page.
        removed : bool          The shots that were put away.

        Returns
        -------
        list of Listed
        """
        saved_at, revision = before or (None, None)
        values = {
            "kind": self.kind,
            "removed": int(removed),
            "units": units,
            "made_by": made_by,
            "before_saved_at": saved_at,
            "before_revision": revision,
            "most": most,
        }
        with self.database.read() as connection:
            rows = connection.execute(statement("lines_page"), values).fetchall()
        return [self._listed(row) for row in rows]

    def found(self, units, made_by, most, asked, *, skip=0, removed=False):
        """Shots that answer to what is asked, in the order asked.

        Parameters
        ----------
        units, made_by, most, removed   As for :meth:`page`.
        asked : Asked
        skip : int                      So many of them are on pages before.

        Returns
        -------
        list of Listed                  Those that can be read: in a damaged one nothing can be looked for.
        """
        values = {
            "kind": self.kind,
            "removed": int(removed),
            "units": units,
            "made_by": made_by,
            "text": f"%{_plain(asked.text)}%" if asked.text else "",
            "heading": asked.heading,
            "sort": asked.sort,
            "most": most,
            "skip": skip,
        }
        with self.database.read() as connection:
            rows = connection.execute(statement("lines_found"), values).fetchall()
        return [self._listed(row) for row in rows]

    def headings(self):
        """The headings under which shots stand: list of str, in order."""
        with self.database.read() as connection:
            return [row["heading"] for row in connection.execute(statement("headings"), {"kind": self.kind})]

    def _listed(self, row):
        shot = None if row["body_json"] is None else self._body_or_none(row)
        damaged = shot is None and row["line_json"] is None
        return Listed(row["document_id"], row["revision_id"], row["saved_at"], row["line_json"], shot, damaged)

    def keep_lines(self, units, made_by, lines):
        """Keep lines with their revisions, {revision: JSON}. A disk that is full keeps none, and nothing is lost."""
        rows = [
            {"revision_id": revision, "units": units, "made_by": made_by, "line_json": line}
            for revision, line in lines.items()
        ]
        try:
            with self.database.write() as connection:
                connection.executemany(statement("line_keep"), rows)
        except DiskError:
            return


def _plain(text):
    """Text to be found as it stands: what means something to LIKE is marked."""
    return text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")
