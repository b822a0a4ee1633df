"""How much of a texture's fine detail two frames share: noise, which they do not share, falls out by itself.

The mean of Re(F1 F2*) over a ring of frequencies, over tiles of both frames. The imaginary part has the same spread
and no signal, so it says how far the mean can be believed. See docs/derivations/trials.md.
"""

from typing import NamedTuple

import numpy as np

from just_plane.core.domain import positive
from just_plane.core.errors import OutOfDomainError
from just_plane.core.peaks import peak_offset

LOW, HIGH = 0.75, 1.33
"""The ring of frequencies, times the one asked for."""
TILE = 256
MOST_TILES = 64
MIDDLE = 0.8
"""Share of the frame, each way, that is looked at: corners of a lens are another trial."""
HANN_BANDWIDTH = 2.25
"""Cells of a spectrum under this window that say the same thing, both ways together."""


class Shared(NamedTuple):
    """What two frames share in a ring of frequencies."""

    energy: float
    """Mean of Re(F1 F2*), relative; its root is contrast times the texture's own."""
    spread: float
    """Standard deviation of that mean from noise alone."""
    shift: tuple
    """Of the second frame from the first, px right and down."""
    noise: float
    """Standard deviation of one pixel's noise, as a share of the mean."""
    rows: np.ndarray
    """(R,) energy of each row of tiles, from the top."""


def shared_detail(first, second, frequency):
    """Compare two frames of the same texture.

    Parameters
    ----------
    first, second : (H, W) array   Linear light.
    frequency : float              Cycles per px, > 0, < 0.375.

    Returns
    -------
    Shared

    Raises
    ------
    OutOfDomainError               Shapes differ, or the frequency is past what pixels, or a tile, holds.
    """
    positive("frequency", frequency, "cycles/px")
    if first.shape != second.shape or min(first.shape) < 32:
        raise OutOfDomainError(
            "frames.shape",
            quantity="frames",
            value=second.shape,
            message=f"Both frames must be of one size, at least 32 px; got {first.shape} and {second.shape}.",
        )
    if frequency * HIGH > 0.5:
        raise OutOfDomainError(
            "frequency.too_fine",
            quantity="frequency",
            value=frequency,
            message=f"{frequency:.3f} cycles a pixel and a third more is finer than pixels hold (0.5).",
            remedy="Ask for coarser detail.",
        )
    size = min(TILE, 1 << (min(first.shape).bit_length() - 2))
    ring = _ring(size, frequency)
    if not ring.any():
        raise OutOfDomainError(
            "frequency.too_coarse",
            quantity="frequency",
            value=frequency,
            message=f"Detail of {1 / frequency:.4g} px is wider than the {size} px that are compared at a time.",
            remedy="Ask for finer detail: is what counts as sharp given in millimetres on the sensor?",
        )
    tops, lefts = _places(first.shape, size)
    window = np.outer(*(np.hanning(size + 2)[1:-1],) * 2).astype(np.float32)
    one, two = (_tiles(frame, tops, lefts, size, window) for frame in (first, second))
    cross = one * np.conj(two)
    shift, ramp = _shift(cross.sum(axis=(0, 1)), size)
    cross *= ramp
    # What bends over a tile, as light that falls off, leaks below the ring and is not asked.
    real, imaginary = cross.real[..., ring], cross.imag[..., ring]
    scale = float(np.square(window).sum())
    count = imaginary.size / HANN_BANDWIDTH
    own = 0.5 * (np.square(np.abs(one[..., ring])).mean() + np.square(np.abs(two[..., ring])).mean())
    return Shared(
        float(real.mean()) / scale,
        float(imaginary.std()) / np.sqrt(max(count, 1.0)) / scale,
        shift,
        float(np.sqrt(max(own - real.mean(), 0.0) / scale)),
        real.mean(axis=(1, 2)) / scale,
    )


def _places(shape, size):
    """Tops and lefts of tiles, half over each other where there is room, over the middle of the frame."""
    starts = []
    for side in shape:
        room = max(int(side * MIDDLE), min(size, side))
        begin = (side - room) // 2
        count = max(1, min(round(2 * room / size) - 1, int(np.sqrt(MOST_TILES))))
        starts.append(np.unique(np.linspace(begin, begin + room - size, count).astype(int)))
    return starts


def _tiles(frame, tops, lefts, size, window):
    """(R, C, size, size/2 + 1) spectra of the tiles of a frame over its mean."""
    from scipy import fft  # late: SciPy takes long to import

    mean = float(frame.mean()) or 1.0
    cut = np.empty((len(tops), len(lefts), size, size), dtype=np.float32)
    for row, top in enumerate(tops):
        for column, left in enumerate(lefts):
            tile = frame[top : top + size, left : left + size].astype(np.float32) / np.float32(mean)
            cut[row, column] = (tile - tile.mean()) * window
    return fft.rfft2(cut)


def _ring(size, frequency):
    radius = np.hypot(np.fft.fftfreq(size)[:, np.newaxis], np.fft.rfftfreq(size)[np.newaxis, :])
    return (radius >= LOW * frequency) & (radius <= HIGH * frequency)


def _shift(cross, size):
    """Where the second frame lies by phase, and the ramp that takes it out."""
    radius = np.hypot(np.fft.fftfreq(size)[:, np.newaxis], np.fft.rfftfreq(size)[np.newaxis, :])
    weighted = cross / np.maximum(np.sqrt(np.abs(cross)), 1e-12) * np.exp(-((radius / 0.2) ** 2))
    peak = np.fft.irfft2(weighted, s=(size, size))
    row, column = np.unravel_index(int(np.argmax(peak)), peak.shape)
    beside = np.array([-1, 0, 1])
    down = row + peak_offset(peak[(row + beside) % size, column], 1)
    right = column + peak_offset(peak[row, (column + beside) % size], 1)
    down, right = ((value + size / 2) % size - size / 2 for value in (down, right))
    fy, fx = np.fft.fftfreq(size)[:, np.newaxis], np.fft.rfftfreq(size)[np.newaxis, :]
    ramp = np.exp(2j * np.pi * (fy * down + fx * right)).astype(np.complex64)
    # The peak of F1 F2* lies at minus the shift of the second frame.
    return (-float(right), -float(down)), ramp
