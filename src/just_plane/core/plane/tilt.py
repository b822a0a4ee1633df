"""The tilt that lays the plane of focus along a plane, and the plane that a tilt lays. Thin lens.

A lens tilted by alpha keeps the plane of focus that passes through the hinge line, f / sin alpha from the lens, in the
plane through the lens that is parallel to the sensor.
"""

import math
from typing import NamedTuple

from just_plane.core.domain import positive
from just_plane.core.errors import OutOfDomainError, Quantity, UnreachableError

STEEPEST = math.radians(80)
"""Slopes past this are refused: a plane nearly along the lens's axis has no useful picture."""


class TiltSetting(NamedTuple):
    """How the lens is set. ``azimuth`` is the direction, from x toward y, in which the plane recedes. Radians, mm."""

    tilt: float
    azimuth: float
    image_distance: float


def tilt_for_plane(focal_length, z0, slope_x, slope_y):
    """Tilt of the lens that lays the plane of focus along z = z0 + slope_x x + slope_y y.

    Parameters
    ----------
    focal_length : float       mm, > 0.
    z0 : float                 Distance from the lens to the plane along the sensor's normal, mm, > focal_length.
    slope_x, slope_y : float   Ratios.

    Returns
    -------
    TiltSetting                sin tilt = f slope / z0; image distance f / (cos tilt - f/z0).

    Raises
    ------
    OutOfDomainError           An input is not finite, the plane is steeper than 80 degrees, or passes the lens nearer
                               than its focal length.
    UnreachableError           No tilt reaches the plane.
    """
    positive("focal_length", focal_length, "mm")
    positive("z0", z0, "mm", "Measure from the lens to the plane, along the axis of the camera.")
    slope = math.hypot(slope_x, slope_y)
    if not slope <= math.tan(STEEPEST):
        raise OutOfDomainError(
            "slope.too_steep",
            quantity="slope",
            value=slope,
            message=f"The plane lies {math.degrees(math.atan(slope)):.3g}° from square; past 80° there is no picture.",
            remedy="Turn the camera toward the subject first.",
        )
    sine = focal_length * slope / z0
    if sine >= 1:
        raise UnreachableError(
            "tilt.none",
            quantity="slope",
            value=slope,
            message="No tilt of this lens reaches a plane so steep so near.",
            remedy="Stand farther back, use a shorter lens, or turn the camera.",
        )
    tilt = math.asin(sine)
    reach = math.cos(tilt) - focal_length / z0
    if reach <= 0:
        raise UnreachableError(
            "z0.inside_focal_length",
            quantity="z0",
            value=z0,
            unit="mm",
            message=f"The plane passes {{near}} from the lens, too near for its {focal_length:g} mm to focus on.",
            remedy="Stand farther back.",
            near=Quantity(z0, "mm", 4),
        )
    azimuth = math.atan2(slope_y, slope_x) if slope else 0.0
    return TiltSetting(tilt, azimuth, focal_length / reach)


def plane_of_setting(focal_length, setting):
    """The plane of focus of a tilted lens: (z0, slope_x, slope_y); the inverse of :func:`tilt_for_plane`.

    Parameters
    ----------
    focal_length : float    mm, > 0.
    setting : TiltSetting

    Returns
    -------
    (float, float, float)   z0 in mm, slope_x, slope_y.

    Raises
    ------
    UnreachableError   The plane of focus lies at infinity or beyond.
    """
    positive("focal_length", focal_length, "mm")
    nearness = math.cos(setting.tilt) - focal_length / setting.image_distance
    if nearness <= 0:
        raise UnreachableError(
            "image_distance.beyond_infinity",
            quantity="image_distance",
            value=setting.image_distance,
            unit="mm",
            message="With this tilt and focus nothing in front of the lens is sharp.",
            remedy="Focus nearer.",
        )
    z0 = focal_length / nearness
    slope = math.sin(setting.tilt) * z0 / focal_length
    return z0, slope * math.cos(setting.azimuth), slope * math.sin(setting.azimuth)


def hinge_distance(focal_length, tilt):
    """Distance from the lens to the hinge line, mm: f / sin tilt; endless without tilt.

    Parameters
    ----------
    focal_length : float   mm, > 0.
    tilt : float           Radians, either sign.

    Returns
    -------
    float                  mm.

    Raises
    ------
    OutOfDomainError   An input is outside its range.
    """
    positive("focal_length", focal_length, "mm")
    sine = math.sin(abs(tilt))
    return focal_length / sine if sine > 0 else math.inf


def tilt_holding_magnification(slope, magnification):
    """Tilt (radians) for a slope with the framing held: tan tilt = slope m / (1 + m).

    Parameters
    ----------
    slope : float           Of the plane, a ratio, >= 0.
    magnification : float   > 0.

    Returns
    -------
    float                   Radians.

    Raises
    ------
    OutOfDomainError   An input is outside its range.
    """
    positive("magnification", magnification)
    return math.atan(slope * magnification / (1 + magnification))


def reachable_slope(tilt_limit, magnification):
    """The steepest slope that a lens limited to ``tilt_limit`` (radians) follows at a magnification.

    >>> round(math.degrees(math.atan(reachable_slope(math.radians(8), 1.0))), 1)
    15.7
    """
    positive("magnification", magnification)
    return math.tan(tilt_limit) * (1 + magnification) / magnification
