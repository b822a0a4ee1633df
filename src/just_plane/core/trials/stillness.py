"""The longest shutter that is still sharp, and whether a camera takes a dark frame: from repeated frames."""

from typing import NamedTuple

import numpy as np

PASSES = 0.64
"""Contrast, of the sharpest, that a frame must keep: a smear of half a circle of confusion leaves sinc(1/2)."""
ENOUGH = 0.9
"""Of the frames of a shutter that must pass."""
SHARPEST = 3
DOUBLED = 1.8
LONG_S = (1.0, 2.0, 4.0)


class ShutterTried(NamedTuple):
    """One shutter time and how its frames came out."""

    shutter: float
    passed: int
    frames: int


class Longest(NamedTuple):
    """The longest shutter that passed."""

    shutter: float | None
    """s; None: not even the shortest did."""
    fails_at: float | None
    """s; None: none that was tried failed."""
    tried: tuple
    """Of ShutterTried, rising."""


def longest_shutter(shutters, contrasts):
    """Which shutter time is still sharp.

    Parameters
    ----------
    shutters : (F,) array    s, one a frame.
    contrasts : (F,) array   Of each frame, in any one measure.

    Returns
    -------
    Longest
    """
    shutters, contrasts = np.asarray(shutters, dtype=float), np.asarray(contrasts, dtype=float)
    times = np.unique(shutters)
    reference = np.median(contrasts[np.isin(shutters, times[:SHARPEST])])
    tried, longest, fails = [], None, None
    for time in times:
        share = contrasts[shutters == time] / max(reference, 1e-12)
        passed = int((share >= PASSES).sum())
        tried.append(ShutterTried(float(time), passed, len(share)))
        if fails is None and passed >= ENOUGH * len(share):
            longest = float(time)
        elif fails is None:
            fails = float(time)
    return Longest(longest, fails, tuple(tried))


class DarkFrames(NamedTuple):
    """Whether long exposures take twice as long, and how long a frame takes to be written."""

    doubled: bool
    write: float
    """s."""


def dark_frames(shutters, starts):
    """From the times of a burst.

    Parameters
    ----------
    shutters : (F,) array   s, of frames taken as fast as the camera takes them.
    starts : (F,) array     s, when each began.

    Returns
    -------
    DarkFrames, or None     None: no frame of 1 s or more has another after it.
    """
    shutters, starts = np.asarray(shutters, dtype=float), np.asarray(starts, dtype=float)
    gaps = np.diff(starts)
    before = shutters[:-1]
    long = before >= min(LONG_S)
    if not long.any():
        return None
    times = np.unique(before[long])
    doubled = all(float(np.median(gaps[long & (before == time)])) >= DOUBLED * time for time in times)
    rest = gaps[long] - before[long] * (2 if doubled else 1)
    return DarkFrames(bool(doubled), max(float(np.median(rest[:5])), 0.0))
