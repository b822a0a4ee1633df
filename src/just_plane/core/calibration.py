"""What measured frames say about a lens: magnification from a ruler, focal length and pupils from two tubes."""

import math
from typing import NamedTuple

from just_plane.core.domain import non_negative, positive
from just_plane.core.errors import OutOfDomainError, Quantity


class Measured(NamedTuple):
    """A value and its standard uncertainty, in the value's unit."""

    value: float
    uncertainty: float


def magnification_from_ruler(span, span_uncertainty, pixel_pitch, real_length):
    """Magnification from a length of a ruler on the frame.

    Parameters
    ----------
    span : float               Between two marks on the frame, pixels, > 0.
    span_uncertainty : float   Of it, pixels, >= 0.
    pixel_pitch : float        mm, > 0.
    real_length : float        Between the same marks on the ruler, mm, > 0; taken as exact.

    Returns
    -------
    Measured
    """
    positive("span", span, "pixels")
    non_negative("span_uncertainty", span_uncertainty, "pixels")
    positive("pixel_pitch", pixel_pitch, "mm")
    positive("real_length", real_length, "mm")
    per_pixel = pixel_pitch / real_length
    return Measured(span * per_pixel, span_uncertainty * per_pixel)


def focal_length_from_two_tubes(first_extension, first, second_extension, second):
    """Focal length at work from the magnifications measured with two tubes at one setting of the ring:
    (e2 - e1) / (m2 - m1).

    Parameters
    ----------
    first_extension, second_extension : float   mm, >= 0, different.
    first, second : Measured                    Magnifications; the longer tube gives the larger one.

    Returns
    -------
    Measured                                    mm.

    Raises
    ------
    OutOfDomainError                            The tubes are alike, or the longer one did not give more, or the two
                                                sizes differ by less than three times their uncertainty.
    """
    non_negative("first_extension", first_extension, "mm")
    non_negative("second_extension", second_extension, "mm")
    positive("first", first.value)
    positive("second", second.value)
    extension, gain = second_extension - first_extension, second.value - first.value
    spread = math.hypot(first.uncertainty, second.uncertainty)
    if extension == 0:
        raise OutOfDomainError(
            "second_extension.same",
            quantity="second_extension",
            value=second_extension,
            unit="mm",
            message="Both frames were taken with the same extension.",
            remedy="Take one with another tube, or with none; leave the focus ring where it is.",
        )
    if extension * gain <= 0 or abs(gain) < 3 * spread:
        raise OutOfDomainError(
            "second.no_gain",
            quantity="second",
            value=second.value,
            message="{more} more extension changed the size from {small} to {large}: too little, or the wrong way.",
            remedy="The focus ring must stay where it was between the two frames; use tubes that differ more.",
            more=Quantity(abs(extension), "mm", 6),
            small=Quantity(first.value, "x", 4),
            large=Quantity(second.value, "x", 4),
        )
    value = extension / gain
    return Measured(value, abs(value) * spread / abs(gain))


def pupil_magnification_from_exposure(first, second, stops):
    """Pupil magnification from the light lost between two frames at one marked stop and two extensions.

    N_e2 / N_e1 = (1 + m2/P) / (1 + m1/P) = 2^(stops/2) =: r, so P = (m2 - r m1) / (r - 1).

    Parameters
    ----------
    first, second : Measured   Magnifications, the second larger.
    stops : Measured           Longer exposure that the second one needed, in stops, > 0.

    Returns
    -------
    Measured

    Raises
    ------
    OutOfDomainError           No pupil explains these numbers: the loss is at least what an infinitely small one would
                               cost, 2 log2(m2/m1), or none at all.
    """
    positive("first", first.value)
    positive("second", second.value)
    positive("stops", stops.value, "stops", "Give how many stops longer the frame with more extension had to be.")
    most = 2 * math.log2(second.value / first.value) if second.value > first.value else 0.0
    if not stops.value < most:
        raise OutOfDomainError(
            "stops.unexplained",
            quantity="stops",
            value=stops.value,
            unit="stops",
            message=(
                f"From {first.value:.3g}x to {second.value:.3g}x no lens loses {stops.value:.3g} stops: "
                f"the most is {most:.3g}."
            ),
            remedy="Meter both frames on the same grey, at the same marked stop, and give the difference.",
        )
    ratio = 2 ** (stops.value / 2)
    value = (second.value - ratio * first.value) / (ratio - 1)
    by_first = ratio / (ratio - 1) * first.uncertainty
    by_second = second.uncertainty / (ratio - 1)
    by_ratio = (first.value - second.value) / (ratio - 1) ** 2 * ratio * math.log(2) / 2 * stops.uncertainty
    return Measured(value, math.sqrt(by_first**2 + by_second**2 + by_ratio**2))
