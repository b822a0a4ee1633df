"""What may go when it is asked for: versions past a sensible history, and shots that were put away."""

from typing import NamedTuple

from just_plane.store.connection import statement

SENSIBLE = 50
"""Versions of a document that undo can walk back through."""


class Tidied(NamedTuple):
    """What goes, or would go."""

    documents: int
    revisions: int


def old_revisions(database, keep, *, remove=False):
    """Versions older than the last so many of each document.

    Parameters
    ----------
    database : Database
    keep : int             Versions back from the one that is current; what was undone from it stays too.
    remove : bool          Remove them; else they are only counted.

    Returns
    -------
    Tidied                 What a run or an entry of the notebook was made from stays, however old.
    """
    documents = revisions = 0
    with database.write() if remove else database.read() as connection:
        used = {row["revision"] for row in connection.execute(statement("revisions_used"))}
        for document in connection.execute(statement("documents_current")).fetchall():
            rows = connection.execute(statement("revisions_of"), {"document_id": document["document_id"]}).fetchall()
            links = {row["revision_id"]: (row["parent_revision_id"], row["redo_revision_id"]) for row in rows}
            kept = _chain(links, document["current_revision_id"], 0, keep)
            kept |= _chain(links, document["current_revision_id"], 1, len(links)) | (used & links.keys())
            gone = links.keys() - kept
            if not gone:
                continue
            documents, revisions = documents + 1, revisions + len(gone)
            if remove:
                _remove(connection, links, kept, gone)
    return Tidied(documents, revisions)


def put_away(database, kind, *, remove=False):
    """Documents of a kind that were put away, with every version of them.

    Parameters
    ----------
    database : Database
    kind : str
    remove : bool         Remove them for good; else they are only counted. Runs and the notebook stay as written.

    Returns
    -------
    Tidied
    """
    with database.write() if remove else database.read() as connection:
        row = connection.execute(statement("put_away_count"), {"kind": kind}).fetchone()
        if remove:
            connection.execute(statement("put_away_let_go"), {"kind": kind})
            connection.execute(statement("put_away_unlink"), {"kind": kind})
            connection.execute(statement("put_away_remove"), {"kind": kind})
        return Tidied(row["documents"], row["revisions"])


def _chain(links, start, direction, most):
    """The revisions met from one on, by parent (0) or redo (1): set, the start among them."""
    met: set = set()
    at = start
    while at is not None and at in links and at not in met and len(met) <= most:
        met.add(at)
        at = links[at][direction]
    return met


def _remove(connection, links, kept, gone):
    for revision in kept:
        parent, redo = links[revision]
        if parent in gone or redo in gone:
            values = {
                "revision_id": revision,
                "parent_revision_id": None if parent in gone else parent,
                "redo_revision_id": None if redo in gone else redo,
            }
            connection.execute(statement("revision_relink"), values)
    for revision in gone:
        connection.execute(
            statement("revision_relink"),
            {"revision_id": revision, "parent_revision_id": None, "redo_revision_id": None},
        )
    connection.executemany(statement("revision_remove"), [{"revision_id": revision} for revision in gone])
