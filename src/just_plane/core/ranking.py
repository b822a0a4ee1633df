"""The order of ways to get a shot, and what decides between two of them."""

import math
from typing import NamedTuple

CRITERIA = ("feasible", "whole", "steady", "contrast_enough", "keeps_picture", "part", "single", "contrast", "quick")
"""In the order in which they decide. ``part`` is the share held by one that does not hold all."""
MAY_EXCEED = 2.0
"""How many times too long a time may be and the way still be tried: rules of steadiness are no knives."""
NEVER = math.inf
"""Excess of what cannot be done at all: a rail in the hand, a lens that would touch the subject."""


class Merit(NamedTuple):
    """What counts for a way, one entry a criterion; more is better."""

    feasible: float
    """0 for one that can be done; below, the less the farther it is from that."""
    whole: bool
    steady: bool
    """Nothing takes longer than subject, hand or support allow."""
    contrast_enough: bool
    keeps_picture: bool
    part: float
    single: bool
    contrast: float
    quick: float


def merit(way, contrast_threshold, excess=1.0, *, keeps_picture=True):
    """What counts for a way.

    Parameters
    ----------
    way : Way
    contrast_threshold : float       That counts as sharp.
    excess : float                   How many times longer than subject, hand or support allow it takes, > 0; up to 1
                                     nothing does; ``NEVER`` for what cannot be done at all.
    keeps_picture : bool             False for a way that changes the view or gives up pixels.

    Returns
    -------
    Merit

    Notes
    -----
    What cannot be done comes last, whatever it would hold: a plan that nobody can carry out is no plan.
    """
    whole = way.cover >= 1 - 1e-9
    return Merit(
        0.0 if excess <= MAY_EXCEED else -round(math.log2(excess), 2),
        whole,
        excess <= 1,
        way.worst_contrast >= contrast_threshold,
        keeps_picture,
        0.0 if whole else way.cover,
        way.frames == 1,
        round(way.worst_contrast, 3),
        -way.time,
    )


def ranked(merits):
    """Indices of ways, the best first; of equals the one that came first.

    Parameters
    ----------
    merits : sequence of Merit

    Returns
    -------
    list of int
    """
    return sorted(range(len(merits)), key=lambda index: merits[index], reverse=True)


def deciding(one, other):
    """The first criterion in which two merits differ; None when they are alike.

    Parameters
    ----------
    one, other : Merit

    Returns
    -------
    str or None   One of ``CRITERIA``.
    """
    return next((name for name, a, b in zip(CRITERIA, one, other, strict=True) if a != b), None)
