"""The aperture that works: effective f-number, numerical aperture, the light it loses and the blur it cannot avoid."""

import numpy as np

from just_plane.core.domain import non_negative, positive
from just_plane.core.units import DEFAULT_WAVELENGTH


def effective_f_number(f_number, magnification, pupil_magnification=1.0):
    """Effective f-number of a lens focused at a finite magnification: N (1 + m/P).

    Assumes paraxial imaging with air on both sides.

    Parameters
    ----------
    f_number : float or array              Marked f-number, > 0, dimensionless.
    magnification : float or array         Image size / subject size, >= 0, dimensionless.
    pupil_magnification : float or array   Exit / entrance pupil diameter, > 0, dimensionless.

    Returns
    -------
    float or array                         Dimensionless; shape of the inputs broadcast together.

    Raises
    ------
    OutOfDomainError                       An input is not finite or is outside its stated range.

    Notes
    -----
    magnification -> 0 gives f_number; magnification = pupil_magnification gives 2 f_number.

    References
    ----------
    docs/derivations/effective_f_number.md

    Examples
    --------
    >>> effective_f_number(8.0, 1.0)
    16.0
    """
    positive("f_number", f_number)
    non_negative("magnification", magnification)
    positive("pupil_magnification", pupil_magnification)
    return f_number * (1 + magnification / pupil_magnification)


def f_number_from_effective(effective_f_number, magnification, pupil_magnification=1.0):
    """Marked f-number that works as ``effective_f_number``; the inverse of :func:`effective_f_number`.

    Parameters, units and errors as there. For cameras that show the effective number when focused close.

    Parameters
    ----------
    effective_f_number : float or array   > 0, dimensionless.
    magnification : float or array        >= 0, dimensionless.
    pupil_magnification : float or array  > 0, dimensionless.

    Returns
    -------
    float or array   Dimensionless; shape of the inputs broadcast together.

    Raises
    ------
    OutOfDomainError   An input is outside its range.
    """
    positive("effective_f_number", effective_f_number)
    non_negative("magnification", magnification)
    positive("pupil_magnification", pupil_magnification)
    return effective_f_number / (1 + magnification / pupil_magnification)


def stops_lost(f_number, effective_f_number):
    """Exposure lost to extension, in stops: 2 log2(N_e / N).

    Parameters
    ----------
    f_number, effective_f_number : float or array   Both > 0, dimensionless.

    Returns
    -------
    float or array                                  Stops; positive when light is lost.

    Raises
    ------
    OutOfDomainError                                An input is not finite or not positive.
    """
    positive("f_number", f_number)
    positive("effective_f_number", effective_f_number)
    lost = 2 * np.log2(np.divide(effective_f_number, f_number))
    return float(lost) if np.ndim(lost) == 0 else lost


def numerical_aperture(effective_f_number, magnification):
    """Subject-side numerical aperture: m / (2 N_e).

    Parameters
    ----------
    effective_f_number : float or array   > 0, dimensionless.
    magnification : float or array        >= 0, dimensionless.

    Returns
    -------
    float or array                        Dimensionless; paraxial, so sine and tangent are not told apart.

    Raises
    ------
    OutOfDomainError                      An input is not finite or is outside its stated range.
    """
    positive("effective_f_number", effective_f_number)
    non_negative("magnification", magnification)
    return magnification / (2 * effective_f_number)


def effective_f_number_from_numerical_aperture(numerical_aperture, magnification):
    """Effective f-number of an objective: m / (2 NA); the inverse of :func:`numerical_aperture`.

    Parameters
    ----------
    numerical_aperture : float or array   Subject side, > 0, dimensionless.
    magnification : float or array        > 0, dimensionless.

    Returns
    -------
    float or array   Dimensionless.

    Raises
    ------
    OutOfDomainError   An input is outside its range.
    """
    positive("numerical_aperture", numerical_aperture)
    positive("magnification", magnification)
    return magnification / (2 * numerical_aperture)


def airy_diameter(effective_f_number, wavelength=DEFAULT_WAVELENGTH):
    """Diameter of the first dark ring around the image of a point, on the sensor: 2.44 lambda N_e.

    Parameters
    ----------
    effective_f_number : float or array   > 0, dimensionless.
    wavelength : float or array           mm, > 0.

    Returns
    -------
    float or array                        mm.

    Raises
    ------
    OutOfDomainError                      An input is not finite or not positive.

    Notes
    -----
    2.44 is twice 1.22, the first zero of J1(pi x)/x rounded as the trade rounds it (1.21967).
    """
    positive("effective_f_number", effective_f_number)
    positive("wavelength", wavelength, "mm")
    return 2.44 * wavelength * effective_f_number
