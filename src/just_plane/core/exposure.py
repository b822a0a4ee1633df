"""Equal exposure across aperture, shutter and sensitivity, and what extension takes away."""

from dataclasses import dataclass

import numpy as np

from just_plane.core.aperture import stops_lost
from just_plane.core.domain import positive


@dataclass(frozen=True, slots=True)
class Exposure:
    """One exposure.

    Parameters
    ----------
    f_number : float   The aperture as it was metered: marked when the meter looks through the lens, > 0.
    shutter : float    s, > 0.
    iso : float        Sensitivity, ISO, > 0.
    """

    f_number: float
    shutter: float
    iso: float

    def __post_init__(self):
        positive("f_number", self.f_number)
        positive("shutter", self.shutter, "s")
        positive("iso", self.iso)


def equal_shutter(metered, f_number, iso=None):
    """Shutter time that gives the metered exposure at another stop or sensitivity: t (N2/N1)^2 (S1/S2).

    Parameters
    ----------
    metered : Exposure            What the meter said.
    f_number : float or (N,)      The other stop, > 0, marked or effective as ``metered`` is.
    iso : float or None           The other sensitivity; None keeps it.

    Returns
    -------
    float or (N,) array           s.

    Raises
    ------
    OutOfDomainError              An input is not finite or not positive.

    Examples
    --------
    >>> equal_shutter(Exposure(8.0, 0.25, 100.0), 16.0)
    1.0
    """
    positive("f_number", f_number)
    sensitivity = metered.iso if iso is None else positive("iso", iso)
    return metered.shutter * (f_number / metered.f_number) ** 2 * (metered.iso / sensitivity)


def shutter_after_extension(shutter, f_number, effective_f_number):
    """Shutter time for a hand-held meter's reading once extension has taken its light: t (N_e/N)^2.

    A meter that looks through the lens has seen the loss already: then leave this out.

    Parameters
    ----------
    shutter : float or array              As read, s, > 0.
    f_number : float or array             Marked, > 0, dimensionless.
    effective_f_number : float or array   > 0, dimensionless.

    Returns
    -------
    float or array   s.

    Raises
    ------
    OutOfDomainError   An input is outside its range.
    """
    positive("shutter", shutter, "s")
    return shutter * np.exp2(stops_lost(f_number, effective_f_number))


def flash_f_number(guide_number, distance, iso=100.0):
    """Effective f-number for a flash by its guide number at close range.

    Parameters
    ----------
    guide_number : float   Metres, at ISO 100, > 0.
    distance : float       Flash to subject, mm, > 0.
    iso : float            > 0.

    Returns
    -------
    float                  The effective f-number to work at; the marked one is smaller by 1 + m/P.
    """
    positive("guide_number", guide_number, "m")
    positive("distance", distance, "mm")
    positive("iso", iso)
    return guide_number * 1000 / distance * (iso / 100) ** 0.5
