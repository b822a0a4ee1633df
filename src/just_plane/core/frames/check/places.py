"""Where frames stand: as planned, but where a finding, a frame left out or one that came later says otherwise.

Places count in steps as planned, 0 for the first frame of the stack.
"""

from itertools import pairwise

import numpy as np


def spans_of(order, left_out):
    """Pairs between which frames were left out.

    Parameters
    ----------
    order : list of int   Frames in the order of focus.
    left_out : dict       Frame to reason.

    Returns
    -------
    dict                  Place of the pair to the reasons.
    """
    spans = {}
    for p, (before, this) in enumerate(pairwise(order)):
        passed = range(min(before, this) + 1, max(before, this))
        between = [left_out[frame] for frame in passed if frame in left_out]
        if between and not any(frame in passed for frame in order):
            spans[p] = between
    return spans


def counts_down(order):
    """Whether frames were taken from far to near, a few of them out of order or not.

    Parameters
    ----------
    order : list of int   In the order of focus.

    Returns
    -------
    bool
    """
    return sum(1 if before > this else -1 for before, this in pairwise(order)) > 0


NOT_LAID = ("registration_failed",)
STOOD = (*NOT_LAID, "unreadable")
"""Reasons for which a frame that is left out was one of the stack all the same."""

REPEATED = ("duplicate", "taken_again")
"""Those that were left out since another shows the same."""


def in_front(order, left_out, reasons):
    """How many frames were left out that stand on the near side of the order: given just before its first.

    Parameters
    ----------
    order : list of int       In the order of focus.
    left_out : dict           Frame to reason.
    reasons : tuple of str    Those that count.

    Returns
    -------
    int
    """
    onwards = -1 if counts_down(order) else 1
    count, frame = 0, order[0] - onwards
    while frame in left_out:
        count += left_out[frame] in reasons
        frame -= onwards
    return count


def places_of(order, steps, said, spans, around, first=0):
    """Where frames stand.

    Parameters
    ----------
    order : list of int     In the order of focus.
    steps : (K - 1,) array  As from :func:`steps_of_order`.
    said : list of Found    Steps that were skipped, or taken twice.
    spans : dict            As from :func:`spans_of`.
    around : dict           As from :func:`steps_around_later`.
    first : int             Place of the first of them.

    Returns
    -------
    dict                    Frame to place.
    """
    at = float(first)
    places = {order[0]: at}
    told = {one.frame: one for one in said if one.code in ("skipped_step", "duplicate") and one.unit == "steps"}
    for p, frame in enumerate(order[1:]):
        finding = told.get(frame)
        step = around.get(p, _across(steps[p], spans[p]) if p in spans else 1.0)
        if finding is not None:
            step = 1 + finding.amount if finding.code == "skipped_step" else max(float(np.nan_to_num(steps[p])), 0.0)
        at += step
        places[frame] = at
    return places


def _across(step, reasons):
    """Steps across frames that were left out: what repeats another need stand for none, a foreign frame likely does."""
    most = 1 + len(reasons)
    if np.isfinite(step):
        return float(np.clip(round(step), 1, most))
    return float(1 + sum(reason not in REPEATED for reason in reasons))
