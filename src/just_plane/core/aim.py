"""Where to aim one frame at points of different worth: the first of the list inside, then as many more as go in."""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import non_negative


class Aim(NamedTuple):
    """Where the plane of focus should lie. Places along the axis, mm, on the scale of the depths given."""

    place: float
    """In the middle of what is allowed."""
    slack: float
    """mm to either side by which it may lie off, and the same points are held."""
    held: tuple[int, ...]
    """Points held, by their place in the list."""


def aim_at(depths, near, far):
    """Where to focus so that the points are held in the order of their worth.

    A point at depth z is held when the plane of focus lies in [z - far, z + near]. The first is taken, then each next
    one of the list that can be held together with those taken: what matters more is never given up for several that
    matter less.

    Parameters
    ----------
    depths : (N,) array   mm along the axis, the one that matters most first; one or more.
    near, far : float     What the frame holds before and behind its plane of focus, mm, >= 0; ``far`` may be inf.

    Returns
    -------
    Aim

    Raises
    ------
    OutOfDomainError      ``near`` is negative or not finite.
    """
    non_negative("near", near, "mm")
    depths = np.asarray(depths, dtype=float)
    low, high, held = -math.inf, math.inf, []
    for index, depth in enumerate(depths.tolist()):
        start, end = max(low, depth - far), min(high, depth + near)
        if start <= end:
            low, high = start, end
            held.append(index)
    if math.isinf(low):
        # Held however far before them: on the nearest of those held.
        low = float(depths[held].min())
    return Aim((low + high) / 2, (high - low) / 2, tuple(held))


def presses_that_hold(slack, sway):
    """Share of presses from a swaying hand that come within the slack: erf(s / (sigma sqrt 2)).

    Parameters
    ----------
    slack : float   mm to either side.
    sway : float    Standard deviation along the lens, mm, > 0.

    Returns
    -------
    float
    """
    return math.erf(slack / (sway * math.sqrt(2)))
