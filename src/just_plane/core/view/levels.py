"""A texture at a ladder of blurs, each made when first needed and kept; and the mixture that a frame takes of them.

Large blurs leave no detail that fewer pixels would not hold: from eight pixels they are worked out at half the pixels
each way, from twenty at a quarter.
"""

import math
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from just_plane.core.contrast import transfer

SMALLEST = 1.0
"""The smallest blur, px, that is worked out besides none at all."""
LADDER = (0.0, *(SMALLEST * 2 ** (step / 2) for step in range(15)))
"""Blurs, px, that a view keeps: a step of the ladder is the square root of two."""
HALF_FROM, QUARTER_FROM = 8.0, 20.0
"""px of blur from which half and a quarter of the pixels each way will do."""
TABLE = 4096
"""Entries of the transfer function between no detail and the finest a picture holds."""
MIXES = 8192
"""Blurs told apart when levels are mixed."""


class Spectrum(NamedTuple):
    """One plane of a picture, bordered by its mirror image and transformed: what no change of stop touches."""

    values: np.ndarray
    """Of the real transform."""
    padded: tuple
    """(rows, columns) with the border; multiples of 4."""
    shape: tuple
    margin: int
    """px before the first row and column."""


def spectrum_of(plane, reach):
    """Transform one plane.

    Parameters
    ----------
    plane : (H, W) array   Linear light.
    reach : float          The largest blur that will be asked of it, px, >= 0.

    Returns
    -------
    Spectrum
    """
    from scipy import fft  # late: SciPy takes long to import

    margin = min(math.ceil(reach / 2) + 4, *(size // 2 - 1 for size in plane.shape))
    padded = tuple(_fast_size(size + 2 * margin) for size in plane.shape)
    after = [min(size - side - margin, side - 1) for size, side in zip(padded, plane.shape, strict=True)]
    bordered = np.pad(plane.astype(np.float32, copy=False), [(margin, rest) for rest in after], "reflect")
    return Spectrum(fft.rfft2(bordered, s=padded), padded, plane.shape, margin)


class Levels:
    """One plane seen through one stop, at every blur that was asked for so far."""

    def __init__(self, spectrum, diffraction):
        """
        Parameters
        ----------
        spectrum : Spectrum
        diffraction : float   Wavelength x N_e in pixels, > 0.
        """
        self.spectrum = spectrum
        self.diffraction = diffraction
        self._made: dict = {}

    def at(self, blur):
        """The bordered plane with one blur everywhere.

        Parameters
        ----------
        blur : float   px, >= 0.

        Returns
        -------
        (rows, columns) array   At the pixels that :func:`coarseness` says.
        """
        made = self._made.get(blur)
        if made is None:
            made = self._made[blur] = self._seen(blur)
        return made

    def _seen(self, blur):
        from scipy import fft  # late: SciPy takes long to import

        coarser, padded = coarseness(blur), self.spectrum.padded
        transferred = np.take(_transfer_table(self.diffraction, blur), _radial_index(padded, coarser))
        if coarser == 1:
            return fft.irfft2(self.spectrum.values * transferred, s=padded)
        rows, columns = padded[0] // coarser, padded[1] // coarser
        top, across = rows // 2, columns // 2 + 1
        low = np.concatenate([self.spectrum.values[:top, :across], self.spectrum.values[top - rows :, :across]])
        return fft.irfft2(low * transferred, s=(rows, columns)) / np.float32(coarser**2)

    def mixed(self, blur, ladder=LADDER, neighbours=4):
        """What a frame shows whose every place has its own blur.

        Parameters
        ----------
        blur : (H, W) array   px, >= 0; what is past the ladder's end is taken as its end.
        ladder : tuple        Blurs to mix, px, rising.
        neighbours : int      4: two parabolas in the square of the blur; 2: a straight line, for what moves.

        Returns
        -------
        (H, W) float32 array
        """
        used = _needed(ladder, float(blur.min()), float(blur.max()))
        table, shape, margin = _mixing(used, neighbours), self.spectrum.shape, self.spectrum.margin
        seen = np.zeros(shape, dtype=np.float32)
        for coarser in (1, 2, 4):
            group = [index for index, level in enumerate(used) if coarseness(level) == coarser]
            if not group:
                continue
            if coarser == 1:
                places = _places(blur, used)
                for index in group:
                    part = self.at(used[index])[margin:, margin:][: shape[0], : shape[1]]
                    seen += np.take(table[index], places) * part
                continue
            places = _places(self._thinned(blur, coarser), used)
            rough = np.zeros(places.shape, dtype=np.float32)
            for index in group:
                rough += np.take(table[index], places) * self.at(used[index])
            seen += _interpolated(rough, coarser)[margin:, margin:][: shape[0], : shape[1]]
        return seen

    def _thinned(self, blur, coarser):
        """Blur at every second or fourth place of the bordered plane; it runs on straight into the border."""
        margin, padded = self.spectrum.margin, self.spectrum.padded
        border = [(margin, size - side - margin) for size, side in zip(padded, blur.shape, strict=True)]
        bordered = np.pad(blur, border, "reflect", reflect_type="odd")
        return np.maximum(bordered[::coarser, ::coarser], 0.0)


def coarseness(blur):
    """How many pixels each way one will do for.

    Parameters
    ----------
    blur : float   px.

    Returns
    -------
    int   1, 2 or 4.
    """
    return 1 if blur < HALF_FROM else 2 if blur < QUARTER_FROM else 4


def _needed(ladder, least, most):
    """The part of a ladder that blurs from least to most are mixed of: a step more at each end."""
    below = max(int(np.searchsorted(ladder, least, side="right")) - 2, 0)
    above = min(int(np.searchsorted(ladder, most, side="left")) + 2, len(ladder))
    return ladder[below:above]


def _places(blur, levels):
    """Entry of the mixing table for the blur (px) at every place."""
    scale = (MIXES - 1) / (levels[-1] or 1.0)
    return np.minimum(np.rint(blur * scale), MIXES - 1).astype(np.intp)


@lru_cache(maxsize=256)
def _mixing(levels, neighbours):
    """How much of each level a blur takes: (levels, MIXES)."""
    squares = np.square(np.array(levels))
    wanted = np.clip(np.square(np.linspace(0.0, levels[-1], MIXES)), squares[0], squares[-1])
    table, every = np.zeros((len(levels), MIXES), dtype=np.float32), np.arange(MIXES)
    if len(levels) == 1:
        return table + np.float32(1)
    below = np.clip(np.searchsorted(squares, wanted, side="right") - 1, 0, len(levels) - 2)
    share = (wanted - squares[below]) / (squares[below + 1] - squares[below])
    if len(levels) == 2 or neighbours == 2:
        table[below, every] = 1 - share
        table[below + 1, every] = share
        return table
    # One parabola round the level below and one round the level above, faded into each other: no seam in the picture.
    for middle, part in ((below, 1 - share), (below + 1, share)):
        middle = np.clip(middle, 1, len(levels) - 2)
        a, b, c = (squares[middle + step] for step in (-1, 0, 1))
        np.add.at(table, (middle - 1, every), part * (wanted - b) * (wanted - c) / ((a - b) * (a - c)))
        np.add.at(table, (middle, every), part * (wanted - a) * (wanted - c) / ((b - a) * (b - c)))
        np.add.at(table, (middle + 1, every), part * (wanted - a) * (wanted - b) / ((c - a) * (c - b)))
    return table


@lru_cache(maxsize=512)
def _transfer_table(diffraction, level):
    frequency = np.linspace(0.0, math.sqrt(0.5), TABLE)
    s, phase = np.broadcast_arrays(frequency * diffraction, np.pi * frequency * level)
    return transfer(s, phase).astype(np.float32)


@lru_cache(maxsize=16)
def _radial_index(shape, coarser):
    """Entry of the transfer table for every frequency of a picture of a shape, or of its low part each way."""
    height, width = (size // coarser for size in shape)
    down = np.fft.fftfreq(height)[:, np.newaxis] / coarser
    across = np.fft.rfftfreq(width)[np.newaxis, :] / coarser
    return np.rint(np.hypot(down, across) * ((TABLE - 1) / math.sqrt(0.5))).astype(np.intp)


def _fast_size(least):
    """The next multiple of 4 that has no prime factor above 5: the transform is quickest there."""
    size = least + -least % 4
    while True:
        rest = size
        for factor in (2, 3, 5):
            while rest % factor == 0:
                rest //= factor
        if rest == 1:
            return size
        size += 4


def _interpolated(plane, coarser):
    """Two or four times the pixels each way, a quintic through the six nearest between: even places stay."""
    for axis in (0, 1):
        near, far, farthest = (np.roll(plane, step, axis) + np.roll(plane, -1 - step, axis) for step in (0, 1, 2))
        between = (150 * near - 25 * far + 3 * farthest) * np.float32(1 / 256)
        plane = np.stack([plane, between], axis=axis + 1).reshape(
            [size * (2 if index == axis else 1) for index, size in enumerate(plane.shape)]
        )
    return plane if coarser == 2 else _interpolated(plane, 2)
