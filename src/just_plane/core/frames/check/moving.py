"""A part of the subject that moved between two frames: blocks of fine detail that fit better beside where they were."""

from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.bands import band, evened
from just_plane.core.frames.check.register import laid_on
from just_plane.core.frames.check.similarity import enlarged

WINDOWS_ACROSS = 22
WIDEST = 750
"""Px across; larger pictures are looked at smaller."""
FARTHEST = 5
"""Shifts tried, whole pixels of the half-size picture."""
SHIFTS = sorted(((dx, dy) for dy in range(-FARTHEST, FARTHEST + 1) for dx in range(-FARTHEST, FARTHEST + 1)), key=any)
"""dx, dy; the first is none at all."""
RESIDUAL, TAKEN_AWAY = 0.12, 0.5
"""Of the energy: what must be left over as laid; the share of it that a shift must take away."""
IN_FOCUS = 6.0
"""Times the frame's quietest twentieth: detail that both frames must hold there."""
ONE_WAY = 0.8
"""Length of the mean shift over the mean length: growing discs of highlights pull apart, a part that moved does not."""
CELLS = 8
"""Places in a window, each way, at which shifts are tried: between them what is left over hardly changes."""
LEAST_SHARE = 0.008
"""Of the frame."""


class Moved(NamedTuple):
    """A part that moved."""

    shift: tuple
    """dx, dy in px of the picture that is measured."""
    place: tuple
    """x, y of its middle, in px of the earlier frame."""
    share: float
    """Of the frame."""


def times_fewer(width):
    """How many times fewer pixels each way parts are looked for at.

    Parameters
    ----------
    width : int   Of the picture that is measured, px.

    Returns
    -------
    int           2, or as many as leave 750 px across.
    """
    return max(2, -(-width // WIDEST))


def half_band(grey, circle_px):
    """What of a frame is compared: fine detail at half the pixels, its strength divided out.

    Parameters
    ----------
    grey : (H, W) float32 array
    circle_px : float             Circle of confusion, px.

    Returns
    -------
    (h, w) float32 array, (h, w) float32 array   The detail; its energy as it is.
    """
    times = times_fewer(grey.shape[1])
    half = cv2.resize(grey, (grey.shape[1] // times, grey.shape[0] // times), interpolation=cv2.INTER_AREA)
    size = max(circle_px / 3 / times, 0.6)
    detail = band(half, size, 3 * size)
    return evened(detail, 8 * size), detail * detail / (cv2.blur(half, (9, 9)) + 0.01) ** 2


def moved_part(before, this, similarity, times=2):
    """Look for a part that moved.

    Parameters
    ----------
    before, this : tuple         As from :func:`half_band`, of neighbours.
    similarity : (2, 3) array    Places of ``before`` to places of ``this``, px of the picture that is measured.
    times : int                  As from :func:`times_fewer`.

    Returns
    -------
    Moved or None
    """
    half = enlarged(similarity, 1 / times)
    laid, inside = laid_on(this[0], half)
    size = (max(before[0].shape[1] // WINDOWS_ACROSS, 5) | 1,) * 2
    first = before[0]
    energy = cv2.boxFilter(first * first, -1, size) + cv2.boxFilter(laid * laid, -1, size) + 1e-9
    there = _left_over(first, laid, size) / energy
    within = cv2.erode(inside.astype(np.uint8), np.ones((3, 3), np.uint8), iterations=FARTHEST + 2) > 0
    sharp = within & _sharp(before[1], size) & _sharp(laid_on(this[1], half)[0], size)
    suspect = (there > RESIDUAL) & sharp
    if suspect.mean() < LEAST_SHARE:
        return None
    cells = _cells(suspect, size[0])
    best, shift = _best_shifts(first, laid, size[0], cells)
    # A shift that explains it must explain much of it.
    part = suspect[cells] & shift.any(axis=-1) & (best / energy[cells] < (1 - TAKEN_AWAY) * there[cells])
    return _largest_one_way(part, shift, cells, suspect.size, times)


def _cells(suspect, size):
    """Around the suspects, in both directions: places at which shifts are tried, a few in each window."""
    rows, columns = (np.flatnonzero(suspect.any(axis=axis)) for axis in (1, 0))
    return tuple(
        slice(max(int(there[0]) - size // 2 - 1, 0), min(int(there[-1]) + size // 2 + 2, long), max(size // CELLS, 1))
        for there, long in zip((rows, columns), suspect.shape, strict=True)
    )


def _best_shifts(first, laid, size, cells):
    """What is left over by the shift that leaves least, (r, c), and that shift, (r, c, 2) dx, dy; at every cell."""
    around = tuple(slice(cell.start, cell.stop) for cell in cells)
    here, border = first[around], 4 * (FARTHEST,)
    beside = cv2.copyMakeBorder(laid, *border, cv2.BORDER_WRAP)
    best = _left_in_cells(here, laid[around], size, cells)
    which = np.zeros(best.shape, np.int16)
    for index, (dx, dy) in enumerate(SHIFTS):
        rows, columns = (_moved_on(span, FARTHEST + by) for span, by in zip(around, (dy, dx), strict=True))
        left = _left_in_cells(here, beside[rows, columns], size, cells)
        # As far as it is better: the number of the shift is higher than any before it.
        np.maximum(which, (left < best) * np.int16(index), out=which)
        np.minimum(best, left, out=best)
    return best, np.array(SHIFTS, np.float32)[which]


def _moved_on(span, by):
    return slice(span.start + by, span.stop + by)


def _left_over(first, second, size):
    return cv2.sqrBoxFilter(first - second, cv2.CV_32F, size)


def _left_in_cells(first, second, size, cells):
    """The same at the cells alone: a running sum over all of it is the quicker way to a few windows.

    In single precision, which tells a window's sum to a thousandth.
    """
    difference = cv2.subtract(first, second)
    cv2.multiply(difference, difference, dst=difference)
    sums = cv2.integral(cv2.copyMakeBorder(difference, *4 * (size // 2,), cv2.BORDER_REFLECT_101), sdepth=cv2.CV_32F)
    (rows, columns), (high, wide) = cells, first.shape
    strips = sums[size : size + high : rows.step] - sums[: high : rows.step]
    return (strips[:, size : size + wide : columns.step] - strips[:, : wide : columns.step]) / size**2


def _sharp(energy, size):
    local = cv2.boxFilter(energy, -1, size)
    return local > IN_FOCUS * np.percentile(local, 5)


def _largest_one_way(part, shift, cells, frame, times):
    (rows, columns), one = cells, cells[0].step * cells[1].step / frame
    count, labels, stats, centres = cv2.connectedComponentsWithStats(part.astype(np.uint8), connectivity=8)
    for index in sorted(range(1, count), key=lambda i: -stats[i, cv2.CC_STAT_AREA]):
        share = stats[index, cv2.CC_STAT_AREA] * one
        if share < LEAST_SHARE:
            return None
        shifts = shift[labels == index]
        mean = shifts.mean(axis=0)
        if np.hypot(*mean) > ONE_WAY * np.hypot(shifts[:, 0], shifts[:, 1]).mean():
            x, y = (
                times * (cell.start + cell.step * at) + (times - 1) / 2
                for cell, at in zip((columns, rows), centres[index], strict=True)
            )
            return Moved((times * float(mean[0]), times * float(mean[1])), (float(x), float(y)), float(share))
    return None
