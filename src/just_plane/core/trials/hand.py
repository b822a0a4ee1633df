"""How much a hand sways: from a burst of frames of a slanted print, along by where it is sharp, across by where it is.

Along: the sharp line lies on the print where the plane of focus cuts it, so that it goes dz / tan(angle) over the print
for every dz. Where the line lies in the frame less where the print lies in it is that, whatever the hand does across.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import positive
from just_plane.core.peaks import peak_offset

LEAST_FRAMES = 12
WINDOW_ROWS = 16
ROUNDS = 12
LEAN = 0.5
"""Weight of the usual strength of the print against what the frames say of a row: rows that none shows sharp lean."""
EXPLAINED = 0.8
"""Of what one frame's detail differs from the usual, that may be left once its sharp line is known."""
LEAST_INSIDE = 0.75
"""Of the frames, that must show the sharp line well inside."""


class Sway(NamedTuple):
    """Standard deviations, mm in the subject."""

    along: float
    across: float
    frames: int


def sharp_lines(energies, down):
    """The row of the print at which each frame is sharpest.

    Parameters
    ----------
    energies : (F, H) array   Of rows, by frame.
    down : (F,) array         Of the print in each frame from the first, px down.

    Returns
    -------
    (F,) array                px, as the first frame counts them; NaN where the sharp line is not well inside.

    Notes
    -----
    Detail is what a row of the print has times what focus leaves of it, 1/(1 + (u/w)^2) at u rows from the sharp line:
    both are worked out in turn from what the other leaves.
    """
    from scipy.ndimage import uniform_filter1d  # late: SciPy takes long to import

    energy = uniform_filter1d(np.asarray(energies, dtype=float), WINDOW_ROWS, axis=1, mode="nearest")
    energy = np.maximum(energy - np.percentile(energy, 5), 0.0)
    energy = np.array([np.roll(each, -round(shift)) for each, shift in zip(energy, down, strict=True)])
    count, rows = energy.shape
    strength = np.ones(rows)
    wide = _width(energy)
    lines, scores = np.zeros(count), energy
    offsets = np.arange(-rows + 1, rows)
    left = 1 / (1 + (offsets / wide) ** 2)
    for _ in range(ROUNDS):
        # Every place for the line tried at once: how well its detail explains the frame's, by least squares.
        scores = _over_every_row(energy * strength, left) / np.sqrt(_over_every_row(strength**2, left**2))
        lines = np.array([_top(each) for each in scores])
        share = 1 / (1 + ((np.arange(rows) - lines[:, np.newaxis]) / wide) ** 2)
        usual = float((energy * share).sum() / np.square(share).sum())
        strength = ((energy * share).sum(axis=0) + LEAN * usual) / (np.square(share).sum(axis=0) + LEAN)
    inside = (lines + down > wide) & (lines + down < rows - 1 - wide)
    share = 1 / (1 + ((np.arange(rows) - lines[:, np.newaxis]) / wide) ** 2)
    without = np.square(energy - energy.mean(axis=0)).sum(axis=1)
    left_over = np.square(energy - share * strength).sum(axis=1)
    return np.where(inside & (left_over < EXPLAINED * without), lines, np.nan)


def _over_every_row(values, left):
    """Sums of values (..., H) times what is left (2H - 1,) of each around every row: (..., H)."""
    from scipy import fft  # late: SciPy takes long to import

    rows = values.shape[-1]
    size = fft.next_fast_len(3 * rows, real=True)
    return fft.irfft(fft.rfft(values, size) * fft.rfft(left, size), size)[..., rows - 1 : 2 * rows - 1]


def _width(energy):
    """Half width at half of its top of the sharp line, px: the usual one of the frames."""
    over = (energy > 0.5 * energy.max(axis=1, keepdims=True)).sum(axis=1)
    return max(float(np.median(over)) / 2, 2.0)


def _top(values):
    """Where a row of values is highest, between its samples too."""
    at = int(np.argmax(values))
    return at + peak_offset(values, at)


def hand_sway(lines, shifts, pixel_pitch, magnification, angle):
    """How much the hand sways.

    Parameters
    ----------
    lines : (F,) array      Row of the print at which each frame is sharpest, px; NaN: not told.
    shifts : (F, 2) array   Of the print from the first frame, px right and down.
    pixel_pitch : float     mm, > 0.
    magnification : float   > 0.
    angle : float           Of the print from the axis, radians, between 0 and a right angle.

    Returns
    -------
    Sway, or str            Why it cannot be told, as a sentence.
    """
    positive("pixel_pitch", pixel_pitch, "mm")
    positive("magnification", magnification)
    positive("angle", angle, "radians")
    lines, shifts = np.asarray(lines, dtype=float), np.asarray(shifts, dtype=float)
    told = np.isfinite(lines)
    if told.sum() < LEAST_FRAMES or told.mean() < LEAST_INSIDE:
        return (
            f"The sharp line lies inside {int(told.sum())} of {len(lines)} frames: take thirty in a burst, of a print "
            "on a slope, with the sharp line near the middle."
        )
    px = pixel_pitch / magnification
    along = lines[told] * px / math.tan(angle)
    across = shifts * px
    return Sway(float(np.std(along)), float(np.sqrt(np.mean(np.var(across, axis=0)))), int(told.sum()))
