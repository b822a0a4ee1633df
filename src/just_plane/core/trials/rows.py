"""Rows of pixels tracked through a stack: the frame at which each is sharpest, and the line that they follow.

Coarse: the frame, to a whole one, at which each row is sharpest, and a line through those. Fine: a parabola in the
logarithm over the frames around it. Each row is compared with itself, so that the texture falls out.
"""

import math
from typing import NamedTuple

import numpy as np

ACROSS_PX = 4
WINDOW_ROWS = 16
AROUND_FRAMES = 3
AROUND_DEPTH = 0.5
"""Of the frames over which a row stays over half its top: where steps are small, more of them tell the top."""
LEAST_COARSE = 0.4
"""Of the rows that must lie on the coarse line."""
STRONG = 0.15
"""Of the usual top, under which a row has no detail to tell by."""
LEAST_SHARE = 0.2
"""Of the top, that a frame must have to be asked for where the top lies."""
DISAGREE_FRAMES = 1.5
TOO_SMALL_BY = 3.0
"""The line's own standard error is so many times too small: neighbouring rows share a window."""
LEAST_FRAMES = 8


class Tracked(NamedTuple):
    """Rows through a stack."""

    peaks: np.ndarray
    """(H,) frame at which each row is sharpest; NaN where that cannot be told."""
    wanted: np.ndarray
    """(H,) frame at which the coarse line has it."""
    places: np.ndarray
    """Rows that come into focus well inside the stack."""
    near: np.ndarray
    """Of those, which agree with the line."""
    rows_per_frame: float
    """By the coarse line, px."""
    doubt: float
    """Of that, px."""
    depth: float
    """Frames over which a row stays over half its top."""

    @property
    def agree(self):
        """Share of the rows that agree with the line: float."""
        return float(self.near.mean())


def row_energies(picture):
    """Fine detail of each row of pixels, and of each column.

    Parameters
    ----------
    picture : (H, W) array   Linear light.

    Returns
    -------
    ((H,) array, (W,) array)
    """
    light = np.asarray(picture, dtype=np.float32) / max(float(np.mean(picture)), 1e-9)
    across = np.square(light[:, 2 * ACROSS_PX :] - light[:, : -2 * ACROSS_PX]).mean(axis=1)
    down = np.square(light[2 * ACROSS_PX :] - light[: -2 * ACROSS_PX]).mean(axis=0)
    return across, down


def tracked(energies):
    """Track rows through a stack.

    Parameters
    ----------
    energies : (K, H) array   Of rows, by frame, as :func:`row_energies` gives them.

    Returns
    -------
    Tracked, or str           Why they cannot be tracked, as a sentence.
    """
    from scipy.ndimage import uniform_filter1d  # late: SciPy takes long to import

    energy = uniform_filter1d(np.asarray(energies, dtype=float), WINDOW_ROWS, axis=1, mode="nearest")
    count, rows = energy.shape
    if count < LEAST_FRAMES:
        return f"{count} frames are too few: take {LEAST_FRAMES} or more."
    # What a row has however far it is out of focus, noise above all, is taken off.
    energy = np.maximum(energy - np.percentile(energy, 10, axis=0), 0.0)
    top, best = energy.max(axis=0), energy.argmax(axis=0)
    strong = top > STRONG * np.median(np.sort(top)[rows // 2 :])
    within = strong & (best >= 1) & (best <= count - 2)
    coarse = _coarse(best, within) if strong.sum() >= 4 * WINDOW_ROWS else None
    if coarse is None:
        return "No sharp place goes along the surface from frame to frame: is it slanted, printed, and does focus move?"
    slope, offset, doubt = coarse
    share = np.where(strong, energy / np.maximum(top, 1e-12), 0.0)
    depth = float(np.median((share > 0.5).sum(axis=0)[within]))
    around = max(AROUND_FRAMES, round(AROUND_DEPTH * depth))
    peaks = _peaks(energy, within, around)
    # Chosen by where the coarse line puts them, not by what was found: that would bend the line at its ends.
    edge = min(around, (count - 1) / 4)
    wanted = (np.arange(rows) - offset) / slope
    places = np.flatnonzero(np.isfinite(peaks) & (wanted > edge) & (wanted < count - 1 - edge))
    if len(places) < 2 * WINDOW_ROWS:
        return "Too little of the surface comes into focus between the first frame and the last."
    near = np.abs(peaks[places] - wanted[places]) < DISAGREE_FRAMES
    return Tracked(peaks, wanted, places, near, slope, doubt, depth)


def _coarse(best, within):
    """A line of rows over frames through the frame at which each row is sharpest, to a whole one; some may lie."""
    rows = np.flatnonzero(within)
    if len(rows) < 2 * WINDOW_ROWS:
        return None
    frames = best[rows].astype(float)
    apart = max(len(rows) // 3, 1)
    rise = (frames[apart:] - frames[:-apart]) / (rows[apart:] - rows[:-apart])
    per_row = float(np.median(rise))
    if per_row == 0:
        return None
    start = float(np.median(frames - per_row * rows))
    off = frames - (per_row * rows + start)
    near = np.abs(off) < DISAGREE_FRAMES + 1
    if near.mean() < LEAST_COARSE:
        return None
    per_row, error = robust_line(rows[near].astype(float), frames[near])
    if per_row == 0 or error * 3 > abs(per_row):
        return None
    start = float(np.median(frames[near] - per_row * rows[near]))
    doubt = TOO_SMALL_BY * math.sqrt(WINDOW_ROWS) * error / per_row**2
    return 1 / per_row, -start / per_row, doubt


def _peaks(energy, within, around):
    """Frame at which each row is sharpest: a parabola in the logarithm over frames near the top."""
    count, rows = energy.shape
    answer = np.full(rows, np.nan)
    best = energy.argmax(axis=0)
    for row in np.flatnonzero(within):
        at = best[row]
        half = min(around, at, count - 1 - at)
        frames = np.arange(at - half, at + half + 1)
        values = energy[frames, row]
        use = values > LEAST_SHARE * energy[at, row]
        if use.sum() < 3:
            continue
        bend, tilt, _ = np.polyfit(frames[use] - at, np.log(values[use]), 2, w=np.sqrt(values[use]))
        if bend < 0 and abs(tilt / bend) / 2 <= around:
            answer[row] = at - tilt / (2 * bend)
    return answer


def robust_line(x, y):
    """Slope of a line, outliers dropped at three standard deviations.

    Parameters
    ----------
    x, y : (N,) array

    Returns
    -------
    (float, float)   Slope and its standard error.
    """
    keep = np.ones(len(x), dtype=bool)
    slope, offset = np.polyfit(x, y, 1)
    for _ in range(12):
        off = y - (slope * x + offset)
        spread = 1.483 * np.median(np.abs(off[keep] - np.median(off[keep]))) + 1e-12
        now = np.abs(off - np.median(off[keep])) < 3 * spread
        if now.sum() < 3 or np.array_equal(now, keep):
            break
        keep = now
        slope, offset = np.polyfit(x[keep], y[keep], 1)
    off = (y - (slope * x + offset))[keep]
    across = x[keep] - x[keep].mean()
    error = math.sqrt(float(np.square(off).sum()) / max(len(off) - 2, 1) / max(float(np.square(across).sum()), 1e-12))
    return float(slope), error
