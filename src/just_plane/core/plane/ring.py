"""The focus ring of a tilted lens, the camera standing still: the ring moves the lens along its own axis.

One model for readings, corrections and frames. The sensor stays; the lens goes forward by e along its axis, so a point
comes nearer to it while the image distance grows. Without tilt, reaching dz farther takes -m^2 dz / (1 - m^2) of
extension; at life size no extension does. A place of the ring is spoken of as the image distance that it gives to the
lens untilted, mm: that of the setting plus e. See docs/derivations/plane.md.
"""

import math

import numpy as np

from just_plane.core.plane.points import checked
from just_plane.core.plane.tilt import plane_of_setting


def lens_axis(setting):
    """Unit vector along the lens's axis, toward the subject, with this ``setting``: (3,) array."""
    sine = math.sin(setting.tilt)
    return np.array([-sine * math.cos(setting.azimuth), -sine * math.sin(setting.azimuth), math.cos(setting.tilt)])


def image_distances(focal_length, setting, points):
    """Place of the ring at which each point is sharp with this tilt, the camera standing still.

    Parameters
    ----------
    focal_length : float    mm, > 0.
    setting : TiltSetting   Its image distance is the ring's place where the lens stands at the frame's origin.
    points : (N, 3) array   mm, in the camera frame.

    Returns
    -------
    (N,) array              mm; NaN where no place of the ring makes it sharp.

    Raises
    ------
    OutOfDomainError        The points are no points.
    """
    return setting.image_distance + _extension(focal_length, setting, checked(points, least=1), 0.0)


def ring_reach(focal_length, setting, points, share):
    """Between which places of the ring each point blurs no more than allowed.

    Parameters
    ----------
    focal_length, setting, points   As for :func:`image_distances`.
    share : float                   Allowed blur over the aperture's diameter, >= 0.

    Returns
    -------
    (N,), (N,) array                The smaller and the larger place, mm; inf where it never blurs that much.
    """
    xyz = checked(points, least=1)
    ends = [_extension(focal_length, setting, xyz, each) for each in (-share, share)]
    ends = [np.where(np.isnan(end), sign * np.inf, end) for end, sign in zip(ends, _signs(setting, xyz), strict=True)]
    return setting.image_distance + np.minimum(*ends), setting.image_distance + np.maximum(*ends)


def ring_defocus(focal_length, setting, points, places):
    """Defocus of each point at each place of the ring, as :func:`just_plane.core.plane.wedge.wedge_defocus`.

    Parameters
    ----------
    focal_length, setting, points   As for :func:`image_distances`.
    places : (K,) array             Of the ring, mm.

    Returns
    -------
    (K, N) array                    A share of each point's image distance; below 0 before the plane.
    """
    xyz = checked(points, least=1)
    cosine, along_lens = math.cos(setting.tilt), xyz @ lens_axis(setting)
    out = np.asarray(places, dtype=float)[:, np.newaxis] - setting.image_distance
    image = setting.image_distance + out * cosine
    return image * (along_lens - out - focal_length) / ((xyz[:, 2] - out * cosine) * focal_length) - 1


def ring_crop(setting, places, points):
    """Share of the frame's width lost when frames at these places of the ring are laid on each other.

    Parameters
    ----------
    setting : TiltSetting
    places : (K,) array     Of the ring, mm.
    points : (N, 3) array   mm, in the camera frame.

    Returns
    -------
    float                   At the point where it costs most: size goes as image distance over distance from the lens.
    """
    out = (np.asarray(places, dtype=float)[:, np.newaxis] - setting.image_distance) * math.cos(setting.tilt)
    scales = (setting.image_distance + out) / (checked(points, least=1)[:, 2] - out)
    return float((1 - scales.min(axis=0) / scales.max(axis=0)).max())


def plane_on_ring(focal_length, setting, place):
    """The plane of focus with the ring at a place, as the camera that stands still has it.

    Parameters
    ----------
    focal_length, setting   As for :func:`image_distances`.
    place : float           Of the ring, mm.

    Returns
    -------
    (float, float, float)   z0 in mm, and its slopes along x and y.

    Raises
    ------
    UnreachableError        It is nowhere, or endlessly far.
    """
    out = (place - setting.image_distance) * lens_axis(setting)
    z0, slope_x, slope_y = plane_of_setting(
        focal_length, setting._replace(image_distance=setting.image_distance + float(out[2]))
    )
    return z0 + float(out[2] - slope_x * out[0] - slope_y * out[1]), slope_x, slope_y


def _extension(focal_length, setting, xyz, share):
    """How far the lens goes forward until a point's defocus is ``share``: (N,) mm, NaN where it never is.

    With c = cos tilt and u along the lens's axis, (A + e c)(u - e - f) = f (z - e c)(1 + share): a quadratic in e. Of
    its two roots the one is taken that leads there without passing the place where the ring turns back.
    """
    cosine, along_lens = math.cos(setting.tilt), xyz @ lens_axis(setting)
    linear = along_lens * cosine - setting.image_distance + share * focal_length * cosine
    rest = focal_length * xyz[:, 2] * (1 + share) - (along_lens - focal_length) * setting.image_distance
    inside = linear**2 - 4 * cosine * rest
    with np.errstate(invalid="ignore", divide="ignore"):
        return 2 * rest / (linear + np.copysign(np.sqrt(inside), linear))


def _signs(setting, xyz):
    """Toward which end of the ring a point is before, and behind, the plane of focus: two (N,) arrays of signs."""
    below_life_size = xyz @ lens_axis(setting) * math.cos(setting.tilt) > setting.image_distance
    behind = np.where(below_life_size, 1.0, -1.0)
    return -behind, behind
