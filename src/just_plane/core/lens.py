"""The lens of a rig: a prime as its data sheet tells it (with breathing), turned round, or a finite objective.

Every one of them answers the same questions to the rig: ``focal_length_now``, ``image_distance``, ``pupil_ratio``,
``cone``, ``closest_magnification``, ``farthest_magnification`` and ``focused``.
"""

from dataclasses import dataclass

import numpy as np

from just_plane.core.domain import non_negative, positive
from just_plane.core.errors import OutOfDomainError
from just_plane.core.on_paper import OnPaper


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
    farthest_magnification : float    The smallest own magnification, >= 0; 0 for a lens that focuses to infinity. Not
                                      0 for one made for large sizes only, which does not breathe.
    on_paper : OnPaper or None        Where its paper has its subject; None: a thin lens says.

    Raises
    ------
    OutOfDomainError                  A number is outside its range.
    """

    focal_length: float
    own_magnification: float | np.ndarray = 0.0
    closest_magnification: float = 0.0
    closest_focal_length: float | None = None
    pupil_magnification: float = 1.0
    farthest_magnification: float = 0.0
    on_paper: OnPaper | None = None

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

    @property
    def hiatus(self):
        """Between its two principal planes: by how much the subject stands farther from the sensor than a thin lens of
        its focal length has it, mm. 0 where no paper says.

        Returns
        -------
        float or (N,) array   mm; below 0 for a lens that is shorter than a thin one.
        """
        if self.on_paper is None:
            return 0.0
        own = self.own_magnification
        return self.on_paper.subject_to_sensor(own) - self.focal_length_now * (2 + own + 1 / own)

    @property
    def pupil_ratio(self):
        """Exit / entrance pupil diameter as light meets this lens in the rig.

        Returns
        -------
        float   Exit / entrance pupil diameter, dimensionless.
        """
        return self.pupil_magnification

    def cone(self, magnification):
        """F-number behind the lens, per marked f-number, when it works at ``magnification``: 1 + m/P.

        Parameters
        ----------
        magnification : float or array   At which the lens itself works, >= 0.

        Returns
        -------
        float or array   Dimensionless.
        """
        return 1 + magnification / self.pupil_magnification

    def focused(self, own_magnification):
        """The same lens with its ring elsewhere.

        Parameters
        ----------
        own_magnification : float or (N,) array   >= 0; 0 is infinity.

        Returns
        -------
        Prime
        """
        return Prime(
            self.focal_length,
            own_magnification,
            self.closest_magnification,
            self.closest_focal_length,
            self.pupil_magnification,
            self.farthest_magnification,
            self.on_paper,
        )

    def turned_round(self, standoff=0.0):
        """The same lens, its ring at its far end, the other way round: see :class:`Reversed`.

        Parameters
        ----------
        standoff : float   mm, from where the turned lens is held to the sensor with nothing between.

        Returns
        -------
        Reversed
        """
        return Reversed(self.focused(self.farthest_magnification), standoff)


@dataclass(frozen=True, slots=True)
class Reversed:
    """A lens turned round, held by its filter thread. Its focus ring is left at infinity.

    Parameters
    ----------
    lens : Prime        As its data sheet has it, from its mount's side.
    standoff : float    From the lens's principal plane to where its sensor would be if its filter thread were the
                        body's mount, mm: thread to principal plane, plus the body's register. The reversing ring and
                        what else stands between count as extension from there.

    Notes
    -----
    The pupils change places: P becomes 1/P. The marked f-number belongs to the pupil that now faces the sensor, so
    N_e = N (1/P + m).

    References
    ----------
    docs/derivations/reversed_and_coupled.md
    """

    lens: Prime
    standoff: float = 0.0

    own_magnification = 0.0
    closest_magnification = 0.0
    farthest_magnification = 0.0

    @property
    def hiatus(self):
        """Between its principal planes, as of the lens the right way round.

        Returns
        -------
        float   mm.
        """
        return self.lens.hiatus

    @property
    def focal_length_now(self):
        """Focal length at this setting: turning a lens round does not change it.

        Returns
        -------
        float   mm.
        """
        return self.lens.focal_length

    @property
    def image_distance(self):
        """Lens to where the sensor would be without a ring, mm; ring and tubes add to this."""
        return self.standoff

    @property
    def pupil_ratio(self):
        """Exit / entrance pupil diameter as it stands now: 1/P of the lens the right way round.

        Returns
        -------
        float   Dimensionless.
        """
        return 1 / self.lens.pupil_magnification

    def cone(self, magnification):
        """F-number behind the lens, per marked f-number: 1/P + m.

        Parameters
        ----------
        magnification : float or array   At which the lens itself works, >= 0.

        Returns
        -------
        float or array   Dimensionless.
        """
        return 1 / self.lens.pupil_magnification + magnification

    def focused(self, own_magnification):
        """Itself: turning the ring of a reversed lens is not a way to focus. An array asks for as many answers.

        Parameters
        ----------
        own_magnification : float or (N,) array   >= 0; 0 is infinity.

        Returns
        -------
        Reversed
        """
        return self

    def turned_round(self):
        """The lens the right way round again.

        Returns
        -------
        Prime
        """
        return self.lens


@dataclass(frozen=True, slots=True)
class Objective:
    """A finite microscope objective on tubes or bellows.

    Parameters
    ----------
    engraved_magnification : float   At its own tube length, > 0.
    numerical_aperture : float       Subject side, between 0 and 1.
    tube_length : float              From its shoulder to the image for which the magnification is engraved, mm, > 0.
    image_distance : float           Shoulder to sensor with no tube between: the body's register, mm, >= 0.

    Notes
    -----
    A thin lens of f = tube length / (M + 1), so that at that extension it gives M; at another it gives more or less.
    Its marked f-number is 1 / (2 NA), and N_e = m / (2 NA).
    """

    engraved_magnification: float
    numerical_aperture: float
    tube_length: float = 160.0
    image_distance: float = 0.0

    own_magnification = 0.0
    closest_magnification = 0.0
    farthest_magnification = 0.0
    hiatus = 0.0
    pupil_ratio = 1.0

    def __post_init__(self):
        positive("engraved_magnification", self.engraved_magnification)
        positive("tube_length", self.tube_length, "mm")
        non_negative("image_distance", self.image_distance, "mm")
        if not 0 < self.numerical_aperture < 1:
            raise OutOfDomainError(
                "numerical_aperture.not_in_air",
                quantity="numerical_aperture",
                value=self.numerical_aperture,
                message=f"A dry objective's numerical aperture lies between 0 and 1; got {self.numerical_aperture:g}.",
                remedy="Read it off the barrel: the number after the magnification, such as 0.25.",
            )

    @property
    def focal_length_now(self):
        """Focal length of the thin lens that stands for it.

        Returns
        -------
        float   mm: tube length / (M + 1).
        """
        return self.tube_length / (self.engraved_magnification + 1)

    @property
    def f_number(self):
        """1 / (2 NA).

        Returns
        -------
        float   Dimensionless.
        """
        return 1 / (2 * self.numerical_aperture)

    def cone(self, magnification):
        """F-number behind the objective, per marked f-number 1 / (2 NA): m.

        Parameters
        ----------
        magnification : float or array   At which it works, > 0.

        Returns
        -------
        float or array   Dimensionless.
        """
        return magnification

    def focused(self, own_magnification):
        """Itself: an objective has no ring.

        Parameters
        ----------
        own_magnification : float or array   Without effect.

        Returns
        -------
        Objective
        """
        return self
