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


def kept_photograph(content):
    """A photograph that was kept before, from the bytes of its JPEG: kept as it is when it could have been ours.

    Taken away with a shot and brought back, a photograph is the same, however often. Raises PictureError.
    """
    found = unpack(content)
    noted = any(found.notes.values()) or b"Exif" in content[:64]
    if found.kind != "JPEG" or noted or found.image.mode != "RGB" or max(found.image.size) > LONGEST_SIDE:
        return framing_photograph(content)
    return FramingPhotograph(content, found.image.width, found.image.height)
