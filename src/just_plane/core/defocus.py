"""What lies off the plane of focus: how much a rig blurs it, and what contrast is left of its finest detail."""

from dataclasses import dataclass

import numpy as np

from just_plane.core.contrast import transfer
from just_plane.core.domain import non_negative, positive
from just_plane.core.units import DEFAULT_WAVELENGTH


@dataclass(frozen=True, slots=True)
class View:
    """What a rig shows of a subject, and what is asked of it.

    Parameters
    ----------
    magnification : float         > 0.
    pupil_distance : float        Plane of focus to entrance pupil, mm, > 0.
    circle_of_confusion : float   mm on the sensor, > 0.
    depth : float                 Depth that must be sharp, mm, >= 0.
    wavelength : float            mm, > 0.

    Raises
    ------
    OutOfDomainError              A number is outside its range.
    """

    magnification: float
    pupil_distance: float
    circle_of_confusion: float
    depth: float
    wavelength: float = DEFAULT_WAVELENGTH

    def __post_init__(self):
        positive("magnification", self.magnification)
        positive("pupil_distance", self.pupil_distance, "mm")
        positive("circle_of_confusion", self.circle_of_confusion, "mm")
        non_negative("depth", self.depth, "mm")
        positive("wavelength", self.wavelength, "mm")

    def blur_at(self, offset, effective_f_number):
        """Blur diameter on the sensor of a point off the plane of focus.

        Parameters
        ----------
        offset : float or array               mm behind the plane of focus, negative before it; > -pupil_distance.
        effective_f_number : float or array   > 0, dimensionless.

        Returns
        -------
        float or array                        mm. Exact for thin elements: m^2/N_e |offset| u_p / (u_p + offset).
        """
        scale = self.magnification**2 / effective_f_number
        return scale * np.abs(offset) * self.pupil_distance / (self.pupil_distance + offset)

    def contrast_at(self, offset, effective_f_number):
        """Contrast at 1/c of a point off the plane of focus.

        Parameters
        ----------
        offset, effective_f_number            As for :meth:`blur_at`.

        Returns
        -------
        array                                 Signed: below 0 where light and dark are exchanged.
        """
        frequency = 1 / self.circle_of_confusion
        phase = np.pi * frequency * self.blur_at(np.asarray(offset, dtype=float), effective_f_number)
        s = np.asarray(frequency * self.wavelength * effective_f_number, dtype=float)
        return transfer(*np.broadcast_arrays(s, phase))
