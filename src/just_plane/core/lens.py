"""A prime lens as its data sheet tells it, and how its focal length changes as it focuses (breathing)."""

from dataclasses import dataclass

import numpy as np

from just_plane.core.domain import non_negative, positive
from just_plane.core.errors import OutOfDomainError


def focal_length_at_closest(minimum_focus_distance, magnification):
    """Focal length of a lens at its closest focus: D m / (1 + m)^2.

    Parameters
    ----------
    minimum_focus_distance : float   Subject to sensor at closest focus, mm, > 0.
    magnification : float            There, > 0.

    Returns
    -------
    float                            mm.

    Raises
    ------
    OutOfDomainError                 An input is not finite or not positive.

    Notes
    -----
    A thin lens: D = f (2 + m + 1/m). A lens whose principal planes lie apart reads a little long.

    References
    ----------
    docs/derivations/breathing.md
    """
    positive("minimum_focus_distance", minimum_focus_distance, "mm")
    positive("magnification", magnification)
    return minimum_focus_distance * magnification / (1 + magnification) ** 2


@dataclass(frozen=True, slots=True)
class Prime:
    """A lens of one marked focal length, at a setting of its own focus ring.

    Parameters
    ----------
    focal_length : float              As marked, at infinity, mm, > 0.
    own_magnification : float         At this setting of the ring and with nothing added; 0 is infinity. May be an
                                      (N,) array: the rig then answers for all settings at once.
    closest_magnification : float     The largest own magnification, >= 0; 0 for a lens fixed at infinity.
    closest_focal_length : float      Focal length there, mm, > 0; equal to ``focal_length`` when it does not breathe.
    pupil_magnification : float       Exit / entrance pupil diameter, > 0.

    Raises
    ------
    OutOfDomainError                  A number is outside its range.
    """

    focal_length: float
    own_magnification: float | np.ndarray = 0.0
    closest_magnification: float = 0.0
    closest_focal_length: float | None = None
    pupil_magnification: float = 1.0

    def __post_init__(self):
        positive("focal_length", self.focal_length, "mm")
        non_negative("own_magnification", self.own_magnification)
        non_negative("closest_magnification", self.closest_magnification)
        positive("pupil_magnification", self.pupil_magnification)
        if self.closest_focal_length is not None:
            positive("closest_focal_length", self.closest_focal_length, "mm")

    @property
    def focal_length_now(self):
        """Focal length at this setting, mm: between infinity and closest it changes linearly with magnification."""
        if self.closest_focal_length is None or self.closest_magnification == 0:
            return self.focal_length
        share = self.own_magnification / self.closest_magnification
        return self.focal_length + (self.closest_focal_length - self.focal_length) * share

    @property
    def image_distance(self):
        """Lens to where its own mount puts the sensor, mm: f (1 + m0)."""
        return self.focal_length_now * (1 + self.own_magnification)


def prime_from_data_sheet(focal_length, minimum_focus_distance, closest_magnification, pupil_magnification=1.0):
    """A :class:`Prime` at infinity, its breathing taken from the two close-focus numbers of its data sheet.

    Raises
    ------
    OutOfDomainError   A number is not positive, or the two disagree so far that one must be a misprint (focal length
                       at closest focus outside a quarter to twice the marked one).
    """
    there = focal_length_at_closest(minimum_focus_distance, closest_magnification)
    if not 0.25 * focal_length <= there <= 2 * focal_length:
        # Subject to sensor for a lens that does not breathe; real lenses lie within a factor of the one marked.
        plain = focal_length * (2 + closest_magnification + 1 / closest_magnification)
        raise OutOfDomainError(
            "minimum_focus_distance.disagrees",
            quantity="minimum_focus_distance",
            value=minimum_focus_distance,
            unit="mm",
            message=(
                f"Closest focus {minimum_focus_distance:g} mm with {closest_magnification:g}x would make this "
                f"{focal_length:g} mm lens a {there:.3g} mm lens up close."
            ),
            remedy=(
                f"Measure closest focus from the sensor mark to the subject; about {plain:.3g} mm is usual for "
                "these numbers."
            ),
        )
    return Prime(focal_length, 0.0, closest_magnification, there, pupil_magnification)
