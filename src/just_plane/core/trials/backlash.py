"""The play of a screw: the same rows sharp at other readings on the way back."""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.knob import TAKE_UP
from just_plane.core.trials.rows import WINDOW_ROWS, tracked

LEAST_FRAMES = 14
REJECT_SD = 3.0


class Backlash(NamedTuple):
    """Play, in the unit of the step."""

    play: float
    doubt: float
    """Standard deviation."""
    seen: bool
    """It stands out of its doubt."""
    rows: int
    """That agreed."""

    @property
    def take_up(self):
        """How far to go back past a mark: float, in the same unit."""
        return TAKE_UP * max(self.play, 0.0)


def read_backlash(forward, backward, step):
    """Compare a pass forward with one back over the same readings.

    Parameters
    ----------
    forward : (K, H) array    Energies of rows, by rising reading.
    backward : (K, H) array   The same readings in the same order, taken on the way back; the first frame after
                              turning, of the last reading, may be left out.
    step : float              Between readings, in any unit.

    Returns
    -------
    Backlash, or str          Why it cannot be read, as a sentence.
    """
    forward, backward = np.asarray(forward, dtype=float), np.asarray(backward, dtype=float)
    if min(len(forward), len(backward)) < LEAST_FRAMES - 1 or backward.shape[1] != forward.shape[1]:
        return f"{len(forward)} frames a pass are too few: take {LEAST_FRAMES} or more, both ways."
    passes = [tracked(forward), tracked(backward)]
    for found in passes:
        if isinstance(found, str):
            return found
    peaks = [np.full(forward.shape[1], np.nan) for _ in passes]
    for values, found in zip(peaks, passes, strict=True):
        # Without the gate of the coarse line noise passes for play.
        gated = found.places[found.near]
        values[gated] = found.peaks[gated]
    apart = peaks[0] - peaks[1]
    apart = apart[np.isfinite(apart)]
    if len(apart) < 2 * WINDOW_ROWS:
        return "Too few rows are sharp in both passes: more detail, or a longer way."
    # By the standard deviation, not the median of deviations: parabolas through whole frames lean toward them, so that
    # the differences lie in two heaps, and a narrow gate would keep the larger one alone.
    kept, spread = apart, float(apart.std())
    for _ in range(3):
        kept = apart[np.abs(apart - kept.mean()) <= REJECT_SD * spread + 1e-9]
        spread = float(kept.std())
    # Neighbouring rows share a window, and each pass has its own jitter of the screw.
    witnesses = max(len(kept) / WINDOW_ROWS, 1.0)
    doubt = 2 * spread / math.sqrt(witnesses)
    play = abs(float(kept.mean())) * step
    return Backlash(play, doubt * step, play > 2 * doubt * step, len(kept))
