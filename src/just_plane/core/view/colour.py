"""A coloured picture at many blurs: lightness at every pixel, differences of colour coarsely, as the eye sees them."""

import math

import numpy as np

from just_plane.core.view.levels import LADDER, Levels, spectrum_of

COARSE = 4
"""Colour differences are worked out at so many times fewer pixels each way."""
LUMINANCE = np.array([0.2126, 0.7152, 0.0722], dtype=np.float32)
"""Of linear light with the primaries of common screens."""


class ColourSpectrum:
    """A picture transformed once, for every stop and focus."""

    def __init__(self, light, reach):
        """
        Parameters
        ----------
        light : (H, W, 3) array   Linear.
        reach : float             The largest blur that will be asked of it, px.
        """
        luminance = light.astype(np.float32, copy=False) @ LUMINANCE
        self.shape = luminance.shape
        self.fine = spectrum_of(luminance, reach)
        small = shrunk(light, COARSE)
        lightness = small.astype(np.float32, copy=False) @ LUMINANCE
        self.coarse = [spectrum_of(small[..., channel] - lightness, reach / COARSE) for channel in (0, 2)]


class ColourLevels:
    """A picture seen through one stop."""

    def __init__(self, spectrum, diffraction):
        """
        Parameters
        ----------
        spectrum : ColourSpectrum
        diffraction : float   Wavelength x N_e in pixels.
        """
        self.shape = spectrum.shape
        self.fine = Levels(spectrum.fine, diffraction)
        self.coarse = [Levels(each, diffraction / COARSE) for each in spectrum.coarse]

    def mixed(self, blur, ladder=LADDER, neighbours=4):
        """What a frame shows whose every place has its own blur.

        Parameters
        ----------
        blur : (H, W) array   px.
        ladder : tuple        As for :meth:`Levels.mixed`, px of the fine picture.
        neighbours : int

        Returns
        -------
        (H, W, 3) float32 array
        """
        seen = self.fine.mixed(blur, ladder, neighbours)
        small = shrunk(blur, COARSE) / COARSE
        steps = tuple(level / COARSE for level in ladder)
        red, blue = (seen + _enlarged(each.mixed(small, steps, neighbours), COARSE, seen.shape) for each in self.coarse)
        green = (seen - LUMINANCE[0] * red - LUMINANCE[2] * blue) / LUMINANCE[1]
        return np.stack([red, green, blue], axis=-1)


def shrunk(plane, by):
    """Means over squares; the border is repeated where they do not fit.

    Parameters
    ----------
    plane : (H, W) or (H, W, C) array
    by : int   Pixels wide.

    Returns
    -------
    array
    """
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
