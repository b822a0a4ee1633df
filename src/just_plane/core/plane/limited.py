"""The best plane that a lens can follow when it cannot follow the one that the points ask for."""

import math

import numpy as np

from just_plane.core.domain import non_negative
from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane.fit import PlaneFit, fit_plane
from just_plane.core.plane.points import checked

DIRECTIONS = 720
"""Directions tried round the circle before the best is closed in on: half a degree apart."""
CLOSEST_CLICKS = math.radians(0.1)
"""Clicks of no mechanism lie closer; every one to a quarter turn is looked at."""
TRIED_AT_ONCE = 33
ROUNDS = 9
"""Of closing in, each to a sixteenth: 1e-11 of the first stretch is left."""


def fit_within(points, steepest, azimuth=None):
    """The plane with the smallest largest deviation among those no steeper than a limit.

    Parameters
    ----------
    points : (N, 3) array          mm; at least two, or three when the azimuth is free.
    steepest : float               Largest slope, >= 0.
    azimuth : float or None        Radians: only planes that recede along this direction, or the opposite one, as a
                                   mechanism that does not turn gives them; None: any.

    Returns
    -------
    PlaneFit

    Raises
    ------
    OutOfDomainError               As :func:`fit_plane`, or ``steepest`` is below 0.

    Notes
    -----
    The largest deviation for given slopes is half the range of z - slope . (x, y), a convex function of the slopes:
    where the free optimum is too steep, the best lies at the limit itself.
    """
    non_negative("steepest", steepest)
    if azimuth is not None:
        xyz = checked(points, least=2)
        return _along(xyz, azimuth, _closed_in(lambda slopes: _half_ranges(xyz, azimuth, slopes), -steepest, steepest))
    free = fit_plane(points)
    if math.hypot(free.slope_x, free.slope_y) <= steepest:
        return free
    xyz = checked(points)
    round_the_circle = np.linspace(-math.pi, math.pi, DIRECTIONS, endpoint=False)
    found = _half_ranges(xyz, round_the_circle, steepest)
    best, apart = float(round_the_circle[int(np.argmin(found))]), 2 * math.pi / DIRECTIONS
    direction = _closed_in(lambda ways: _half_ranges(xyz, ways, steepest), best - apart, best + apart)
    return _along(xyz, direction, steepest)


def fit_on_clicks(points, steepest, apart, first=math.pi / 2):
    """The best plane for a mechanism that turns in clicks.

    Parameters
    ----------
    points, steepest     As for :func:`fit_within`.
    apart : float        Between two clicks, radians, a tenth of a degree to a half turn.
    first : float        Azimuth of the middle one, radians, upright unless said; there are others to a quarter turn
                         to either side.

    Returns
    -------
    PlaneFit

    Raises
    ------
    OutOfDomainError     As :func:`fit_within`, or ``apart`` is out of its range.

    Notes
    -----
    Planes that do no worse than some bound are a convex set in the slopes, and it holds the best one: the directions
    that lead through it lie side by side. So the best click is one of the two beside the best direction.
    """
    if not CLOSEST_CLICKS * (1 - 1e-9) <= apart <= math.pi:
        raise OutOfDomainError(
            "clicks.apart",
            quantity="apart",
            value=apart,
            unit="rad",
            message="Clicks lie 0.1 to 180 degrees apart.",
            remedy="Count the clicks of a full turn and divide 360 by them.",
        )
    free = fit_within(points, steepest)
    to_either_side = math.floor(math.pi / 2 / apart + 1e-9)
    clicks = first + apart * np.arange(-to_either_side, to_either_side + 1)
    # A direction and its opposite are one: the lens tilts both ways.
    further = (clicks - math.atan2(free.slope_y, free.slope_x)) % math.pi
    beside = {float(clicks[int(np.argmin(further))]), float(clicks[int(np.argmax(further))])}
    fits = [fit_within(points, steepest, azimuth) for azimuth in sorted(beside)]
    return min(fits, key=lambda fit: fit.largest_deviation)


def _half_ranges(xyz, azimuths, slopes):
    """Largest deviation from the best plane for each of some slopes or directions, one of the two an array."""
    along = np.outer(np.cos(azimuths), xyz[:, 0]) + np.outer(np.sin(azimuths), xyz[:, 1])
    off = xyz[:, 2] - np.reshape(slopes, (-1, 1)) * along
    return (off.max(axis=1) - off.min(axis=1)) / 2


def _along(xyz, azimuth, slope):
    off = xyz[:, 2] - slope * (xyz[:, 0] * math.cos(azimuth) + xyz[:, 1] * math.sin(azimuth))
    middle = float(off.max() + off.min()) / 2
    return PlaneFit(middle, slope * math.cos(azimuth), slope * math.sin(azimuth), float(np.ptp(off)) / 2)


def _closed_in(measure, low, high):
    """Where a function with one valley between two places is least; it takes an array of places."""
    for _ in range(ROUNDS):
        places = np.linspace(low, high, TRIED_AT_ONCE)
        best = int(np.argmin(measure(places)))
        low, high = float(places[max(best - 1, 0)]), float(places[min(best + 1, TRIED_AT_ONCE - 1)])
    return (low + high) / 2
