"""A zoom lens: what its data sheet says at both ends, and the lens it is at a focal length between them."""

from dataclasses import dataclass

from just_plane.core.domain import positive
from just_plane.core.errors import OutOfDomainError, UnreachableError


@dataclass(frozen=True, slots=True)
class ZoomEnd:
    """One end of a zoom's range, as the data sheet has it. Lengths in mm; every number > 0."""

    focal_length: float
    minimum_focus_distance: float
    closest_magnification: float
    widest_f_number: float
    narrowest_f_number: float
    barrel: float
    pupil_magnification: float = 1.0

    def __post_init__(self):
        for name in self.__slots__:
            positive(name, getattr(self, name))


@dataclass(frozen=True, slots=True)
class Zoom:
    """A zoom lens between its short and its long end.

    Raises
    ------
    OutOfDomainError   The ends stand the wrong way round, or are one.
    """

    short: ZoomEnd
    long: ZoomEnd

    def __post_init__(self):
        if not self.short.focal_length < self.long.focal_length:
            raise OutOfDomainError(
                "long.not_longer",
                quantity="long",
                value=self.long.focal_length,
                unit="mm",
                message=(
                    f"The long end ({self.long.focal_length:g} mm) must be longer than the short end "
                    f"({self.short.focal_length:g} mm)."
                ),
                remedy="Swap the two ends, each with its own numbers.",
            )

    def at(self, focal_length):
        """What the data sheet would say at a focal length between the ends: every number goes evenly along with the
        focal length. A model; makers seldom say more.

        Parameters
        ----------
        focal_length : float   mm, > 0.

        Returns
        -------
        ZoomEnd

        Raises
        ------
        UnreachableError   Outside the range.
        """
        positive("focal_length", focal_length, "mm")
        short, long = self.short, self.long
        if not short.focal_length <= focal_length <= long.focal_length:
            raise UnreachableError(
                "focal_length.outside_zoom",
                quantity="focal_length",
                value=focal_length,
                unit="mm",
                # Focal lengths are engraved in mm, whatever unit is in use.
                message=(
                    f"This zoom goes from {short.focal_length:g} to {long.focal_length:g} mm; "
                    f"{focal_length:g} mm cannot be set."
                ),
                remedy="Set it within its range.",
            )
        share = (focal_length - short.focal_length) / (long.focal_length - short.focal_length)
        if share in (0.0, 1.0):
            return long if share else short
        return ZoomEnd(
            *(getattr(short, name) + (getattr(long, name) - getattr(short, name)) * share for name in ZoomEnd.__slots__)
        )
