"""Where a frame repeats: an evened frame, its power spectrum, and the frequencies that stand out in it."""

import cv2
import numpy as np

from just_plane.core.peaks import peak_offset

LEAST_SPACING = 4.0
"""Pixels, of the frame as searched."""
SQUARE = 256
MOST_BLOCK, SAMPLES_A_TURN = 4, 8
"""Of a wave whose frequency is sharpened: means over so many pixels at most, and so many of them a turn at least."""


BAND_ROWS = 256


def averaged(frame, shrink):
    """A frame averaged down over squares ``shrink`` pixels wide (int): (h // shrink, w // shrink) float32 array."""
    if shrink == 1:
        return np.asarray(frame, dtype=np.float32)
    height, width = (side // shrink for side in frame.shape)
    small = np.empty((height, width), dtype=np.float32)
    # Band by band, so that a large picture of eight bits is never all there in floats.
    for start in range(0, height, BAND_ROWS):
        end = min(start + BAND_ROWS, height)
        band = frame[start * shrink : end * shrink, : width * shrink].astype(np.float32)
        small[start:end] = cv2.resize(band, (width, end - start), interpolation=cv2.INTER_AREA)
    return small


def evened(frame):
    """The frame ((h, w) float32) with slow changes of light taken out and its contrast made alike everywhere."""
    radius = max(min(frame.shape) // 12, 8)
    plain = frame - _box_mean(frame, radius)
    spread = np.sqrt(np.maximum(_box_mean(plain * plain, radius), 0))
    floor = 0.25 * float(spread.mean()) + 1e-6 * float(np.abs(frame).max() + 1)
    spread += floor
    plain /= spread
    return np.clip(plain, -3, 3, out=plain)


def _box_mean(frame, radius):
    """Mean over a square of 2 radius + 1, the edge repeated."""
    side = 2 * radius + 1
    return cv2.blur(frame, (side, side), borderType=cv2.BORDER_REPLICATE)


def power_spectrum(flat):
    """Power spectrum of a frame averaged over overlapping squares, zero frequency in the middle: (n, n) array.

    Parameters
    ----------
    flat : (h, w) float32 array

    Returns
    -------
    (n, n) array   Squared amplitudes; n is 256, or the frame's shorter side.
    """
    from scipy.fft import rfft2  # late: SciPy takes long to import

    side = min(SQUARE, *flat.shape)
    window = np.hanning(side)[:, None] * np.hanning(side)[None, :]
    step = max(side // 2, 1)
    half = np.zeros((side, side // 2 + 1))
    for top in _starts(flat.shape[0], side, step):
        row = [flat[top : top + side, left : left + side] for left in _starts(flat.shape[1], side, step)]
        spectra = rfft2(np.array(row) * window.astype(np.float32), axes=(1, 2))
        half += np.square(np.abs(spectra)).sum(axis=0)
    # The frame is real: the other half is the same, seen from the other side.
    rows = -np.arange(side) % side
    columns = np.arange(side // 2 + 1, side)
    whole = np.concatenate([half, half[rows][:, side - columns]], axis=1)
    return np.fft.fftshift(whole)


def _starts(length, side, step):
    return sorted({*range(0, length - side + 1, step), length - side})


def candidates(power, most, in_one_direction=3):
    """Frequencies (fx, fy), cycles a pixel, at the peaks of the half plane that stand out most from around them.

    A peak must stand above what lies around it on every side, and only a few are taken in one direction: one long edge
    draws a streak through the spectrum that would fill the list.

    Parameters
    ----------
    power : (n, n) array        From :func:`power_spectrum`.
    most : int                  Frequencies wanted.
    in_one_direction : int      Of them along one line through the middle, at most.

    Returns
    -------
    list of (float, float)      Cycles a pixel, the one that stands out most first.
    """
    side = power.shape[0]
    middle = side // 2
    y, x = np.mgrid[:side, :side] - middle
    distance = np.maximum(np.hypot(x, y), 1e-9)
    level = np.log(power + 1e-6 * power.max() + 1e-30)
    turns = np.linspace(0, np.pi, 8, endpoint=False)
    steps = [(round(5 * np.sin(turn)), round(5 * np.cos(turn))) for turn in turns]
    around = np.stack(
        [np.maximum(np.roll(level, (dy, dx), (0, 1)), np.roll(level, (-dy, -dx), (0, 1))) for dy, dx in steps]
    )
    standing_out = level - np.sort(around, axis=0)[-2] + 0.15 * level
    usable = (distance >= 3) & (distance <= side / LEAST_SPACING) & ((x > 0) | ((x == 0) & (y > 0)))
    standing_out = np.where(usable, standing_out, -np.inf)
    direction = np.arctan2(y, x)
    found: list[tuple[float, float]] = []
    taken: list[float] = []
    while len(found) < most:
        at = np.unravel_index(int(np.argmax(standing_out)), standing_out.shape)
        if not np.isfinite(standing_out[at]):
            break
        fy, fx = _peak(power, at)
        found.append(((fx - middle) / side, (fy - middle) / side))
        standing_out[max(at[0] - 3, 0) : at[0] + 4, max(at[1] - 3, 0) : at[1] + 4] = -np.inf
        taken.append(float(direction[at]))
        if sum(abs(np.sin(other - taken[-1])) < 0.05 for other in taken) == in_one_direction:
            standing_out[np.abs(np.sin(direction - taken[-1])) < np.maximum(0.05, 2.5 / distance)] = -np.inf
    return found


def _peak(power, at):
    """Row and column of a peak between samples: a parabola through the logarithm each way."""
    lines = [np.log(np.take(power, at[1 - axis], axis=1 - axis) + 1e-12) for axis in (0, 1)]
    return [index + peak_offset(line, index) for index, line in zip(at, lines, strict=True)]


def sharpened(flat, frequency):
    """The frequency at which the whole frame is strongest, near the one asked: a peak of squares is coarse.

    Parameters
    ----------
    flat : (h, w) float32 array
    frequency : (float, float)     (fx, fy), cycles a pixel.

    Returns
    -------
    (float, float)                 Cycles a pixel.
    """
    fx, fy = frequency
    reach = 0.7 / min(SQUARE, *flat.shape)
    # What repeats widely is as well told apart in means over a few pixels.
    block = int(np.clip(1 / (SAMPLES_A_TURN * max(abs(fx), abs(fy), 1e-9)), 1, MOST_BLOCK))
    flat = averaged(flat, block)
    height, width = flat.shape
    for _ in range(2):
        xs, ys = fx + np.linspace(-reach, reach, 21), fy + np.linspace(-reach, reach, 21)
        turns = 2 * np.pi * block * np.arange(width)[:, None] * xs
        # Cosines and sines apart: the frame is real, and as complex numbers it would be copied for every product.
        waves = flat @ np.hstack([np.cos(turns), np.sin(turns)]).astype(np.float32)
        rows = waves[:, : len(xs)] - 1j * waves[:, len(xs) :]
        strength = np.abs(np.exp(-2j * np.pi * block * ys[:, None] * np.arange(height)) @ rows)
        row, column = np.unravel_index(int(np.argmax(strength)), strength.shape)
        fx, fy = float(xs[column]), float(ys[row])
        reach /= 8
    return fx, fy
