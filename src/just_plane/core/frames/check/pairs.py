"""Neighbours in the order of focus: how far the view moved from one to the next, each against the pairs beside it."""

from typing import NamedTuple

import numpy as np

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
    )


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
        beside = [values[q] for q in range(p - BESIDE, p + BESIDE + 1) if q != p and 0 <= q < len(values)]
        beside = [other for other in beside if np.isfinite(other)]
        if np.isfinite(value) and beside:
            answer[p] = value - float(np.median(beside))
    return answer
