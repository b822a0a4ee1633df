"""The list of shots: each with its verdict in a line, which is made once and kept with the revision."""

import hashlib
from functools import cache
from pathlib import Path

from just_plane.contract.http import LineSaid, ShotLine, ShotList
from just_plane.planning.plan import plan_shot
from just_plane.store.shots import Asked, Place

ON_A_PAGE = 24
PACKAGE = Path(__file__).parents[1]
MAKES_LINES = ("contract", "core", "planning")
"""Layers whose code a line depends on."""


def page_of(shots, units, after, asked, *, removed):
    """A page of the list.

    Parameters
    ----------
    shots : store Shots
    units : str          ``mm`` or ``in``.
    after : str          ``next`` of the page before; empty: the first page.
    asked : Asked        What is looked for, and in which order.
    removed : bool       The shots that were put away.

    Returns
    -------
    ShotList
    """
    if asked == Asked():
        before = None
        if "_" in after:
            saved_at, _, revision = after.rpartition("_")
            before = Place(saved_at, int(revision))
        listed = shots.page(units, this_program(), ON_A_PAGE + 1, before=before, removed=removed)
        shown = listed[:ON_A_PAGE]
        behind = f"{shown[-1].saved_at}_{shown[-1].revision}" if shown else ""
    else:
        skip = int(after) if after.isdigit() else 0
        listed = shots.found(units, this_program(), ON_A_PAGE + 1, asked, skip=skip, removed=removed)
        shown, behind = listed[:ON_A_PAGE], str(skip + ON_A_PAGE)
    made = {each.revision: line_of(each.shot, units) for each in shown if each.shot is not None}
    if made:
        shots.keep_lines(units, this_program(), {revision: line.model_dump_json() for revision, line in made.items()})
    return ShotList(
        shots=[_line(each, made) for each in shown],
        next=behind if len(listed) > ON_A_PAGE else "",
        headings=shots.headings(),
    )


def line_of(shot, units):
    """What the list says of a shot: LineSaid."""
    plan = plan_shot(shot, units)
    return LineSaid(
        name=shot.name,
        what=shot.subject.what,
        headline=plan.verdict.headline,
        magnification=plan.reach.magnification if plan.reach else None,
        depth_mm=plan.depth_mm,
        heading=shot.heading,
        hold_still_s=shot.subject.hold_still_s,
    )


@cache
def this_program():
    """Which form of the program makes lines: a digest of the code they depend on, so that none outlives a change."""
    digest = hashlib.blake2b(digest_size=12)
    for layer in MAKES_LINES:
        for path in sorted((PACKAGE / layer).rglob("*.py")):
            digest.update(path.read_bytes())
    return digest.hexdigest()


def _line(listed, made):
    if listed.damaged:
        said = LineSaid(
            name="Damaged shot",
            what="",
            headline="It cannot be read as it was last saved. Go back to the version before, or put it away.",
            magnification=None,
            depth_mm=0.0,
        )
    else:
        said = made.get(listed.revision) or LineSaid.model_validate_json(listed.line_json)
    return ShotLine(
        shot_id=listed.shot_id,
        revision=listed.revision,
        saved_at=listed.saved_at,
        damaged=listed.damaged,
        **said.model_dump(),
    )
