"""The marked stops of a lens, as engraved: f/5.6, not f/5.657."""

from just_plane.core.domain import positive
from just_plane.core.errors import OutOfDomainError

# Conventional engraved values; they are rounded by custom, so they are listed and not computed.
FULL_STOPS = (0.7, 1, 1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22, 32, 45, 64, 90, 128)
HALF_STOPS = (
    *(0.7, 0.85, 1, 1.2, 1.4, 1.7, 2, 2.4, 2.8, 3.3, 4, 4.8, 5.6, 6.7, 8, 9.5, 11, 13, 16, 19, 22, 27, 32, 38, 45),
    *(54, 64, 76, 90, 107, 128),
)
THIRD_STOPS = (
    *(0.7, 0.8, 0.9, 1, 1.1, 1.2, 1.4, 1.6, 1.8, 2, 2.2, 2.5, 2.8, 3.2, 3.5, 4, 4.5, 5, 5.6, 6.3, 7.1, 8, 9, 10),
    *(11, 13, 14, 16, 18, 20, 22, 25, 29, 32, 36, 40, 45, 51, 57, 64, 72, 81, 90, 102, 114, 128),
)
SERIES = {"full": FULL_STOPS, "half": HALF_STOPS, "third": THIRD_STOPS}


def marked_stops(widest, narrowest, fineness="third"):
    """The stops that can be set on a lens, from its widest to its narrowest.

    Parameters
    ----------
    widest, narrowest : float   Marked f-numbers at the ends of the lens's range, > 0, widest <= narrowest.
    fineness : str              ``full``, ``half`` or ``third``: how the lens or camera clicks.

    Returns
    -------
    tuple of float              Ascending; both ends are always among them, engraved values between.

    Raises
    ------
    OutOfDomainError            Ends not positive or swapped, or an unknown fineness.

    Examples
    --------
    >>> marked_stops(2.8, 8, "full")
    (2.8, 4.0, 5.6, 8.0)
    """
    positive("widest", widest)
    positive("narrowest", narrowest)
    if widest > narrowest:
        raise OutOfDomainError(
            "widest.swapped",
            quantity="widest",
            value=widest,
            message=f"The widest stop f/{widest:g} is narrower than the narrowest f/{narrowest:g}.",
            remedy="Swap the two: the widest stop has the smaller number.",
        )
    if fineness not in SERIES:
        raise OutOfDomainError(
            "fineness.unknown",
            quantity="fineness",
            value=fineness,
            message=f"Stops come as full, half or third; got {fineness!r}.",
        )
    between = [float(stop) for stop in SERIES[fineness] if widest < stop < narrowest]
    ends = [float(widest)] if widest == narrowest else [float(widest), float(narrowest)]
    return (ends[0], *between, *ends[1:])
