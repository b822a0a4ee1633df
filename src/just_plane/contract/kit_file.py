"""The kit file: JSON with everything. For people who keep lists there is a table besides: ``kit_table``."""

from just_plane.contract.json_file import read_document, write_document
from just_plane.contract.kit import FORMAT, VERSION, Kit


def read_kit(text):
    """A kit from the bytes or text of a JSON kit file. Raises FileError."""
    return read_document(text, noun="kit", file_format=FORMAT, version=VERSION, model=Kit)


def write_kit(kit):
    """The kit file's text."""
    return write_document(kit)
