"""The best plane that a lens can follow when it cannot follow the one that the points ask for."""

import math

import numpy as np

from just_plane.core.domain import non_negative
from just_plane.core.plane.fit import PlaneFit, fit_plane
from just_plane.core.plane.points import checked

DIRECTIONS = 720
"""Directions tried round the circle before the best is closed in on: half a degree apart."""
GOLDEN = (math.sqrt(5) - 1) / 2
ROUNDS = 48
"""Of golden section: 1e-10 of the stretch is left."""


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
        return _along(xyz, azimuth, _closed_in(lambda slope: _half_range(xyz, azimuth, slope), -steepest, steepest))
    free = fit_plane(points)
    if math.hypot(free.slope_x, free.slope_y) <= steepest:
        return free
    xyz = checked(points)
    round_the_circle = np.linspace(-math.pi, math.pi, DIRECTIONS, endpoint=False)
    found = [_half_range(xyz, direction, steepest) for direction in round_the_circle]
    best, apart = float(round_the_circle[int(np.argmin(found))]), 2 * math.pi / DIRECTIONS
    direction = _closed_in(lambda way: _half_range(xyz, way, steepest), best - apart, best + apart)
    return _along(xyz, direction, steepest)


def _off(xyz, azimuth, slope):
    return xyz[:, 2] - slope * (xyz[:, 0] * math.cos(azimuth) + xyz[:, 1] * math.sin(azimuth))


def _half_range(xyz, azimuth, slope):
    return float(np.ptp(_off(xyz, azimuth, slope))) / 2


def _along(xyz, azimuth, slope):
    off = _off(xyz, azimuth, slope)
    middle = float(off.max() + off.min()) / 2
    return PlaneFit(middle, slope * math.cos(azimuth), slope * math.sin(azimuth), float(np.ptp(off)) / 2)


def _closed_in(measure, low, high):
    """Where a function with one valley between two places is least."""
    inner, outer = high - GOLDEN * (high - low), low + GOLDEN * (high - low)
    at_inner, at_outer = measure(inner), measure(outer)
    for _ in range(ROUNDS):
        if at_inner <= at_outer:
            high, outer, at_outer = outer, inner, at_inner
            inner = high - GOLDEN * (high - low)
            at_inner = measure(inner)
        else:
            low, inner, at_inner = inner, outer, at_outer
            outer = low + GOLDEN * (high - low)
            at_outer = measure(outer)
    return (low + high) / 2
