"""Stage 4 of the view: from light to a picture as a camera writes it: gain, shot and read noise, clipping, tone."""

from typing import NamedTuple

import numpy as np

TILE = 512
"""px: noise is one seeded tile, shifted at random for each frame."""
TONES = 4096
ELECTRONS_UM2 = 900.0
"""Electrons that a square micrometre of sensor holds when full, at ISO 100: of common sensors. [a]"""
READ_ELECTRONS = 3.0
"""Noise of reading one sensor pixel. [a]"""


class Sensor(NamedTuple):
    """What the sensor does to light."""

    gain: float = 1.0
    """Times the light; 1: exposed as planned."""
    full: float = 20_000.0
    """Electrons of one pixel of the view at full light."""
    read: float = READ_ELECTRONS
    """Of one pixel of the view, electrons."""
    seed: int = 0
    frame: int = 0

    def counted(self, light):
        """Linear light as it is counted: noise, clipped at full.

        Parameters
        ----------
        light : (H, W, 3) array   Linear, 1 is full.

        Returns
        -------
        (H, W, 3) float32 array   0 to 1.
        """
        value = np.maximum(light, 0.0).astype(np.float32, copy=False)
        if self.gain != 1.0:
            value *= np.float32(self.gain)
        spread = value * np.float32(1 / self.full)
        spread += np.float32((self.read / self.full) ** 2)
        np.sqrt(spread, out=spread)
        spread *= self._noise(value.shape)
        value += spread
        return np.clip(value, 0.0, 1.0, out=value)

    def _noise(self, shape):
        tile = _tile(self.seed)
        shifts = np.random.default_rng((self.seed, self.frame)).integers(0, TILE, 2 * shape[2])
        rows, columns = np.arange(shape[0]), np.arange(shape[1])
        return np.stack(
            [
                tile[channel][(rows + shifts[2 * channel]) % TILE][:, (columns + shifts[2 * channel + 1]) % TILE]
                for channel in range(shape[2])
            ],
            axis=-1,
        )


_TILES: dict = {}


def _tile(seed):
    if seed not in _TILES:
        if len(_TILES) >= 4:
            _TILES.pop(next(iter(_TILES)))
        generator = np.random.default_rng(seed)
        _TILES[seed] = generator.standard_normal((3, TILE, TILE)).astype(np.float32)
    return _TILES[seed]


def electrons_of(pitch, iso=100.0):
    """What one pixel of a view holds at full light, and the noise of reading it.

    Parameters
    ----------
    pitch : float   mm on the sensor that the pixel of the view stands for, > 0.
    iso : float     > 0.

    Returns
    -------
    float           Electrons.
    """
    return ELECTRONS_UM2 * (pitch * 1000) ** 2 * 100 / iso


def toned(light):
    """Linear light as 8 bits for a screen.

    Parameters
    ----------
    light : array   0 to 1.

    Returns
    -------
    uint8 array     Of the same shape.
    """
    return np.take(_TONES, (light * np.float32(TONES - 1) + np.float32(0.5)).astype(np.uint16), mode="clip")


def _tones():
    light = np.linspace(0, 1, TONES)
    coded = np.where(light <= 0.0031308, 12.92 * light, 1.055 * np.power(light, 1 / 2.4) - 0.055)
    return np.rint(coded * 255).astype(np.uint8)


_TONES = _tones()
