"""How much coarser the smallest detail would have to be for what there is to be sharp: no cliff, but a price.

Between sharp and nothing lies soft. Detail twice as large asks for half the frequency, at which both defocus and
diffraction leave more.
"""

import math

import numpy as np

from just_plane.core.contrast import transfer
from just_plane.core.domain import fraction, positive
from just_plane.core.units import DEFAULT_WAVELENGTH

MOST = 16.0
"""Factor past which it is no longer the same picture."""
SHARES = np.linspace(0.0, 1.0, 9)
ROUNDS = 3
"""Of closing in, each to an eighth: 0.5 % of the factor is left."""
FIRST_ZERO = 3.9
"""Phase times (1 - s) past which contrast is at most 0 up to its first trough: beyond the zero of J1 at 3.83."""


def enough_factor(
    circle_of_confusion, effective_f_numbers, edge_blurs, contrast_threshold, wavelength=DEFAULT_WAVELENGTH
):
    """The factor by which the circle would have to grow for the contrast at its detail to reach the threshold.

    Parameters
    ----------
    circle_of_confusion : float         mm, > 0.
    effective_f_numbers : (N,)          > 0.
    edge_blurs : (N,)                   Largest defocus blur on the sensor, mm, >= 0.
    contrast_threshold : float          That counts as sharp, between 0 and 1.
    wavelength : float                  mm, > 0.

    Returns
    -------
    (N,) array                          1 where it is sharp as it is; inf past ``MOST``. To 1 %, never too small.

    Raises
    ------
    OutOfDomainError                    An input is outside its range.
    """
    frequency = 1 / positive("circle_of_confusion", circle_of_confusion, "mm")
    fraction("contrast_threshold", contrast_threshold)
    s = np.atleast_1d(frequency * wavelength * np.asarray(effective_f_numbers, dtype=float))
    phase = np.atleast_1d(np.pi * frequency * np.asarray(edge_blurs, dtype=float))
    low, high = np.zeros(s.shape), np.full(s.shape, math.log(MOST))
    found = _contrast(s / MOST, phase / MOST) >= contrast_threshold
    for _ in range(ROUNDS):
        tried = low + (high - low) * SHARES[:, None]
        factors = np.exp(tried)
        # Detail a factor larger: the same as blur and wavelength a factor smaller.
        enough = _contrast(s / factors, phase / factors) >= contrast_threshold
        first = np.where(enough.any(axis=0), enough.argmax(axis=0), len(SHARES) - 1)
        columns = np.arange(len(s))
        high = tried[first, columns]
        low = np.where(first > 0, tried[np.maximum(first - 1, 0), columns], low)
    return np.where(found, np.exp(high), np.inf)


def _contrast(s, phase):
    """Contrast, with 0 for what is far past the first zero and could only be reversed."""
    answer, near = np.zeros(s.shape), (s < 1) & (phase * (1 - s) < FIRST_ZERO)
    answer[near] = transfer(s[near], phase[near])
    return answer
