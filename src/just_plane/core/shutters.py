"""Shutter times as cameras mark them: 1/60, not 1/59."""

import numpy as np

from just_plane.core.domain import positive

# Conventional marks in thirds of a stop; they are rounded by custom, so they are listed and not computed.
_PARTS = (
    *(8000, 6400, 5000, 4000, 3200, 2500, 2000, 1600, 1250, 1000, 800, 640, 500, 400, 320, 250, 200, 160, 125, 100),
    *(80, 60, 50, 40, 30, 25, 20, 15, 13, 10, 8, 6, 5, 4),
)
_WHOLE = (0.3, 0.4, 0.5, 0.6, 0.8, 1, 1.3, 1.6, 2, 2.5, 3.2, 4, 5, 6, 8, 10, 13, 15, 20, 25, 30)
MARKS = (*((1 / part, f"1/{part}") for part in _PARTS), *((float(each), f"{each:g}") for each in _WHOLE))
"""(seconds, as it is marked), shortest first."""
_LOGS = np.log([seconds for seconds, _ in MARKS])
BESIDE = 0.1
"""Of a stop's third that a time past either end may lie and still be that mark, in natural logarithms."""


def marked_shutter(shutter):
    """The mark nearest to a shutter time.

    Parameters
    ----------
    shutter : float    s, > 0.

    Returns
    -------
    str or None        Such as ``1/60`` or ``0.8``; None past what cameras mark, where it is timed by hand.

    Raises
    ------
    OutOfDomainError   It is not finite or not positive.

    Examples
    --------
    >>> marked_shutter(1 / 59), marked_shutter(0.77), marked_shutter(95.0)
    ('1/60', '0.8', None)
    """
    positive("shutter", shutter, "s")
    at = np.log(shutter)
    if not _LOGS[0] - BESIDE <= at <= _LOGS[-1] + BESIDE:
        return None
    return MARKS[int(np.argmin(np.abs(_LOGS - at)))][1]
