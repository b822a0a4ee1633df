"""Turning the whole camera square to the plane, and what the picture loses by it."""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.plane.points import checked


class Square(NamedTuple):
    """The camera turned square to a plane. Radians, mm, ratios."""

    angle: float
    """To turn, toward where the plane recedes."""
    azimuth: float
    depth: float
    """That is left along the new axis, mm: what lies off the plane."""
    stretch: float
    """How much longer the subject then stands on the frame along the slope: the raking view is lost."""
    keystone: float
    """Width of the near edge over the far one as seen now; after the turn 1, and uprights converge instead."""
    walk: float
    """How far the camera walks round the subject, mm, to turn with the subject kept in the middle."""
    offset: float
    """How far beside the new axis the subject lies when the camera only turns on its place, mm: what shift must bring
    back."""


def turn_square(points, fit, distance):
    """Turn the camera square to a plane.

    Parameters
    ----------
    points : (N, 3) array   mm, in the camera frame.
    fit : PlaneFit          Through them.
    distance : float        Lens to the point of the axis that stays in the middle, mm, > 0.

    Returns
    -------
    Square
    """
    xyz = checked(points, least=1)
    slope = math.hypot(fit.slope_x, fit.slope_y)
    angle, azimuth = math.atan(slope), math.atan2(fit.slope_y, fit.slope_x) if slope else 0.0
    turned = turned_points(xyz, azimuth, angle, distance)
    on_plane = fit.z0 + fit.slope_x * xyz[:, 0] + fit.slope_y * xyz[:, 1]
    return Square(
        angle,
        azimuth,
        float(np.ptp(turned[:, 2])),
        1 / math.cos(angle),
        float(on_plane.max() / on_plane.min()) if on_plane.min() > 0 else math.inf,
        2 * distance * math.sin(angle / 2),
        distance * math.sin(angle),
    )


def turned_points(points, azimuth, angle, distance):
    """The points as seen after the camera walked round the middle of the subject by ``angle``, toward the azimuth.

    A plane that recedes along the azimuth with slope tan(angle) then stands square: (N, 3) array, mm.

    Parameters
    ----------
    points : (N, 3) array   mm, in the camera frame.
    azimuth, angle : float  Radians.
    distance : float        Lens to the point of the axis that stays in the middle, mm.
    """
    xyz = checked(points, least=1)
    along = np.array([math.cos(azimuth), math.sin(azimuth), 0.0])
    across = xyz @ along
    behind = xyz[:, 2] - distance
    moved = across * math.cos(angle) + behind * math.sin(angle)
    deep = behind * math.cos(angle) - across * math.sin(angle)
    return xyz + np.outer(moved - across, along) + np.outer(deep - behind, [0.0, 0.0, 1.0])
