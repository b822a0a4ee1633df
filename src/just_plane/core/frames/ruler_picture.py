"""A ruler as a camera would see it: made-up frames of known spacing, to practise on and to test with."""

import numpy as np

from just_plane.core.domain import non_negative, positive

TICK_SHARE = 0.16
"""Width of a tick as a share of the spacing."""
LENGTHS = {"long": 1.0, "half": 0.75, "short": 0.5}


def ruler_picture(
    width,
    height,
    spacing,
    *,
    angle=0.0,
    offset=0.0,
    blur=0.6,
    noise=0.0,
    uneven=0.0,
    covered=0.0,
    generator=None,
):
    """A frame of a ruler across its middle, dark ticks on a light edge.

    Parameters
    ----------
    width, height : int            Pixels, each at least 16.
    spacing : float                Between ticks, pixels, > 0. Every fifth and tenth tick is longer.
    angle : float                  Of the ruler, radians, clockwise on the picture.
    offset : float                 Of the first tick from the middle, as a share of the spacing.
    blur : float                   Standard deviation of the blur, pixels, >= 0.
    noise : float                  Standard deviation of the noise, of full scale; needs a ``generator``.
    uneven : float                 Fall of the light from one corner to the other, 0 to 1.
    covered : float                Share of the ruler's length hidden by something plain, 0 to 1.
    generator : numpy.random.Generator or None

    Returns
    -------
    (height, width) array of float32, 0 to 1
    """
    positive("spacing", spacing, "pixels")
    non_negative("blur", blur, "pixels")
    y, x = np.mgrid[:height, :width].astype(np.float32)
    x, y = x - (width - 1) / 2, y - (height - 1) / 2
    cos, sin = np.cos(angle), np.sin(angle)
    along, across = x * cos + y * sin, y * cos - x * sin
    soft = max(blur, 0.35)
    reach = 0.42 * min(width, height)
    edge = reach * 0.35
    paper = 0.86 * _within(across, -edge, reach, soft) + 0.25 * (1 - _within(across, -edge, reach, soft))
    number = np.round(along / spacing - offset)
    from_tick = np.abs(along - (number + offset) * spacing)
    long, half = number % 10 == 0, number % 5 == 0
    length = np.where(long, LENGTHS["long"], np.where(half, LENGTHS["half"], LENGTHS["short"])) * (reach * 0.6)
    tick = _below(from_tick, spacing * TICK_SHARE / 2, soft) * _within(across, -edge, length - edge, soft)
    picture = paper - 0.72 * tick
    if covered > 0:
        half_width = width / 2
        cover = _within(along, half_width - 2 * half_width * covered, half_width * 2, soft)
        picture = picture * (1 - cover) + 0.45 * cover
    if uneven > 0:
        picture = picture * (1 - uneven * (0.5 + (x / width + y / height) / 2))
    if noise > 0:
        picture = picture + generator.normal(0.0, noise, picture.shape)
    return np.clip(picture, 0, 1).astype(np.float32)


def _below(value, limit, soft):
    """1 below the limit, 0 above, softened as a blurred edge is."""
    return 1 / (1 + np.exp(np.clip((value - limit) / (soft * 0.6), -40, 40)))


def _within(value, low, high, soft):
    return _below(value, high, soft) * _below(-value, -low, soft)
