"""Shift: parallels kept parallel, frames joined into one, and the image circle that it all must stay in."""

import math
from typing import NamedTuple

from just_plane.core.domain import fraction, non_negative, positive
from just_plane.core.errors import Quantity, UnreachableError


def shift_for_offset(magnification, offset):
    """Shift of the lens, mm, that brings a point ``offset`` mm beside the axis into the middle: m x offset.

    Parameters
    ----------
    magnification : float   > 0.
    offset : float          mm in the subject.

    Returns
    -------
    float                   mm.

    Raises
    ------
    OutOfDomainError   An input is outside its range.
    """
    positive("magnification", magnification)
    return magnification * offset


def circle_radius(image_circle, magnification):
    """Radius on the sensor, mm, of an image circle given at infinity: the lens's cone of light grows with 1 + m.

    Parameters
    ----------
    image_circle : float    Diameter at infinity, mm, > 0.
    magnification : float   At which the lens works, >= 0.

    Returns
    -------
    float                   mm.

    Raises
    ------
    OutOfDomainError   An input is outside its range.
    """
    positive("image_circle", image_circle, "mm")
    non_negative("magnification", magnification)
    return image_circle / 2 * (1 + magnification)


def circle_displacement(image_distance, setting, shift_x=0.0, shift_y=0.0):
    """How far the middle of the image circle lies from that of the sensor, (x, y) in mm.

    Shift moves it along; tilt swings the lens's axis by A tan tilt, toward where the plane recedes.

    Parameters
    ----------
    image_distance : float    Lens to sensor along the sensor's normal, mm.
    setting : TiltSetting
    shift_x, shift_y : float  mm.

    Returns
    -------
    (float, float)            mm.
    """
    swing = image_distance * math.tan(setting.tilt)
    return shift_x + swing * math.cos(setting.azimuth), shift_y + swing * math.sin(setting.azimuth)


def radius_needed(width, height, displacement):
    """Radius that the image circle needs to reach every corner of a frame, mm; displacement (x, y) of its middle.

    Parameters
    ----------
    width, height : float           Of the frame on the sensor, mm.
    displacement : (float, float)   Of the circle's middle, mm.

    Returns
    -------
    float                           mm.
    """
    return math.hypot(width / 2 + abs(displacement[0]), height / 2 + abs(displacement[1]))


def largest_shift(width, height, radius, limit, *, along_x, displaced=(0.0, 0.0)):
    """The farthest shift along one side that both the mechanism and the image circle allow, mm; 0 when none is left.

    Parameters
    ----------
    width, height : float        Of the frame on the sensor, mm.
    radius : float               Of the lit circle, mm.
    limit : float                Of the mechanism, mm.
    along_x : bool               Along the width, else along the height.
    displaced : (float, float)   Of the circle's middle already, by tilt, mm.

    Returns
    -------
    float                        mm.
    """
    across = height / 2 + abs(displaced[1]) if along_x else width / 2 + abs(displaced[0])
    if across >= radius:
        return 0.0
    half = width / 2 if along_x else height / 2
    already = abs(displaced[0] if along_x else displaced[1])
    return max(min(limit, math.sqrt(radius**2 - across**2) - half - already), 0.0)


class Joined(NamedTuple):
    """Frames shifted and joined along one side of the sensor. mm on the sensor."""

    frames: int
    shifts: tuple[float, ...]
    overlap: float
    """Share of a frame that neighbours have in common, as it comes out."""
    length: float
    """Of the joined picture, along the side."""
    radius: float
    """That the image circle must have."""


def join(length, across, wanted, overlap, limit):
    """Shift-and-join along one side of the sensor.

    Parameters
    ----------
    length, across : float   Of the sensor along the shift and across it, mm, > 0.
    wanted : float           Length of the joined picture, mm on the sensor, > 0.
    overlap : float          Share of a frame that neighbours must have in common, at least; 0 to below 1.
    limit : float            Largest shift to either side, mm, >= 0.

    Returns
    -------
    Joined                   Frames evenly apart, the middle of the row on the axis.

    Raises
    ------
    UnreachableError         The mechanism does not go so far.
    """
    positive("length", length, "mm")
    positive("across", across, "mm")
    positive("wanted", wanted, "mm")
    fraction("overlap", overlap)
    non_negative("limit", limit, "mm")
    travel = max(wanted - length, 0.0)
    if travel / 2 > limit * (1 + 1e-12):
        raise UnreachableError(
            "shift.beyond",
            quantity="wanted",
            value=wanted,
            unit="mm",
            message="So wide a picture needs {needed} of shift to each side; the lens has {limit}.",
            remedy="Join fewer, or move the camera sideways by hand and join for a flat subject.",
            needed=Quantity(travel / 2, "mm"),
            limit=Quantity(limit, "mm"),
        )
    gaps = math.ceil(travel / (length * (1 - overlap)) - 1e-9)
    step = travel / gaps if gaps else 0.0
    shifts = tuple(-travel / 2 + step * index for index in range(gaps + 1))
    return Joined(
        gaps + 1,
        shifts,
        1 - step / length if gaps else 1.0,
        length + travel,
        math.hypot((length + travel) / 2, across / 2),
    )
