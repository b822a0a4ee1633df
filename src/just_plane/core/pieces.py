"""What stands before and behind the lens in a rig, each as one thin element or a gap."""

from dataclasses import dataclass

from just_plane.core.domain import non_negative, positive
from just_plane.core.errors import OutOfDomainError, Quantity


@dataclass(frozen=True, slots=True)
class CloseUpLens:
    """A lens on the filter thread; ``power`` in dioptres (1/m), >= 0. Touches the lens behind it in this model."""

    power: float

    def __post_init__(self):
        non_negative("power", self.power, "dioptres")

    @property
    def matrix_power(self):
        """1/mm.

        Returns
        -------
        float   1/mm.
        """
        return self.power / 1000

    separation = 0.0


@dataclass(frozen=True, slots=True)
class FacingLens:
    """A second lens turned round in front of the first, or an infinity-corrected objective in front of its tube lens.

    Parameters
    ----------
    focal_length : float          mm, > 0.
    f_number : float              The stop it is set to; of an objective 1 / (2 NA). > 0.
    separation : float            From it to the lens behind, mm, >= 0.
    pupil_magnification : float   Of this lens as it was made to be used, > 0.
    telecentric : bool            Its stop lies at its far focus, as an objective's does.
    """

    focal_length: float
    f_number: float
    separation: float = 0.0
    pupil_magnification: float = 1.0
    telecentric: bool = False

    def __post_init__(self):
        positive("focal_length", self.focal_length, "mm")
        positive("f_number", self.f_number)
        non_negative("separation", self.separation, "mm")
        positive("pupil_magnification", self.pupil_magnification)

    @property
    def matrix_power(self):
        """1/mm.

        Returns
        -------
        float   1/mm.
        """
        return 1 / self.focal_length

    @property
    def pupil_ahead(self):
        """How far its own entrance pupil, as the subject sees it, lies before it: f (1 - P).

        Returns
        -------
        float   mm. Turned round, its exit pupil looks at the subject, f P from its near focus.
        """
        return self.focal_length * (1 - self.pupil_magnification)

    def cone_toward_subject(self, subject_distance):
        """F-number of the cone from the subject that this lens's own stop lets through: N (1 + m/P), with m = u/f - 1,
        the size at which the lens, as it was made to be used, would image what is now behind it onto the subject.

        Parameters
        ----------
        subject_distance : float or array   Subject to this lens, mm, > 0.

        Returns
        -------
        float or array   Dimensionless.
        """
        return self.f_number * (1 + (subject_distance / self.focal_length - 1) / self.pupil_magnification)


@dataclass(frozen=True, slots=True)
class Tube:
    """An extension tube, or any gap that something holds open; ``length`` in mm, >= 0, or an array of them."""

    length: float

    def __post_init__(self):
        non_negative("length", self.length, "mm")


@dataclass(frozen=True, slots=True)
class Bellows:
    """Bellows: a gap between ``shortest`` and ``longest`` mm; ``draw`` is what it is set to, at first the shortest."""

    shortest: float
    longest: float
    draw: float | None = None

    def __post_init__(self):
        non_negative("shortest", self.shortest, "mm")
        if not self.shortest <= self.longest:
            raise OutOfDomainError(
                "longest.below_shortest",
                quantity="longest",
                value=self.longest,
                unit="mm",
                message="These bellows end at {end}, before they begin at {start}.",
                remedy="Swap the two numbers.",
                end=Quantity(self.longest, "mm", 6),
                start=Quantity(self.shortest, "mm", 6),
            )
        non_negative("longest", self.longest, "mm")

    @property
    def length(self):
        """How far they are drawn; at their shortest while nothing else is said.

        Returns
        -------
        float or array   mm.
        """
        return self.shortest if self.draw is None else self.draw


@dataclass(frozen=True, slots=True)
class Teleconverter:
    """A teleconverter: ``factor`` > 1, ``thickness`` between its mounts in mm, > 0."""

    factor: float
    thickness: float

    def __post_init__(self):
        positive("thickness", self.thickness, "mm")
        if not 1 < self.factor <= 10:
            raise OutOfDomainError(
                "factor.not_above_1",
                quantity="factor",
                value=self.factor,
                message=f"A converter's factor must be above 1 and at most 10; got {self.factor:g}.",
                remedy="Leave the converter out if there is none.",
            )

    @property
    def focal_length(self):
        """Of the thin negative lens that stands for it, mm: -k t / (k - 1)^2."""
        return -self.factor * self.thickness / (self.factor - 1) ** 2

    @property
    def before_image(self):
        """How far it stands before the image it enlarges, mm: t / (k - 1)."""
        return self.thickness / (self.factor - 1)
