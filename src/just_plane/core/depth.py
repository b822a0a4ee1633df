"""Depth of field: five schools, exact near and far limits, and the best aperture for a depth.

Every school comes down to the blur diameter still allowed on the sensor (``allowed_blur``). From it follow the total
depth for equal blur on both sides, 2 b N_e / m^2, and the exact limits, which differ from it when the depth is no
longer small against the distance.
"""

import math
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from just_plane.core.aperture import airy_diameter
from just_plane.core.contrast import largest_defocus, transfer
from just_plane.core.domain import non_negative, positive
from just_plane.core.errors import OutOfDomainError
from just_plane.core.units import DEFAULT_WAVELENGTH

SCHOOLS = ("contrast", "geometric", "budget", "wave", "microscopy")


def allowed_blur(
    school,
    circle_of_confusion,
    effective_f_number,
    wavelength=DEFAULT_WAVELENGTH,
    contrast_threshold=0.2,
):
    """Blur diameter that defocus may still add on the sensor, by one school.

    Parameters
    ----------
    school : str                            One of ``SCHOOLS``.
    circle_of_confusion : float             Largest acceptable blur diameter on the sensor, mm, > 0.
    effective_f_number : float or (N,)      > 0, dimensionless.
    wavelength : float                      mm, > 0.
    contrast_threshold : float              For the contrast school, between 0 and 1.

    Returns
    -------
    float or (N,) array                     mm; 0 where nothing is left.

    Raises
    ------
    OutOfDomainError                        An input is outside its range, or the school is unknown.

    Notes
    -----
    geometric: c. budget: sqrt(c^2 - airy^2). contrast: see ``contrast.largest_defocus`` at 1/c.
    wave: the blur of a quarter wave each side, 2 lambda N_e. microscopy: wave plus c.
    """
    positive("circle_of_confusion", circle_of_confusion, "mm")
    positive("effective_f_number", effective_f_number)
    positive("wavelength", wavelength, "mm")
    if school == "contrast":
        return largest_defocus(1 / circle_of_confusion, effective_f_number, wavelength, contrast_threshold)
    ne = np.asarray(effective_f_number, dtype=float)
    if school == "geometric":
        blur = np.full(ne.shape, float(circle_of_confusion))
    elif school == "budget":
        blur = np.sqrt(np.maximum(circle_of_confusion**2 - airy_diameter(ne, wavelength) ** 2, 0.0))
    elif school == "wave":
        blur = 2 * wavelength * ne
    elif school == "microscopy":
        blur = 2 * wavelength * ne + circle_of_confusion
    else:
        raise OutOfDomainError(
            "school.unknown",
            quantity="school",
            value=school,
            message=f"Depth of field is reckoned by {', '.join(SCHOOLS)}; got {school!r}.",
        )
    return float(blur) if blur.ndim == 0 else blur


def depth_of_field(
    school,
    circle_of_confusion,
    effective_f_number,
    magnification,
    wavelength=DEFAULT_WAVELENGTH,
    contrast_threshold=0.2,
):
    """Total depth in the subject for equal blur on both sides: 2 b N_e / m^2.

    Parameters
    ----------
    school, circle_of_confusion, effective_f_number, wavelength, contrast_threshold
                                            As for :func:`allowed_blur`.
    magnification : float or (N,)           > 0, dimensionless.

    Returns
    -------
    float or (N,) array                     mm; 0 where the school leaves no depth.

    Raises
    ------
    OutOfDomainError                        An input is outside its range, or the school is unknown.

    Notes
    -----
    For depths small against the distance to the subject; :func:`near_far_limits` is exact.
    wave equals lambda / NA^2 and microscopy adds c / (m NA).

    References
    ----------
    docs/derivations/depth_of_field.md
    """
    positive("magnification", magnification)
    blur = allowed_blur(school, circle_of_confusion, effective_f_number, wavelength, contrast_threshold)
    return depth_from_blur(blur, effective_f_number, magnification)


def depth_from_blur(blur, effective_f_number, magnification):
    """Depth in the subject (mm) over which the blur on the sensor stays within ``blur`` (mm): 2 b N_e / m^2.

    Parameters
    ----------
    blur : float or (N,) array                mm on the sensor, >= 0.
    effective_f_number : float or (N,) array  > 0, dimensionless.
    magnification : float or (N,) array       > 0, dimensionless.

    Returns
    -------
    float or (N,) array   mm in the subject; 0 where nothing may blur.
    """
    return 2 * blur * effective_f_number / (magnification * magnification)


class NearFarLimits(NamedTuple):
    """Distances from the plane of focus, mm, both positive: toward the camera, and away (inf when endless)."""

    near: float
    far: float


def near_far_limits(focal_length, f_number, magnification, circle_of_confusion, pupil_magnification=1.0):
    """Exact near and far limits of a single lens, measured from the plane of focus.

    Parameters
    ----------
    focal_length : float          mm, > 0.
    f_number : float              Marked, > 0.
    magnification : float         > 0.
    circle_of_confusion : float   Blur allowed on the sensor, mm, > 0.
    pupil_magnification : float   > 0.

    Returns
    -------
    NearFarLimits                 mm.

    Raises
    ------
    OutOfDomainError              An input is not finite or not positive.

    Notes
    -----
    With u_p = f (1/m + 1/P) and D = f/N: near = c u_p / (m D + c), far = c u_p / (m D - c), endless when m D <= c.

    References
    ----------
    docs/derivations/depth_of_field.md
    """
    positive("focal_length", focal_length, "mm")
    positive("f_number", f_number)
    positive("magnification", magnification)
    positive("circle_of_confusion", circle_of_confusion, "mm")
    positive("pupil_magnification", pupil_magnification)
    pupil_distance = focal_length * (1 / magnification + 1 / pupil_magnification)
    return limits_from_pupil(pupil_distance, focal_length / f_number * magnification, circle_of_confusion)


def limits_from_pupil(pupil_distance, pupil_image, blur):
    """Near and far limits of any rig, from its entrance pupil.

    Parameters
    ----------
    pupil_distance : float   Plane of focus to entrance pupil, mm, > 0.
    pupil_image : float      Magnification x entrance pupil diameter = m^2 u_p / N_e, mm, > 0.
    blur : float             Blur diameter allowed on the sensor, mm, >= 0.

    Returns
    -------
    NearFarLimits            mm.
    """
    near = blur * pupil_distance / (pupil_image + blur)
    far = math.inf if pupil_image <= blur else blur * pupil_distance / (pupil_image - blur)
    return NearFarLimits(near, far)


def best_focus(depth, pupil_distance):
    """Where to focus so that both ends of a depth are blurred alike.

    Parameters
    ----------
    depth : float            mm, >= 0.
    pupil_distance : float   Plane of focus to entrance pupil, mm, > 0; the focus is held, the camera moves.

    Returns
    -------
    float                    Distance of the plane of focus behind the nearest point, mm; half the depth when that is
                             small against the pupil distance, less when it is not.

    Notes
    -----
    The plane is the harmonic mean of the two ends as seen from the pupil:
    (u + T - sqrt(u^2 + T^2)) / 2, written so that a small T loses no digits.
    """
    non_negative("depth", depth, "mm")
    positive("pupil_distance", pupil_distance, "mm")
    return depth * pupil_distance / (pupil_distance + depth + math.hypot(pupil_distance, depth))


@dataclass(frozen=True, slots=True)
class ApertureCurve:
    """Worst contrast over a depth against the stop. Arrays of one length, widest stop first."""

    f_numbers: np.ndarray
    effective_f_numbers: np.ndarray
    worst_contrast: np.ndarray
    best: int
    """Index of the stop with the highest worst contrast."""


def best_aperture(
    depth,
    f_numbers,
    effective_f_numbers,
    magnification,
    circle_of_confusion,
    wavelength=DEFAULT_WAVELENGTH,
    pupil_distance=math.inf,
):
    """The stop with the highest worst-case contrast at 1/c over a whole depth, focus placed best.

    Parameters
    ----------
    depth : float                  Depth that must be sharp, mm, >= 0.
    f_numbers : (N,)               Marked stops that can be set.
    effective_f_numbers : (N,)     What each works as on this rig, > 0.
    magnification : float          > 0.
    circle_of_confusion : float    mm, > 0.
    wavelength : float             mm, > 0.
    pupil_distance : float         Plane of focus to entrance pupil, mm; infinite for the small-depth limit.

    Returns
    -------
    ApertureCurve                  The whole curve and the index of the winner.

    Raises
    ------
    OutOfDomainError               An input is outside its range, or there is no stop.

    Notes
    -----
    An effective f-number of sqrt(T m^2 / (4.88 lambda)), where blur and Airy disc are alike, is its sanity check.
    Contrast below zero is detail reversed; see :func:`worst_contrast`.
    """
    non_negative("depth", depth, "mm")
    positive("magnification", magnification)
    ne = np.atleast_1d(np.asarray(positive("effective_f_numbers", np.asarray(effective_f_numbers, dtype=float))))
    if ne.size == 0:
        raise OutOfDomainError("f_numbers.empty", quantity="f_numbers", message="There is no stop to choose from.")
    edge = magnification**2 / ne * edge_defocus(depth, pupil_distance)
    worst = worst_contrast(circle_of_confusion, ne, edge, wavelength).contrast
    return ApertureCurve(np.asarray(f_numbers, dtype=float), ne, worst, int(np.argmax(worst)))


def edge_defocus(depth, pupil_distance=math.inf):
    """Defocus at both ends of a depth, focus placed best, as the small-depth offset (mm) that blurs as much.

    Parameters
    ----------
    depth : float            mm, >= 0.
    pupil_distance : float   Plane of focus to entrance pupil, mm, > 0; infinite for the small-depth limit.

    Returns
    -------
    float   mm; half the depth in that limit.
    """
    if math.isinf(pupil_distance):
        return depth / 2
    near = best_focus(depth, pupil_distance)
    return near * pupil_distance / (pupil_distance - near)


FIRST_TROUGH = 5.0
"""Phase times (1 - s) up to which contrast only falls, whatever s: its first trough lies past 5.13, the zero of J2."""
_WITHIN = np.linspace(0, 1, 24)


class Worst(NamedTuple):
    """The lowest contrast between perfect focus and an edge. Arrays of one length."""

    contrast: np.ndarray
    blur: np.ndarray
    """Blur diameter at which it is met, mm."""


def worst_contrast(circle_of_confusion, effective_f_numbers, edge_blurs, wavelength=DEFAULT_WAVELENGTH):
    """Lowest contrast at 1/c anywhere between perfect focus and a blur at the edge.

    Parameters
    ----------
    circle_of_confusion : float   mm, > 0.
    effective_f_numbers : (N,)    > 0.
    edge_blurs : (N,)             Blur diameter at the edge, mm, >= 0.
    wavelength : float            mm, > 0.

    Returns
    -------
    Worst                         Signed. Down to the first zero it is the contrast at the edge, exactly; past it, the
                                  deepest reversal met, from 24 samples (within 0.002).
    """
    frequency = 1 / positive("circle_of_confusion", circle_of_confusion, "mm")
    s = frequency * wavelength * np.asarray(effective_f_numbers, dtype=float)
    phase = np.pi * frequency * np.asarray(edge_blurs, dtype=float)
    length = np.maximum(1 - s, 1e-9)
    # The deepest reversal comes before the phase 7 / (1 - s), whatever s; farther out the swings only shrink.
    capped = np.minimum(phase, 7 / length)
    worst, at = transfer(s, capped), capped
    past = np.flatnonzero(phase * length > FIRST_TROUGH)
    if past.size:
        samples = capped[past, None] * _WITHIN
        contrasts = transfer(np.broadcast_to(s[past, None], samples.shape), samples)
        # The last of equals, so that where all is alike the edge is named.
        lowest = contrasts.shape[1] - 1 - contrasts[:, ::-1].argmin(axis=1)
        rows = np.arange(past.size)
        worst[past], at[past] = contrasts[rows, lowest], samples[rows, lowest]
    return Worst(worst, at / (np.pi * frequency))
