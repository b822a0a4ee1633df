"""The shot file: JSON, versioned, no guessing; the framing photograph goes with it."""

import base64
import binascii
from typing import Annotated

from pydantic import Field

from just_plane.contract.json_file import FileError, read_document, write_document
from just_plane.contract.shot import FORMAT, VERSION, Shot

LARGEST_BYTES = 6_000_000


class ShotFile(Shot):
    """A shot as it is taken away: with its framing photograph, where it has one."""

    photograph_jpeg: Annotated[
        str | None, Field(description="The framing photograph, a JPEG in base64; null: none goes with the file.")
    ] = None


def read_shot(text):
    """A shot from the bytes or text of a shot file, of any version so far. Raises FileError."""
    return read_shot_and_photograph(text)[0]


def read_shot_and_photograph(text):
    """A shot from its file, and the bytes of its framing photograph or None: (Shot, bytes | None). Raises FileError.

    The bytes are what the file says they are; whether they are a picture is for who unpacks them.
    """
    file = read_document(
        text, noun="shot", file_format=FORMAT, version=VERSION, model=ShotFile, largest_bytes=LARGEST_BYTES
    )
    members = {name: getattr(file, name) for name in Shot.model_fields}
    shot = Shot.model_construct(_fields_set=file.model_fields_set & Shot.model_fields.keys(), **members)
    if file.photograph_jpeg is None:
        return shot, None
    try:
        return shot, base64.b64decode(file.photograph_jpeg, validate=True)
    except (binascii.Error, ValueError) as error:
        raise FileError(
            "The framing photograph in the file is damaged.",
            "Take the member out of the file, and load the photograph again at Plane.",
            "/photograph_jpeg",
        ) from error


def write_shot(shot, photograph=None):
    """The shot file's text; ``photograph`` is the bytes of its framing photograph, a JPEG, or None."""
    if photograph is None:
        return write_document(shot)
    encoded = base64.b64encode(photograph).decode("ascii")
    return write_document(ShotFile(**dict(shot), photograph_jpeg=encoded))
