"""A few frames from the hand, leaning in from near to far: what they hold when every frame lands beside its mark.

The camera is meant to stand at equal places and stands, each time anew, beside them by a normal deviate: the sway of
the hand along the lens. A place of the subject is held when it is inside the sharp band of any frame.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import count, non_negative, positive

FEWEST, MOST = 3, 6
"""Frames that a hand takes in one go before it has wandered off."""
PLACES = 401
SERIES, SEED = 2000, 7
ENOUGH, MOST_SERIES = 0.95, 6


class HandSeries(NamedTuple):
    """What a series from the hand holds."""

    places: tuple[float, ...]
    """Meant, mm behind the nearest point, near to far."""
    cover: float
    """Share of the depth that is sharp in some frame, on the average of many series."""
    whole: float
    """Share of the series that hold all of it."""
    series: int | None
    """Taken and merged together that hold ``ENOUGH`` on the average; None: not in ``MOST_SERIES``."""


def frames_by_hand(depth, depth_of_field):
    """How many frames to take: as many as cover it edge to edge, but three to six.

    Parameters
    ----------
    depth, depth_of_field : float   mm, > 0.

    Returns
    -------
    int
    """
    return min(max(math.ceil(depth / positive("depth_of_field", depth_of_field, "mm")), FEWEST), MOST)


def hand_places(depth, frames):
    """Where to mean the frames: in the middle of equal pieces, which leaves the same at either end as between two.

    Parameters
    ----------
    depth : float   mm, >= 0.
    frames : int    >= 1.

    Returns
    -------
    tuple of float   mm behind the nearest point, near to far.
    """
    count("frames", frames)
    return tuple((index + 0.5) * depth / frames for index in range(frames))


def hand_series(depth, near, far, frames, sway):
    """What a series from the hand holds.

    Parameters
    ----------
    depth : float       That must be sharp, mm, > 0.
    near, far : float   What one frame holds before and behind its plane of focus, mm, >= 0; ``far`` may be inf.
    frames : int        >= 1.
    sway : float        Standard deviation along the lens, mm, >= 0.

    Returns
    -------
    HandSeries

    Raises
    ------
    OutOfDomainError    An input is outside its range.
    """
    positive("depth", depth, "mm")
    non_negative("near", near, "mm")
    non_negative("sway", sway, "mm")
    meant = np.array(hand_places(depth, frames))
    places = (np.arange(PLACES) + 0.5) * depth / PLACES
    missed = np.prod(1 - _held(places[:, None] - meant, near, far, sway), axis=1)
    covers = [float(1 - (missed**taken).mean()) for taken in range(1, MOST_SERIES + 1)]
    enough = next((taken for taken, cover in enumerate(covers, start=1) if cover >= ENOUGH), None)
    return HandSeries(tuple(meant.tolist()), covers[0], _whole(depth, meant, near, far, sway), enough)


def _held(offsets, near, far, sway):
    """Chance that a place lies in the band of a frame, by how far it lies behind where the frame is meant."""
    if sway == 0:
        return ((offsets >= -near) & (offsets <= far)).astype(float)
    from scipy.special import ndtr  # late: it takes longer to import than a plan to make

    return ndtr((offsets + near) / sway) - ndtr((offsets - far) / sway)


def _whole(depth, meant, near, far, sway):
    """Share of series without a gap: drawn, the same each time."""
    drawn = np.random.default_rng(SEED).standard_normal((SERIES, len(meant)))
    starts = np.sort(meant + sway * drawn, axis=1) - near
    ends = np.maximum.accumulate(starts + near + far, axis=1)
    rounding = 1e-9 * depth
    joined = (starts[:, 1:] <= ends[:, :-1] + rounding).all(axis=1)
    return float((joined & (starts[:, 0] <= rounding) & (ends[:, -1] >= depth - rounding)).mean())
