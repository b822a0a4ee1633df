"""A frame of something grey, read from its file: what makes the others neutral."""

from pathlib import Path

import numpy as np

from just_plane.contract.run import WhiteBalance
from just_plane.core.errors import OpticsError
from just_plane.core.frames.white import white_from
from just_plane.frames.trial_intake import light_of
from just_plane.pictures.frames import frame_facts, read_colour
from just_plane.pictures.reading import PictureError

UNEVEN = 0.25
"""Difference of brightness over the middle from which it is said: one side is nearer to the lamp."""
MOST_PIXELS = 1_500_000


def grey_frame(folder, name):
    """White balance from a frame.

    Parameters
    ----------
    folder : str or Path
    name : str

    Returns
    -------
    WhiteBalance

    Raises
    ------
    PictureError   It cannot be read, or is of nothing grey; with what to do.
    """
    facts = frame_facts(Path(folder) / name)
    if facts.grey:
        raise PictureError("It has no colours.", "Take the frame in colour.")
    picture = read_colour(facts)
    every = max(int(np.ceil((picture.shape[0] * picture.shape[1] / MOST_PIXELS) ** 0.5)), 1)
    coded = np.ascontiguousarray(picture[::every, ::every, ::-1])
    try:
        white = white_from(light_of(coded))
    except OpticsError as error:
        raise PictureError(str(error.message), str(error.remedy)) from error
    return WhiteBalance(file=name, red=white.red, blue=white.blue, uneven=white.uneven, words=words(white))


def words(white):
    """What it comes to, in sentences.

    Parameters
    ----------
    white : White

    Returns
    -------
    str
    """
    neutral = max(abs(white.red - 1), abs(white.blue - 1)) < 0.02
    said = (
        "The frames are neutral as they are."
        if neutral
        else f"Red × {white.red:.2f} and blue × {white.blue:.2f} make the frames neutral."
    )
    if white.uneven > UNEVEN:
        said += f" The grey is {white.uneven * 100:.0f} % brighter on one side: the light falls off across the subject."
    return said
