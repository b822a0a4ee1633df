"""The wedge of sharpness: blur of any point seen through a tilted lens, and the faces between which it is sharp."""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import non_negative, positive
from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane.points import checked


def wedge_blur(focal_length, f_number, setting, points):
    """Blur diameter on the sensor of points seen through a tilted lens.

    Parameters
    ----------
    focal_length : float       mm, > 0.
    f_number : float           Marked, > 0.
    setting : TiltSetting      As from :func:`tilt_for_plane`.
    points : (N, 3) or (3,)    x, y, z in mm.

    Returns
    -------
    (N,) array or float        mm; 0 on the plane of focus.

    Raises
    ------
    OutOfDomainError           An input is outside its range, or a point lies within a focal length of the lens.

    Notes
    -----
    With u along the lens's axis, a point's image lies A' = z f / (u - f) along the sensor's normal; its blur is
    (f/N) |A - A'| / A'. The sensor's own tilt against the cone is left out, as is the pupil's.
    """
    positive("f_number", f_number)
    blur = focal_length / f_number * np.abs(wedge_defocus(focal_length, setting, points))
    return float(blur[0]) if np.ndim(points) == 1 else blur


def wedge_defocus(focal_length, setting, points):
    """How far each point's image lies from the sensor, as a share of its own image distance; below 0 before the plane.

    Parameters
    ----------
    focal_length, setting, points   As for :func:`wedge_blur`; no aperture: times f/N it is the blur.

    Returns
    -------
    (N,) array   A (u - f) / (z f) - 1 for an image distance A.

    Raises
    ------
    OutOfDomainError   A point lies within a focal length of the lens.
    """
    positive("focal_length", focal_length, "mm")
    xyz = checked(points, least=1)
    across = xyz[:, 0] * math.cos(setting.azimuth) + xyz[:, 1] * math.sin(setting.azimuth)
    along_lens = xyz[:, 2] * math.cos(setting.tilt) - across * math.sin(setting.tilt)
    if along_lens.min() <= focal_length or xyz[:, 2].min() <= 0:
        raise within_focal_length(along_lens.min())
    return setting.image_distance * (along_lens - focal_length) / (xyz[:, 2] * focal_length) - 1


def within_focal_length(along_lens):
    """The refusal of a point that lies ``along_lens`` mm before a lens, nearer than its focal length."""
    return OutOfDomainError(
        "points.within_focal_length",
        quantity="points",
        value=float(along_lens),
        unit="mm",
        message="A point lies within a focal length of the lens, where it has no image.",
        remedy="Stand farther back, or use a shorter lens.",
    )


class Face(NamedTuple):
    """One face of the wedge: z = z0 + slope (x cos azimuth + y sin azimuth). mm, ratio."""

    z0: float
    slope: float

    def at(self, across):
        """z where the distance along the azimuth is ``across``, mm; endless where the face never comes."""
        return self.z0 + self.slope * across if math.isfinite(self.z0) else math.inf


def wedge_faces(focal_length, f_number, setting, blur):
    """The planes between which points blur less than allowed: near and far face, through the hinge line.

    Parameters
    ----------
    focal_length : float    mm, > 0.
    f_number : float        > 0.
    setting : TiltSetting
    blur : float            Allowed on the sensor, mm, >= 0.

    Returns
    -------
    (Face, Face)            The far one is endless (inf) where it has swung past the parallel of the lens's axis.

    Notes
    -----
    From A (u - f) / (z f) = 1 +- blur N/f: z0 = A f / (A cos tilt - f (1 +- blur N/f)), slope = z0 sin tilt / f. At
    z = 0 every such plane meets the hinge line.
    """
    positive("focal_length", focal_length, "mm")
    positive("f_number", f_number)
    non_negative("blur", blur, "mm")
    share = blur * f_number / focal_length
    near = _face(focal_length, setting, 1 - share)
    far = _face(focal_length, setting, 1 + share)
    return near, far


def _face(focal_length, setting, scale):
    room = setting.image_distance * math.cos(setting.tilt) - focal_length * scale
    if room <= 0:
        return Face(math.inf, math.inf)
    z0 = setting.image_distance * focal_length / room
    return Face(z0, z0 * math.sin(setting.tilt) / focal_length)
