"""Neighbours in the order of focus: how far the view moved from one to the next, each against the pairs beside it."""

from itertools import pairwise
from typing import NamedTuple

import numpy as np

from just_plane.core.frames.check.series import the_other_way
from just_plane.core.frames.check.similarity import moved, scale_and_turn

BESIDE = 3
"""Pairs on either side that a pair is compared with."""


class Pairs(NamedTuple):
    """Numbers of neighbouring pairs: entry p is from place p to p + 1 in the order of focus."""

    likeness: np.ndarray
    shift: np.ndarray
    """(P, 2) of the middle of the view, px of the picture that is measured."""
    turn: np.ndarray
    """Radians."""
    scale: np.ndarray
    light: np.ndarray
    """EV from the one to the next."""
    parts: list
    """Moved or None: a part of the subject that went its own way."""


def pairs_of(followed, middle):
    """Gather the numbers of pairs.

    Parameters
    ----------
    followed : list of Followed   The later frame of every pair.
    middle : (2,) array           Of the view, x, y in px.

    Returns
    -------
    Pairs
    """
    at = np.asarray(middle, float)[np.newaxis]
    laid = [one.laid for one in followed]
    both = [scale_and_turn(one.similarity) for one in laid]
    return Pairs(
        np.array([one.likeness for one in laid]),
        np.array([moved(one.similarity, at)[0] - at[0] for one in laid]).reshape(-1, 2),
        np.array([turn for _, turn in both]),
        np.array([scale for scale, _ in both]),
        np.array([one.light_ev for one in followed]),
        [one.moved for one in followed],
    )


def neighbours(follower, load, order, later, moved_runs=()):
    """Gather the numbers of all pairs in the order; those that were not laid on each other as they came are, now.

    Parameters
    ----------
    follower : Follower
    load : function       Number of a frame to its (H, W) float32 picture.
    order : list of int   Frames in the order of focus.
    later : list of int   Those that came later, one by one.
    moved_runs : list of int   Those of whole runs that were given elsewhere.

    Returns
    -------
    Pairs                 Without shift and turn where the two were not taken one after the other: the view may have
                          been moved meanwhile, and that is no knock.
    """
    followed = []
    for before, this in pairwise(order):
        known = follower.frames[this]
        if known.before == before:
            followed.append(known)
        elif follower.frames[before].before == this:
            followed.append(the_other_way(follower.frames[before], known.measured, before))
        else:
            followed.append(follower.relaid(before, load(before), this, load(this)))
    middle = ((follower.grid.width - 1) / 2, (follower.grid.height - 1) / 2)
    return _as_taken(pairs_of(followed, middle), order, later, moved_runs)


def _as_taken(pairs, order, later, moved_runs):
    apart = [bool({*pair} & {*later}) or len({*pair} & {*moved_runs}) == 1 for pair in pairwise(order)]
    shift, turn = pairs.shift.copy(), pairs.turn.copy()
    shift[apart], turn[apart] = np.nan, np.nan
    return pairs._replace(shift=shift, turn=turn)


def beside(values, pair):
    """Those of the three pairs on either side that are known.

    Parameters
    ----------
    values : (P,) array   NaN where not known.
    pair : int

    Returns
    -------
    (up to 6,) array
    """
    around = np.concatenate([values[max(pair - BESIDE, 0) : pair], values[pair + 1 : pair + 1 + BESIDE]])
    return around[np.isfinite(around)]


def against_beside(values):
    """Each value less the median of three on either side.

    Parameters
    ----------
    values : (P,) array   NaN where not known.

    Returns
    -------
    (P,) array            NaN where it or all beside it are not known.
    """
    answer = np.full(len(values), np.nan)
    for p, value in enumerate(values):
        around = beside(values, p)
        if np.isfinite(value) and len(around):
            answer[p] = value - float(np.median(around))
    return answer
