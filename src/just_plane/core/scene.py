"""What a rig would see of a made-up scene: a texture, blurred at every place by defocus and diffraction together.

The blur of each place is given (by :mod:`just_plane.core.ways` or :mod:`just_plane.core.plane`); the picture is the
texture seen through the transfer function of :mod:`just_plane.core.contrast` at that blur. The stages are those of the
live view; only the ladder is chosen for this one picture.
"""

import math

import numpy as np

from just_plane.core.domain import positive
from just_plane.core.errors import OutOfDomainError
from just_plane.core.units import DEFAULT_WAVELENGTH
from just_plane.core.view.colour import ColourLevels, ColourSpectrum
from just_plane.core.view.levels import SMALLEST, Levels, spectrum_of

RATIO = 1.4
"""Blurs worked out exactly stand this far apart. Between them three are mixed: contrast within 1 % up to its first
zero, within 9 % past it."""
MOST_LEVELS = 14


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
    ladder = _ladder(float(blur.min()) / pixel_pitch, float(blur.max()) / pixel_pitch)
    diffraction, blur = effective_f_number * wavelength / pixel_pitch, blur / pixel_pitch
    if texture.ndim == 2:
        return Levels(spectrum_of(texture, ladder[-1]), diffraction).mixed(blur, ladder)
    return ColourLevels(ColourSpectrum(texture, ladder[-1]), diffraction).mixed(blur, ladder)


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


def _ladder(least, most):
    """Blurs to work out exactly, px, from the least in the picture to one past the most: no kink at the end."""
    if most < SMALLEST / 20:
        return (0.0,)
    if least >= SMALLEST and most <= least * 1.02:
        return (math.sqrt(least * most),)
    if most <= SMALLEST:
        return (0.0, SMALLEST)
    start = max(least, SMALLEST)
    count = min(max(math.ceil(math.log(most / start) / math.log(RATIO)), 2), MOST_LEVELS - 1)
    grown = tuple(start * (most / start) ** (index / count) for index in range(count + 2))
    return grown if least >= SMALLEST else (0.0, *grown)
