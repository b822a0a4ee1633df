"""A framing photograph, made small enough to keep with a shot and to place points on."""

import io
from typing import NamedTuple

from just_plane.pictures.reading import flattened, unpack

LONGEST_SIDE = 2400


class FramingPhotograph(NamedTuple):
    """A JPEG of a photograph, the right way up, without the camera's notes."""

    jpeg: bytes
    width: int
    height: int


def framing_photograph(content):
    """The photograph from the bytes of its file, to keep. Raises PictureError for what is no photograph."""
    image = flattened(unpack(content).image).convert("RGB")
    image.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    kept = io.BytesIO()
    image.save(kept, "JPEG", quality=84)
    return FramingPhotograph(kept.getvalue(), image.width, image.height)
