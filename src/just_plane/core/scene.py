"""What a rig would see of a made-up scene: a texture, blurred at every place by defocus and diffraction together.

The blur of each place is given (by :mod:`just_plane.core.ways` or :mod:`just_plane.core.plane`); the picture is the
texture seen through the transfer function of :mod:`just_plane.core.contrast` at that blur.
"""

import math
from functools import lru_cache

import numpy as np

from just_plane.core.contrast import transfer
from just_plane.core.domain import positive
from just_plane.core.errors import OutOfDomainError
from just_plane.core.units import DEFAULT_WAVELENGTH

RATIO = 1.4
"""Blurs worked out exactly stand this far apart. Between them three are mixed, which keeps contrast within 1 %."""
MOST_LEVELS = 14
SMALLEST = 1.0
"""The smallest blur, px, that is worked out besides none at all."""
FINE_BELOW = 8.0
"""Blurs from this many pixels leave no detail that half the pixels each way would not hold: worked out there."""
COARSE = 4
"""Colour differences are worked out at so many times fewer pixels each way."""
TABLE = 4096
"""Entries of the transfer function between no detail and the finest a picture holds."""
MIXES = 2048
"""Blurs told apart when levels are mixed."""
LUMINANCE = np.array([0.2126, 0.7152, 0.0722], dtype=np.float32)
"""Of linear light with the primaries of common screens."""


def render(texture, blur, effective_f_number, pixel_pitch, wavelength=DEFAULT_WAVELENGTH):
    """The picture of a texture whose every place has its own blur.

    Parameters
    ----------
    texture : (H, W, 3) or (H, W) array   Linear light; what a perfect lens would show.
    blur : (H, W) array                   Diameter of the defocus blur at each place, mm on the sensor, >= 0.
    effective_f_number : float            > 0; diffraction.
    pixel_pitch : float                   mm on the sensor, > 0.
    wavelength : float                    mm, > 0.

    Returns
    -------
    array                                 Linear light, of the texture's shape.

    Raises
    ------
    OutOfDomainError                      The shapes do not agree, or a value is outside its range.

    Notes
    -----
    Each place shows the texture around it through its own blur. Where depth jumps, the near part does not spread over
    the far one: outlines are a little too clean there. Colour differences are worked out coarsely,
    as the eye sees them. The border is mirrored.
    """
    texture, blur = np.asarray(texture), np.asarray(blur, dtype=np.float32)
    _check(texture, blur)
    positive("effective_f_number", effective_f_number)
    positive("pixel_pitch", pixel_pitch, "mm")
    positive("wavelength", wavelength, "mm")
    levels = _levels(float(blur.min()) / pixel_pitch, float(blur.max()) / pixel_pitch)
    lens = (effective_f_number * wavelength / pixel_pitch, levels)
    if texture.ndim == 2:
        return _through(texture, blur / pixel_pitch, *lens)
    seen = _through(_luminance(texture), blur / pixel_pitch, *lens)
    coarse = (effective_f_number * wavelength / pixel_pitch / COARSE, tuple(level / COARSE for level in levels))
    coarse_blur, coarse_texture = _shrunk(blur, COARSE) / pixel_pitch / COARSE, _shrunk(texture, COARSE)
    coarse_light = _luminance(coarse_texture)
    red, blue = (
        seen
        + _enlarged(_through(coarse_texture[..., channel] - coarse_light, coarse_blur, *coarse), COARSE, seen.shape)
        for channel in (0, 2)
    )
    green = (seen - LUMINANCE[0] * red - LUMINANCE[2] * blue) / LUMINANCE[1]
    return np.stack([red, green, blue], axis=-1)


def _luminance(texture):
    return texture.astype(np.float32, copy=False) @ LUMINANCE


def _check(texture, blur):
    if texture.ndim not in (2, 3) or texture.shape[2:] not in ((), (3,)) or texture.shape[:2] != blur.shape:
        raise OutOfDomainError(
            "texture.shape",
            quantity="texture",
            value=texture.shape,
            message=f"The texture is (H, W) or (H, W, 3) and the blur (H, W); got {texture.shape} and {blur.shape}.",
        )
    if not (np.all(np.isfinite(blur)) and blur.min() >= 0 and np.all(np.isfinite(texture))):
        raise OutOfDomainError(
            "blur.negative", quantity="blur", value=float(np.nanmin(blur)), message="Blur is 0 or more everywhere."
        )


def _levels(least, most):
    """Blurs to work out exactly, in pixels, from the least to the most in the picture."""
    if most < SMALLEST / 20:
        return (0.0,)
    if least >= SMALLEST and most <= least * 1.02:
        return (math.sqrt(least * most),)
    if most <= SMALLEST:
        return (0.0, SMALLEST)
    start = max(least, SMALLEST)
    count = min(max(math.ceil(math.log(most / start) / math.log(RATIO)), 2), MOST_LEVELS - 1)
    grown = tuple(start * (most / start) ** (index / count) for index in range(count + 1))
    return grown if least >= SMALLEST else (0.0, *grown)


def _through(plane, blur, diffraction, levels):
    """One channel seen through its blurs (px); ``diffraction`` is wavelength x N_e in pixels."""
    margin = min(math.ceil(levels[-1] / 2) + 4, *(size // 2 - 1 for size in plane.shape))
    shape = tuple(_fast_size(size + 2 * margin) for size in plane.shape)
    after = [min(size - side - margin, side - 1) for size, side in zip(shape, plane.shape, strict=True)]
    padded = np.pad(plane.astype(float, copy=False), [(margin, rest) for rest in after], "reflect")
    spectrum = np.fft.rfft2(padded, s=shape).astype(np.complex64)
    table, places = _mixing(levels), _places(blur, levels)
    fine = [index for index, level in enumerate(levels) if level < FINE_BELOW]
    rough = [index for index, level in enumerate(levels) if level >= FINE_BELOW]
    seen = np.zeros(plane.shape, dtype=np.float32)
    for index in fine:
        part = _seen_at(spectrum, diffraction, levels[index], shape, 1)
        seen += np.take(table[index], places) * part[margin:, margin:][: plane.shape[0], : plane.shape[1]]
    if rough:
        half = (shape[0] // 2, shape[1] // 2)
        half_places = _places(_thinned(np.pad(blur, [(margin, rest) for rest in after], "edge"), half), levels)
        mixed = np.zeros(half, dtype=np.float32)
        for index in rough:
            mixed += np.take(table[index], half_places) * _seen_at(spectrum, diffraction, levels[index], shape, 2)
        seen += _interpolated(mixed)[margin:, margin:][: plane.shape[0], : plane.shape[1]]
    return seen


def _seen_at(spectrum, diffraction, level, shape, coarser):
    """The whole picture with one blur; at half the pixels each way when ``coarser`` is 2."""
    transferred = np.take(_transfer_table(diffraction, level), _radial_index(shape, coarser))
    if coarser == 1:
        return np.fft.irfft2(spectrum * transferred, s=shape)
    rows, columns = shape[0] // 4, shape[1] // 4 + 1
    low = np.concatenate([spectrum[:rows, :columns], spectrum[-(shape[0] // 2 - rows) :, :columns]])
    return np.fft.irfft2(low * transferred, s=(shape[0] // 2, shape[1] // 2)) / 4


def _places(blur, levels):
    """Entry of the mixing table for the blur (px) at every place."""
    scale = (MIXES - 1) / (levels[-1] or 1.0)
    return np.minimum(np.rint(blur * scale), MIXES - 1).astype(np.intp)


@lru_cache(maxsize=64)
def _mixing(levels):
    """How much of each level a blur takes, by parabolas in its square through the nearest: (levels, MIXES)."""
    squares = np.square(np.array(levels))
    wanted = np.clip(np.square(np.linspace(0.0, levels[-1], MIXES)), squares[0], squares[-1])
    if len(levels) < 3:
        share = (wanted - squares[0]) / (squares[-1] - squares[0]) if len(levels) == 2 else np.zeros(MIXES)
        return np.array([1 - share, share][: len(levels)], dtype=np.float32)
    table = np.zeros((len(levels), MIXES), dtype=np.float32)
    below = np.clip(np.searchsorted(squares, wanted, side="right") - 1, 0, len(levels) - 2)
    share = (wanted - squares[below]) / (squares[below + 1] - squares[below])
    # One parabola round the level below and one round the level above, faded into each other: no seam in the picture.
    for middle, part in ((below, 1 - share), (below + 1, share)):
        middle = np.clip(middle, 1, len(levels) - 2)
        a, b, c = (squares[middle + step] for step in (-1, 0, 1))
        every = np.arange(MIXES)
        np.add.at(table, (middle - 1, every), part * (wanted - b) * (wanted - c) / ((a - b) * (a - c)))
        np.add.at(table, (middle, every), part * (wanted - a) * (wanted - c) / ((b - a) * (b - c)))
        np.add.at(table, (middle + 1, every), part * (wanted - a) * (wanted - b) / ((c - a) * (c - b)))
    return table


@lru_cache(maxsize=64)
def _transfer_table(diffraction, level):
    frequency = np.linspace(0.0, math.sqrt(0.5), TABLE)
    s, phase = np.broadcast_arrays(frequency * diffraction, np.pi * frequency * level)
    return transfer(s, phase).astype(np.float32)


@lru_cache(maxsize=8)
def _radial_index(shape, coarser):
    """Entry of the transfer table for every frequency of a picture of a shape, or of its low half each way."""
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


def _thinned(plane, shape):
    """Every second place each way, filled up to a shape with the border."""
    thin = plane[::2, ::2][: shape[0], : shape[1]]
    return np.pad(thin, [(0, size - have) for size, have in zip(shape, thin.shape, strict=True)], "edge")


def _interpolated(plane):
    """Twice the pixels each way, a cubic through the four nearest between: even places keep their value."""
    for axis in (0, 1):
        near = plane + np.roll(plane, -1, axis=axis)
        far = np.roll(plane, 1, axis=axis) + np.roll(plane, -2, axis=axis)
        between = (9 * near - far) / 16
        plane = np.stack([plane, between], axis=axis + 1).reshape(
            [size * (2 if index == axis else 1) for index, size in enumerate(plane.shape)]
        )
    return plane


def _shrunk(plane, by):
    """Means over squares ``by`` pixels wide; the border is repeated where they do not fit."""
    missing = [(0, -size % by) for size in plane.shape[:2]] + [(0, 0)] * (plane.ndim - 2)
    full = np.pad(plane, missing, "edge") if any(more for _, more in missing) else plane
    rows = full.reshape(full.shape[0] // by, by, *full.shape[1:]).mean(axis=1)
    return rows.reshape(rows.shape[0], rows.shape[1] // by, by, *rows.shape[2:]).mean(axis=2)


def _enlarged(plane, by, shape):
    """Each value over a square of ``by`` pixels, smoothed over the seams."""
    for _ in range(int(math.log2(by))):
        padded = np.pad(plane, 1, "edge")
        down = np.stack([0.75 * plane + 0.25 * padded[:-2, 1:-1], 0.75 * plane + 0.25 * padded[2:, 1:-1]], axis=1)
        tall = down.reshape(-1, plane.shape[1])
        padded = np.pad(tall, ((0, 0), (1, 1)), "edge")
        across = np.stack([0.75 * tall + 0.25 * padded[:, :-2], 0.75 * tall + 0.25 * padded[:, 2:]], axis=2)
        plane = across.reshape(tall.shape[0], -1)
    return plane[: shape[0], : shape[1]]
