"""Checks of arguments, so that every refusal in the core reads alike.

The outer bound keeps products and squares of accepted values finite in double precision; no length, ratio or
time of this job comes within a thousand times of it.
"""

import math

import numpy as np

from just_plane.core.errors import OutOfDomainError, Quantity

LARGEST = 1e12
SMALLEST_POSITIVE = 1e-12


def positive(quantity, value, unit="", remedy=""):
    """Return ``value`` when every element is finite and within [1e-12, 1e12], else raise OutOfDomainError.

    Parameters
    ----------
    quantity : str                 Its name, for the sentence.
    value : float, int or array
    unit : str                     Of the value; empty for ratios.
    remedy : str                   What would work, a sentence; may be empty.

    Returns
    -------
    float, int or array   ``value`` itself, every element within [1e-12, 1e12].

    Raises
    ------
    OutOfDomainError      An element is outside that, or not finite.
    """
    if isinstance(value, float | int):
        if SMALLEST_POSITIVE <= value <= LARGEST:
            return value
    elif np.all((np.asarray(value) >= SMALLEST_POSITIVE) & (np.asarray(value) <= LARGEST)):
        return value
    raise _refusal("not_positive", quantity, value, unit, "must be greater than 0 and finite", remedy)


def non_negative(quantity, value, unit="", remedy=""):
    """Return ``value`` when every element is finite and within [0, 1e12], else raise OutOfDomainError.

    Parameters
    ----------
    quantity : str                 Its name, for the sentence.
    value : float, int or array
    unit : str                     Of the value; empty for ratios.
    remedy : str                   What would work, a sentence; may be empty.

    Returns
    -------
    float, int or array   ``value`` itself, every element within [0, 1e12].

    Raises
    ------
    OutOfDomainError      An element is outside that, or not finite.
    """
    if isinstance(value, float | int):
        if 0 <= value <= LARGEST:
            return value
    elif np.all((np.asarray(value) >= 0) & (np.asarray(value) <= LARGEST)):
        return value
    raise _refusal("negative", quantity, value, unit, "must be 0 or more and finite", remedy)


def fraction(quantity, value, remedy=""):
    """Return ``value`` when 0 <= value < 1, else raise OutOfDomainError.

    Parameters
    ----------
    quantity : str   Its name, for the sentence.
    value : float
    remedy : str     What would work, a sentence; may be empty.

    Returns
    -------
    float            ``value`` itself.

    Raises
    ------
    OutOfDomainError   It is not at least 0 and below 1.
    """
    if not (isinstance(value, float | int) and 0 <= value < 1):
        raise _refusal("not_a_fraction", quantity, value, "", "must be at least 0 and below 1", remedy)
    return value


def count(quantity, value, remedy=""):
    """Return ``value`` when it is a whole number, 0 or more, else raise OutOfDomainError.

    Parameters
    ----------
    quantity : str   Its name, for the sentence.
    value : int
    remedy : str     What would work, a sentence; may be empty.

    Returns
    -------
    int              ``value`` itself.

    Raises
    ------
    OutOfDomainError   It is no whole number of 0 or more.
    """
    if not (isinstance(value, int) and not isinstance(value, bool) and 0 <= value <= LARGEST):
        raise _refusal("not_a_count", quantity, value, "", "must be a whole number, 0 or more", remedy)
    return value


def _refusal(reason, quantity, value, unit, rule, remedy):
    offender = _first_offender(value)
    words = quantity.replace("_", " ")
    is_number = isinstance(offender, float | int)
    got = "{got}" if is_number else repr(offender)
    spoken = {"got": Quantity(offender, unit, 6)} if is_number else {}
    return OutOfDomainError(
        f"{quantity}.{reason}",
        quantity=quantity,
        value=offender,
        unit=unit,
        message=f"{words} {rule}; got {got}.",
        remedy=remedy,
        **spoken,
    )


def _first_offender(value):
    """The value to name in the sentence: of an array, the one furthest from anything sensible."""
    if isinstance(value, np.ndarray) and value.size and value.dtype.kind in "fiu":
        flat = value.ravel().astype(float)
        bad = flat[~np.isfinite(flat)]
        return float(bad[0]) if bad.size else float(flat[np.argmin(flat)] if flat.min() <= 0 else flat.max())
    if isinstance(value, float) and math.isnan(value):
        return float("nan")
    return value
