"""White balance from a frame of something grey."""

from typing import NamedTuple

import numpy as np

from just_plane.core.errors import OutOfDomainError

MIDDLE = (1 / 3, 2 / 3)
"""Of width and height: what is taken for the grey."""
BLOCKS = 8
DARKEST, BRIGHTEST = 0.01, 0.95
"""Linear light, of the brightest channel, between which channels can be compared."""
COLOURS = 0.06
"""Spread of the channels' ratios over the middle, from which it is no one colour."""


class White(NamedTuple):
    """What makes a frame neutral.

    ``red`` and ``blue`` are what these channels are multiplied by, green left as it is; ``uneven`` is how much brighter
    the brightest block of the middle is than the darkest, as a share.
    """

    red: float
    blue: float
    uneven: float


def white_from(light):
    """White balance from a picture whose middle is grey.

    Parameters
    ----------
    light : (H, W, 3) array   Linear, red, green, blue, 0 to 1.

    Returns
    -------
    White

    Raises
    ------
    OutOfDomainError          Too dark, burnt out, or no one colour.

    Notes
    -----
    The ratio of means and not the mean of ratios: noise is as likely above as below, but not after a division.
    """
    height, width = light.shape[:2]
    rows, columns = (slice(int(MIDDLE[0] * side), max(int(MIDDLE[1] * side), BLOCKS)) for side in (height, width))
    middle = light[rows, columns]
    blocks = np.array([
        [part.mean(axis=(0, 1)) for part in np.array_split(band, BLOCKS, axis=1)]
        for band in np.array_split(middle, BLOCKS, axis=0)
    ]).reshape(-1, 3)  # fmt: skip
    red, green, blue = blocks.mean(axis=0)
    top = max(red, green, blue)
    if top < DARKEST:
        raise _refused("light.too_dark", top, "The middle of this frame is nearly black.", "Expose it as the others.")
    if blocks.max() > BRIGHTEST or min(red, green, blue) <= 0:
        raise _refused("light.burnt", top, "The middle of this frame is burnt out.", "Expose it a stop or two less.")
    ratios = blocks[:, [0, 2]] / blocks[:, [1]]
    if float((ratios.std(axis=0) / ratios.mean(axis=0)).max()) > COLOURS:
        raise _refused(
            "light.many_colours", top, "The middle of this frame is not of one colour.",
            "Fill it with something grey: a card, or white paper, where the subject stands.",
        )  # fmt: skip
    brightness = blocks.mean(axis=1)
    return White(float(green / red), float(green / blue), float(brightness.max() / brightness.min() - 1))


def _refused(code, value, message, remedy):
    return OutOfDomainError(code, quantity="light", value=float(value), message=message, remedy=remedy)
