"""Absolute contrast from a slanted edge: each row crosses it a little farther on, so that it is sampled finely."""

from typing import NamedTuple

import numpy as np
from numpy.polynomial import Polynomial

LEAST_ANGLE, MOST_ANGLE = np.radians(2.0), np.radians(20.0)
REJECT_SD = 3.5
BIN_PX = 0.25
WINDOW_SD = 4.5
"""Half width of the window over the line spread, in its own standard deviations."""
LEAST_WINDOW_PX = 4.0
LEAST_STEP_NOISE = 10.0
"""Noises that the edge must be high."""
LEAST_ROWS = 20
MOST_BENT, LEAST_BENT_ROWS = 3, 100
"""Degree of the curve that an edge follows: a lens bends lines by no more, and over fewer rows by nothing."""
BLOCKS = 10
"""Of rows, in which it is looked whether the edge lies on its curve."""
MOST_CROOKED_PX = 0.3
"""Past noise, root mean square: of what lies at 0.2 cycles a px this much spread takes 7 %."""
OVERSHOOT = 0.06
"""Of the step, from which it was sharpened in the camera."""


class Edge(NamedTuple):
    """A slanted edge as it was read."""

    frequencies: np.ndarray
    """Cycles per px."""
    contrast: np.ndarray
    """At those, absolute: 1 at none."""
    angle: float
    """From the pixel rows or columns, radians."""
    sharpened: bool

    def at(self, frequency):
        """Contrast at a frequency, cycles per px: float."""
        return float(np.interp(frequency, self.frequencies, self.contrast))


def read_edge(picture):
    """Read a slanted edge.

    Parameters
    ----------
    picture : (H, W) array   Linear light; one edge across it, 2 to 20 degrees off its rows or columns.

    Returns
    -------
    Edge, or str             Why it cannot be read, as a sentence.
    """
    picture = np.asarray(picture, dtype=float)
    down, across = (np.abs(np.diff(_soft(picture, axis), axis=axis)).sum() for axis in (0, 1))
    if down > across:
        picture = picture.T
    light = np.median(picture[:, -picture.shape[1] // 8 :]) - np.median(picture[:, : picture.shape[1] // 8])
    noise = float(np.median(np.abs(np.diff(picture[:, : max(picture.shape[1] // 8, 4)], axis=1)))) / 0.954
    if abs(light) < LEAST_STEP_NOISE * noise or light == 0:
        return "There is no edge that stands out of noise."
    curve = _curve(picture, np.sign(light))
    if curve is None:
        return "The edge is not straight, or there is more than one."
    angle = abs(np.arctan(curve.deriv()(len(picture) / 2)))
    if not LEAST_ANGLE <= angle <= MOST_ANGLE:
        return f"The edge stands {np.degrees(angle):.1f}° off the pixels; between 2 and 20° it can be read."
    return _spread(picture, curve, float(angle), np.sign(light))


def _soft(picture, axis):
    """Means of eight beside each other, so that noise does not tell the direction."""
    kernel = np.ones(8) / 8
    return np.apply_along_axis(lambda row: np.convolve(row, kernel, "valid"), 1 - axis, picture)


def _curve(picture, sign):
    """Where the edge crosses each row, px: a line first; then, closer to it, a curve, as lenses bend lines. Or None."""
    slope, offset = np.diff(picture, axis=1) * sign, 0.5
    # Coarse first, as noise over a whole row outweighs the edge; then around it.
    kernel = np.ones(7)
    coarse = np.array([np.convolve(row, kernel, "same").argmax() for row in np.clip(slope, 0, None)], dtype=float)
    rows = np.arange(len(coarse))
    curve = _robust(rows, coarse, 1)
    bent = MOST_BENT if len(rows) >= LEAST_BENT_ROWS else 1
    for turn, degree in enumerate((1, 1, bent, bent)):
        if curve is None:
            return None
        half = max(0.06 * picture.shape[1] if turn < 2 else 4 * _seen_width(picture, curve, sign), 8.0)
        columns, there = _band(curve(rows), half, slope.shape[1], offset)
        weight = np.where(there, slope[rows[:, np.newaxis], columns], 0.0)
        total = weight.sum(axis=1)
        good = total > 0.3 * np.median(total)
        if good.sum() < LEAST_ROWS:
            return None
        centre = (weight * (columns + offset)).sum(axis=1)[good] / total[good]
        curve = _robust(rows[good], centre, degree)
    return None if curve is None or _crooked(centre - curve(rows[good])) else curve


def _band(places, half, count, offset=0.0):
    """Columns (H, B) around the places (H,), and which lie within ``half`` of them and in the picture."""
    beside = np.arange(-int(np.ceil(half)) - 1, int(np.ceil(half)) + 2)
    columns = np.rint(places - offset).astype(int)[:, np.newaxis] + beside
    there = (columns >= 0) & (columns < count) & (np.abs(columns + offset - places[:, np.newaxis]) < half)
    return np.clip(columns, 0, count - 1), there


def _crooked(off):
    """Whether rows lie beside the curve, px each, block by block, by more than their noise makes them."""
    blocks = np.array_split(off, BLOCKS)
    beside = np.array([np.median(block) for block in blocks])
    # Of a median the variance is pi/2 times that of a mean; neighbours differ by noise alone.
    noise = np.pi / 2 * np.median(np.square(np.diff(off))) / 0.91 / len(off) * BLOCKS
    # And the mean square of so many scatters by sqrt(2/N) of itself: three times that is no crook yet.
    return np.mean(np.square(beside)) > MOST_CROOKED_PX**2 + (1 + 3 * np.sqrt(2 / BLOCKS)) * noise


def _robust(rows, places, degree):
    keep = np.ones(len(rows), dtype=bool)
    curve = None
    for _ in range(8):
        if keep.sum() < LEAST_ROWS:
            return None
        curve = Polynomial.fit(rows[keep], places[keep], degree)
        off = places - curve(rows)
        spread = 1.483 * np.median(np.abs(off[keep])) + 1e-9
        now = np.abs(off) < max(REJECT_SD * spread, 0.05)
        if np.array_equal(now, keep):
            break
        keep = now
    return curve if keep.mean() > 0.4 else None


def _profile(picture, curve):
    """Light over the distance from the edge, along its normal, in bins: (B,)."""
    rows = np.arange(len(picture))
    places, slants = curve(rows), np.arctan(curve.deriv()(rows))
    reach = min(0.45 * picture.shape[1], float(np.median(np.minimum(places, picture.shape[1] - places))))
    reach = max(min(reach, 60.0), 12.0)
    columns, there = _band(places, reach / float(np.cos(slants).min()), picture.shape[1])
    away = (columns - places[:, np.newaxis]) * np.cos(slants)[:, np.newaxis]
    inside = there & (np.abs(away) < reach)
    index = np.floor((away[inside] + reach) / BIN_PX).astype(int)
    count = np.bincount(index, minlength=int(2 * reach / BIN_PX))
    total = np.bincount(index, picture[rows[:, np.newaxis], columns][inside], minlength=len(count))
    have = count > 0
    at = np.arange(len(count))
    return np.interp(at, at[have], total[have] / count[have])


def _line_spread(profile, sign):
    """Its slope, and where each step of it lies, px from the edge: (B - 1,), (B - 1,)."""
    line = np.diff(profile) * sign
    return line, (np.arange(len(line)) - (len(line) - 1) / 2) * BIN_PX


def _seen_width(picture, curve, sign):
    """Standard deviation of the line spread, px."""
    return _width(*_line_spread(_profile(picture, curve), sign))[1]


def _spread(picture, curve, angle, sign):
    profile = _profile(picture, curve)
    line, where = _line_spread(profile, sign)
    middle, deviation = _width(line, where)
    half = max(WINDOW_SD * deviation, LEAST_WINDOW_PX)
    window = np.where(np.abs(where - middle) < half, 0.5 * (1 + np.cos(np.pi * (where - middle) / half)), 0.0)
    # Flat over the spread itself: only its feet are faded.
    window = np.minimum(2 * window, 1.0)
    taken = line * window
    frequencies = np.linspace(0, 0.6, 301)
    phase = np.exp(-2j * np.pi * frequencies[:, np.newaxis] * (where - middle))
    # Over the whole step: the feet of the spread that the window cuts off still count as light.
    feet = max(int(2.0 / BIN_PX), 4)
    bright, dark = float(np.mean(profile[-feet:])), float(np.mean(profile[:feet]))
    step = abs(bright - dark)
    contrast = np.abs(phase @ taken) / max(step, 1e-12) / np.sinc(frequencies * BIN_PX) ** 2
    high, low = max(bright, dark), min(bright, dark)
    soft = np.convolve(profile, np.ones(4) / 4, "valid")
    # Sharpening in a camera leaves a rim on either side: one alone may be the light.
    sharpened = min(float(soft.max()) - high, low - float(soft.min())) > OVERSHOOT * step
    return Edge(frequencies, contrast, angle, sharpened)


def _width(line, where):
    """Middle and standard deviation of the line spread, robustly: from around its top."""
    middle = where[int(np.argmax(np.convolve(line, np.ones(5) / 5, "same")))]
    deviation = 4.0
    for _ in range(6):
        near = np.abs(where - middle) < max(3.0 * deviation, 2.0)
        weight = np.where(near, line, 0.0)
        total = weight.sum()
        if total <= 0:
            break
        middle = float((weight * where).sum() / total)
        deviation = float(np.sqrt(max((weight * (where - middle) ** 2).sum() / total, 0.04)))
    return middle, deviation
