"""The deliberate opposite: tilted away from the subject, only a narrow strip along a chosen line stays sharp."""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import positive
from just_plane.core.errors import UnreachableError
from just_plane.core.plane.points import checked
from just_plane.core.plane.tilt import TiltSetting
from just_plane.core.plane.wedge import wedge_faces


class Strip(NamedTuple):
    """A narrow strip of sharpness. Radians, mm."""

    setting: TiltSetting
    width: float
    """Of the strip across the line, on the subject as the camera sees it, mm; inf when the wedge never leaves it."""


def strip_along(focal_length, line, tilt, surface):
    """The setting that keeps a line sharp and leaves as little as possible beside it.

    Parameters
    ----------
    focal_length : float     mm, > 0.
    line : (2, 3) array      Two points of the line, mm, in the camera frame.
    tilt : float             To be used, radians, > 0.
    surface : (sx, sy)       Slopes of the subject: the strip goes against them.

    Returns
    -------
    TiltSetting              Of the two that keep the line sharp, the one whose plane stands more across the subject.

    Raises
    ------
    UnreachableError         No direction of this tilt holds both points.
    OutOfDomainError         The two are at one place of the frame.

    Notes
    -----
    Both points sharp asks for n . (p2/z2 - p1/z1) = f (1/z2 - 1/z1) with n along the lens's axis: an equation for the
    direction of the tilt alone, with two answers.
    """
    positive("focal_length", focal_length, "mm")
    positive("tilt", tilt, "radians")
    ends = checked(line, least=2)
    apart = (ends[1] / ends[1, 2] - ends[0] / ends[0, 2])[:2]
    length = positive("line", float(np.hypot(*apart)), "", "Choose two points that stand apart on the frame.")
    share = -focal_length * (1 / ends[1, 2] - 1 / ends[0, 2]) / (math.sin(tilt) * length)
    if abs(share) > 1:
        raise UnreachableError(
            "strip.line_too_steep",
            quantity="tilt",
            value=tilt,
            unit="rad",
            message="The line runs away from the camera more steeply than this tilt can follow.",
            remedy="Choose a line more across the view, or tilt more.",
        )
    along, aside = math.atan2(apart[1], apart[0]), math.acos(share)
    settings = [
        _through(focal_length, ends[0], tilt, along + aside),
        _through(focal_length, ends[0], tilt, along - aside),
    ]
    possible = [setting for setting in settings if setting is not None]
    if not possible:
        raise UnreachableError(
            "strip.too_near",
            quantity="line",
            message="The line lies too near for this lens to focus on with such a tilt.",
            remedy="Stand farther back, or tilt less.",
        )
    return max(possible, key=lambda setting: -_agreement(focal_length, setting, surface))


def strip_width(focal_length, f_number, setting, blur, line, surface):
    """Width across the line, mm on the subject as the camera sees it, in which blur stays within what is allowed.

    ``surface`` are the subject's slopes; it is taken as a plane through the line's middle.

    Parameters
    ----------
    focal_length, f_number : float   mm and ratio, > 0.
    setting : TiltSetting
    blur : float                     Allowed on the sensor, mm, >= 0.
    line : (2, 3) array              Two points of the line, mm.
    surface : (sx, sy)               Slopes of the subject.

    Returns
    -------
    float                            mm; inf when the wedge never leaves the surface.
    """
    ends = checked(line, least=2)
    middle, toward = ends.mean(axis=0), ends[1, :2] - ends[0, :2]
    aside = np.array([-toward[1], toward[0]]) / np.hypot(*toward)
    turn = np.array([math.cos(setting.azimuth), math.sin(setting.azimuth)])
    climbs = float(np.dot(surface, aside))
    reach = []
    for face in wedge_faces(focal_length, f_number, setting, blur):
        if not math.isfinite(face.z0):
            return math.inf
        here = face.at(float(middle[:2] @ turn))
        steeper = climbs - face.slope * float(aside @ turn)
        if abs(steeper) < 1e-12:
            return math.inf
        reach.append((here - middle[2]) / steeper)
    return abs(reach[1] - reach[0]) if reach[0] * reach[1] <= 0 else math.inf


def _through(focal_length, point, tilt, azimuth):
    across = point[0] * math.cos(azimuth) + point[1] * math.sin(azimuth)
    behind = point[2] * math.cos(tilt) - across * math.sin(tilt) - focal_length
    return TiltSetting(tilt, azimuth, float(point[2] * focal_length / behind)) if behind > 0 else None


def _agreement(focal_length, setting, surface):
    """How far the plane of focus leans the way the subject does."""
    nearness = math.cos(setting.tilt) - focal_length / setting.image_distance
    lean = math.sin(setting.tilt) / max(nearness, 1e-9)
    return lean * (math.cos(setting.azimuth) * surface[0] + math.sin(setting.azimuth) * surface[1])
