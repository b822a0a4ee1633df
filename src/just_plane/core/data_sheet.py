"""From the numbers of a data sheet to the lens that they tell of: its breathing, and what the sheet leaves out."""

from just_plane.core.domain import positive
from just_plane.core.errors import OutOfDomainError, Quantity
from just_plane.core.lens import Prime


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


def prime_from_data_sheet(focal_length, minimum_focus_distance, closest_magnification, pupil_magnification=1.0):
    """A :class:`Prime` at infinity, its breathing taken from the two close-focus numbers of its data sheet.

    Parameters
    ----------
    focal_length : float             As marked, mm, > 0.
    minimum_focus_distance : float   Subject to sensor at closest focus, mm, > 0.
    closest_magnification : float    There, > 0.
    pupil_magnification : float      Exit / entrance pupil diameter, > 0.

    Returns
    -------
    Prime                            At infinity.

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
            # Focal lengths are engraved in mm, whatever unit is in use.
            message=(
                f"Closest focus {{closest}} with {closest_magnification:g}x would make this "
                f"{focal_length:g} mm lens a {there:.3g} mm lens up close."
            ),
            remedy=(
                "Measure closest focus from the sensor mark to the subject; about {plain} is usual for these numbers."
            ),
            closest=Quantity(minimum_focus_distance, "mm", 6),
            plain=Quantity(plain, "mm"),
        )
    return Prime(focal_length, 0.0, closest_magnification, there, pupil_magnification)


def large_sizes_only(focal_length, smallest_magnification, largest_magnification, pupil_magnification=1.0):
    """A :class:`Prime` for large sizes only, such as 2.5 to 5: a lens on a helicoid of its own that never gets to
    infinity, its focal length the same throughout.

    Parameters
    ----------
    focal_length : float             mm, > 0.
    smallest_magnification : float   At the far end of its ring, > 0.
    largest_magnification : float    At the near end, larger.
    pupil_magnification : float      Exit / entrance pupil diameter, > 0.

    Returns
    -------
    Prime                            At its smallest size.

    Raises
    ------
    OutOfDomainError                 A number is not positive, or the sizes stand the wrong way round.
    """
    positive("smallest_magnification", smallest_magnification)
    positive("largest_magnification", largest_magnification)
    if smallest_magnification > largest_magnification:
        raise OutOfDomainError(
            "smallest_magnification.not_smaller",
            quantity="smallest_magnification",
            value=smallest_magnification,
            message=f"Its smallest size, {smallest_magnification:g}x, is larger than its largest, "
            f"{largest_magnification:g}x.",
            remedy="Swap the two.",
        )
    return Prime(
        focal_length,
        smallest_magnification,
        largest_magnification,
        None,
        pupil_magnification,
        smallest_magnification,
    )


def closest_size(focal_length, minimum_focus_distance, breathes=1.0):
    """The size at closest focus of a lens of which only the distance is known: D = r f (2 + m + 1/m).

    Parameters
    ----------
    focal_length : float             As marked, mm, > 0.
    minimum_focus_distance : float   Subject to sensor at closest focus, mm, > 0.
    breathes : float                 Focal length at closest focus over the marked one, > 0: as the other end of a zoom
                                     does; 1: not at all.

    Returns
    -------
    float                            At most 1: of the two solutions the one beyond twice the focal length.

    Raises
    ------
    OutOfDomainError                 A lens of that focal length cannot focus so close.
    """
    positive("focal_length", focal_length, "mm")
    positive("minimum_focus_distance", minimum_focus_distance, "mm")
    there = focal_length * positive("breathes", breathes)
    over = minimum_focus_distance / there - 2
    if over < 2:
        raise OutOfDomainError(
            "minimum_focus_distance.too_close",
            quantity="minimum_focus_distance",
            value=minimum_focus_distance,
            unit="mm",
            # Focal lengths are engraved in mm, whatever unit is in use.
            message=f"From {{closest}} alone no size follows: {there:.3g} mm focus no closer than {{least}}.",
            remedy="Give the size at closest focus.",
            closest=Quantity(minimum_focus_distance, "mm", 6),
            least=Quantity(4 * there, "mm"),
        )
    return (over - (over**2 - 4) ** 0.5) / 2
