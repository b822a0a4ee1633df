"""The step table of a way, as rows and as CSV with units in the headings."""

import csv
import io

from just_plane.contract.plan import StepRow
from just_plane.core.knob import knob_places
from just_plane.core.stack import kept_frames
from just_plane.planning.setup.rail_marks import TOWARD
from just_plane.planning.words.numbers import knob_words

AT_NEAREST_MM = 1e-9
"""Frames focused nearer than the nearest point by more than this are spare."""

HEADINGS = (
    "frame",
    "focus_behind_nearest_mm",
    "move_from_last_mm",
    "sharp_from_mm",
    "sharp_to_mm",
    "magnification",
    "rail_mark_mm",
    "knob_divisions",
)
LISTS = ("slabs", "kept")
"""Headings after those of the numbers."""


def spares_of(way):
    """How many frames of a stack stand outside the depth, for safety.

    Parameters
    ----------
    way : WayAnswer

    Returns
    -------
    (int, int)        Before the nearest point and past the farthest.
    """
    if way.stack is None:
        return 0, 0
    spare = way.stack.frames - way.stack.covering_frames
    before = min(sum(focus < -AT_NEAREST_MM for focus in way.focuses_mm), spare)
    return before, spare - before


def step_rows(way, magnification, rail_counts="toward", keep_every=1, knob=None):
    """Rows of the table.

    Parameters
    ----------
    way : WayAnswer
    magnification : float   Of the framing, for ways that keep it.
    rail_counts : str       Whether the rail's marks grow ``toward`` the subject or ``away`` from it.
    keep_every : int        Every how manyth frame is merged.
    knob : Knob or None     Of the rail, where it is known.

    Returns
    -------
    list of StepRow         In shooting order. Marks are there where points were read on the rail.
    """
    if way.back_off is not None:
        magnification = way.back_off.magnification
    stack = way.stack
    sizes = stack.magnifications if stack else [magnification]
    starts_at = stack.first_rail_mm if stack else None
    before, _ = spares_of(way)
    rows: list[StepRow] = []
    kept = {frame: place + 1 for place, frame in enumerate(kept_frames(len(way.focuses_mm), keep_every))}
    slabs = way.stack.slabs if way.stack else []
    turned = _turned(way, knob)
    for index, (focus, band) in enumerate(zip(way.focuses_mm, way.bands_mm, strict=True)):
        moved = focus - way.focuses_mm[0]
        rows.append(
            StepRow(
                frame=index + 1,
                spare=stack is not None and not before <= index < before + stack.covering_frames,
                focus_behind_nearest_mm=focus,
                move_from_first_mm=moved,
                move_from_last_mm=focus - rows[-1].focus_behind_nearest_mm if rows else None,
                sharp_from_mm=band[0],
                sharp_to_mm=band[1],
                magnification=sizes[index] if len(sizes) > 1 else sizes[0],
                rail_mark_mm=None if starts_at is None else starts_at + TOWARD[rail_counts] * moved,
                knob_divisions=None if turned is None else turned[index],
                knob_words="" if turned is None or not index else knob_words(knob, turned[index] - turned[index - 1]),
                slabs=[at + 1 for at, (one, last) in enumerate(slabs) if one <= kept.get(index, 0) <= last],
                kept=index in kept,
            )
        )
    return rows


def _turned(way, knob):
    """Divisions of the knob from the first frame, for ways that a rail takes: list of float, or None."""
    if knob is None or way.kind != "rail" or not way.focuses_mm:
        return None
    return knob_places(knob, [focus - way.focuses_mm[0] for focus in way.focuses_mm]).tolist()


def step_csv(way, magnification, rail_counts="toward", keep_every=1, knob=None):
    """The table as CSV text (RFC 4180), numbers with a point and to a tenth of a micrometre; as :func:`step_rows`."""
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow((*HEADINGS, *LISTS))
    for row in step_rows(way, magnification, rail_counts, keep_every, knob):
        values = (getattr(row, heading) for heading in HEADINGS[1:])
        numbers = ("" if value is None else f"{value:.4f}" for value in values)
        writer.writerow([row.frame, *numbers, " ".join(map(str, row.slabs)), "yes" if row.kept else "no"])
    return text.getvalue()
