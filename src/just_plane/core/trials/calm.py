"""How far a rail swings after a move and how soon it is calm: from frames taken one after the other, each sharp.

The picture swings about where it comes to rest, r = swing |cos| exp(-t/calms). Sampled at no particular phase, ln|cos|
is -ln 2 on the mean, spread by 0.9: a line through ln r + ln 2 over the time gives both (docs/derivations/trials.md).
"""

import math
from typing import NamedTuple

import numpy as np

LEAST_FRAMES = 8
REST_SHARE = 0.3
"""Of the frames, the last, that are taken to be at rest."""
STANDS_OUT = 4.0
"""Times the scatter at rest that a frame must be off to count."""
LEAST_COUNT = 4
LN_COS_SPREAD = math.pi / math.sqrt(12)
"""Standard deviation of ln|cos| over all phases."""


class Calm(NamedTuple):
    """A swing that dies away."""

    swing: float
    """To either side right after the move, in the unit of the places."""
    calms_in: float
    """Time in which it falls to 1/e."""
    doubt: float
    """Of that, standard deviation."""
    rest: float
    """Scatter at rest, in the unit of the places."""
    seen: bool
    """It swings: else ``swing`` is the most that could hide."""


def read_calm(times, places):
    """Read how a picture comes to rest.

    Parameters
    ----------
    times : (F,) array      s since the move ended, rising.
    places : (F, 2) array   Of the picture, right and down, in any unit.

    Returns
    -------
    Calm, or str            Why it cannot be read, as a sentence.
    """
    times, places = np.asarray(times, dtype=float), np.asarray(places, dtype=float)
    if len(times) < LEAST_FRAMES:
        return f"{len(times)} frames are too few: take {LEAST_FRAMES} or more after one move, as fast as they come."
    last = max(math.ceil(REST_SHARE * len(times)), 3)
    middle = np.median(places[-last:], axis=0)
    off = np.hypot(*(places - middle).T)
    rest = max(float(np.median(off[-last:])), 1e-9)
    stands = off[:-last] > STANDS_OUT * rest
    if not stands.any():
        return Calm(STANDS_OUT * rest, 0.0, 0.0, rest, seen=False)
    # Up to the last that stands out: what lies between and does not was caught as it passed the middle.
    until = int(np.flatnonzero(stands)[-1]) + 1
    used = off[:until] > rest
    if used.sum() < LEAST_COUNT:
        return "It is calm before four frames are taken: take them faster, or it needs no waiting."
    x, y = times[:until][used], np.log(off[:until][used]) + math.log(2)
    slope, start = np.polyfit(x, y, 1)
    spread = max(float(np.std(y - (slope * x + start))), LN_COS_SPREAD / 2)
    error = spread / (math.sqrt(len(x)) * max(float(np.std(x)), 1e-9))
    if slope >= 0 or error > 0.5 * abs(slope):
        return "It does not come to rest while these frames were taken: something else moves, or take more of them."
    return Calm(math.exp(start), -1 / float(slope), error / float(slope) ** 2, rest, seen=True)
