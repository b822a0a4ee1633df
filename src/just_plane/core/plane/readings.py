"""What was read at the camera after tilting, and what it says: the tilt that the lens really has, and how much more.

Nothing here needs the tilt scale to be true or the mechanism to turn about the lens's node: both show in the readings.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import positive
from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane.points import checked
from just_plane.core.plane.ring import lens_axis
from just_plane.core.plane.tilt import TiltSetting, tilt_for_plane

ALONG_ENOUGH = 0.25
"""Share of their spread that points in one line must have along the azimuth to tell the amount of tilt."""


class MovedNode(NamedTuple):
    """Where the lens's node goes when the mechanism turns about another point. mm, in the camera frame."""

    x: float
    y: float
    z: float
    picture_moves: float
    """How far the picture moves on the sensor, mm, along the azimuth of the plane; what was in the middle leaves it."""


def node_moved_by_pivot(setting, pivot_behind_node, magnification, scale_behind=1.0):
    """What tilting about a pivot behind the lens's node does to framing and distance.

    Parameters
    ----------
    setting : TiltSetting
    pivot_behind_node : float   mm, toward the sensor; below 0 when it lies before the node.
    magnification : float       At which the lens itself works, > 0.
    scale_behind : float        Of what stands between lens and sensor, such as a converter's factor, > 0.

    Returns
    -------
    MovedNode                   The node swings to where the lens faces; the picture moves k (1 + m) times as far.
    """
    positive("magnification", magnification)
    positive("scale_behind", scale_behind)
    sideways = -pivot_behind_node * math.sin(setting.tilt)
    return MovedNode(
        sideways * math.cos(setting.azimuth),
        sideways * math.sin(setting.azimuth),
        pivot_behind_node * (math.cos(setting.tilt) - 1),
        sideways * (1 + magnification) * scale_behind,
    )


def setting_from_rail(focal_length, setting, points, moved):
    """The tilt that the lens really has, from how far the camera had to move to make each point sharp.

    Parameters
    ----------
    focal_length : float        mm, > 0.
    setting : TiltSetting       As the scales of the lens say.
    points : (N, 3) array       Of the points read, in the camera frame before moving; two or more.
    moved : (N,) array          How far toward the subject the camera stood when each was sharp, mm.

    Returns
    -------
    TiltSetting                 Its image distance is the one of the plane found.

    Raises
    ------
    OutOfDomainError            Fewer than two points, or all at one place of the frame.

    Notes
    -----
    Moved toward the subject by d, the camera sees a point at z - d: these lie on the plane of focus. Two points tell
    its slope along the azimuth; the direction of the tilt is then believed.
    """
    xyz = _two_or_more(points)
    believed = math.sin(setting.tilt) * _z0(focal_length, setting) / focal_length
    slope = np.array([believed * math.cos(setting.azimuth), believed * math.sin(setting.azimuth)])
    seen_at = xyz[:, 2] - np.asarray(moved, dtype=float)
    rest = seen_at - xyz[:, :2] @ slope
    slope = slope + _change(xyz[:, :2], rest, setting.azimuth)
    z0 = float(np.mean(seen_at - xyz[:, :2] @ slope))
    return tilt_for_plane(focal_length, z0, float(slope[0]), float(slope[1]))


def setting_from_ring(focal_length, setting, points, read_image_distances):
    """The tilt that the lens really has, from the focus at which each point was sharp.

    Parameters
    ----------
    focal_length, setting, points       As for :func:`setting_from_rail`.
    read_image_distances : (N,) array   Place of the ring at which each point was sharp, the camera standing still, mm
                                        of image distance. An error that all readings share, such as that of the
                                        scale, drops out.

    Returns
    -------
    TiltSetting                         Radians, mm.

    Notes
    -----
    Forward by e along the lens's axis n, a point is sharp when n . p - e = f (1 + (z - e c)/(A + e c)), c = cos tilt:
    linear in n. Extensions are counted from the mean of the readings, where the points are taken to be seen from: when
    all readings agree, the plane lies right, wherever the ring stands.
    """
    xyz = _two_or_more(points)
    axis = lens_axis(setting)
    read = np.asarray(read_image_distances, dtype=float)
    out = read - read.mean()
    z = xyz[:, 2] - out * axis[2]
    rest = focal_length * (1 / z + 1 / (read.mean() + out * axis[2])) - (xyz @ axis - out) / z
    x, y = axis[:2] + _change(xyz[:, :2] / z[:, np.newaxis], rest, setting.azimuth)
    sine = min(math.hypot(x, y), 1.0)
    azimuth = math.atan2(-y, -x) if sine else setting.azimuth
    return TiltSetting(math.asin(sine), azimuth, float(np.mean(read)))


def next_setting(shown, found, wanted):
    """What to set the scales to: what they show, and what is still missing. Tilts as vectors: (tilt, azimuth) radians.

    Parameters
    ----------
    shown : (tilt, azimuth)    On the scales, radians.
    found : (tilt, azimuth)    As the readings say, radians.
    wanted : (tilt, azimuth)   That lays the plane, radians.

    Returns
    -------
    (tilt, azimuth)            To be set on the scales, radians.

    Examples
    --------
    >>> tilt, _ = next_setting((0.12, 0.0), (0.14, 0.0), (0.13, 0.0))
    >>> round(tilt, 6)
    0.11
    """
    x, y = (
        show[0] * turn(show[1]) + want[0] * turn(want[1]) - have[0] * turn(have[1])
        for turn in (math.cos, math.sin)
        for show, have, want in [(shown, found, wanted)]
    )
    return math.hypot(x, y), math.atan2(y, x) if x or y else shown[1]


def _z0(focal_length, setting):
    return focal_length / (math.cos(setting.tilt) - focal_length / setting.image_distance)


def _two_or_more(points):
    xyz = checked(points, least=2)
    if np.ptp(xyz[:, 0]) < 1e-6 and np.ptp(xyz[:, 1]) < 1e-6:
        raise OutOfDomainError(
            "points.one_place",
            quantity="points",
            value=len(xyz),
            message="The points read stand at one place of the frame: they say nothing of the tilt.",
            remedy="Read one at the near end and one at the far end.",
        )
    return xyz


def _change(places, rest, azimuth):
    """The change of a slope that explains what is left, its common part taken off; least squares.

    From points in one line only the change along the azimuth is told: the amount of tilt is doubted, its direction not.
    Where the line runs across the azimuth, the smallest change is taken.
    """
    centred = places - places.mean(axis=0)
    scale = np.abs(centred).max()
    wanted = rest - rest.mean()
    change, _, rank, _ = np.linalg.lstsq(centred / scale, wanted, rcond=1e-3)
    turn = np.array([math.cos(azimuth), math.sin(azimuth)])
    along = centred @ turn / scale
    if rank < 2 and np.ptp(along) > ALONG_ENOUGH * np.ptp(centred / scale, axis=0).max():
        change = turn * float(along @ wanted / (along @ along))
    return change / scale
