"""The shot file: JSON, versioned, no guessing."""

from just_plane.contract.json_file import read_document, write_document
from just_plane.contract.shot import FORMAT, VERSION, Shot


def read_shot(text):
    """A shot from the bytes or text of a shot file, of any version so far. Raises FileError."""
    return read_document(text, noun="shot", file_format=FORMAT, version=VERSION, model=Shot)


def write_shot(shot):
    """The shot file's text."""
    return write_document(shot)
