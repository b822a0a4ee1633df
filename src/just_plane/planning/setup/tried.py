"""What a trial measured of the lens, as contrast that each stop keeps: 1 where nothing was measured at this size."""

import math
from typing import NamedTuple

import numpy as np

NEAR = 1.4
"""A trial holds for sizes up to so many times larger or smaller than its own."""


class Tried(NamedTuple):
    """How much of a perfect lens's contrast is left at each stop."""

    share: tuple
    """One a stop, 0 to 1, at 1/c."""
    said: str
    """``by your trial of 3 May``; empty where none holds here."""


def tried_stops(lens, magnification, f_numbers, circle):
    """Read the trials of a lens.

    Parameters
    ----------
    lens : contract gear          With its trials, where it has any.
    magnification : float         Of the framing.
    f_numbers : sequence          Marked.
    circle : float                Circle of confusion, mm.

    Returns
    -------
    Tried

    Notes
    -----
    Between two trials the spread is a straight line in the logarithm of the size. Between stops and past the ends it is
    one in the logarithm of the stop, held at the ends.
    """
    trials = sorted(getattr(lens, "tried", []), key=lambda one: one.magnification)
    near = [one for one in trials if 1 / NEAR <= magnification / one.magnification <= NEAR]
    below = [one for one in trials if one.magnification <= magnification]
    above = [one for one in trials if one.magnification > magnification]
    if not near and not (below and above):
        return Tried((1.0,) * len(f_numbers), "")
    asked = np.log(np.asarray(f_numbers, dtype=float))
    if below and above:
        one, two = below[-1], above[0]
        part = math.log(magnification / one.magnification) / math.log(two.magnification / one.magnification)
        spread = (1 - part) * _spread(one, asked) + part * _spread(two, asked)
        named = one if part < 0.5 else two
    else:
        named = min(near, key=lambda trial: abs(math.log(magnification / trial.magnification)))
        spread = _spread(named, asked)
    share = np.exp(-2 * (np.pi * spread / circle) ** 2)
    return Tried(tuple(float(value) for value in share), f"by your trial of {named.measured_on}")


def _spread(trial, asked):
    stops = sorted(trial.stops, key=lambda stop: stop.f_number)
    return np.interp(asked, np.log([stop.f_number for stop in stops]), [stop.spread_mm for stop in stops])
