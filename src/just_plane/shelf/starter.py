"""Reads the starter shelf that ships with the program."""

from functools import cache
from importlib.resources import files

from just_plane.contract.shelf import Shelf


@cache
def starter_shelf():
    """The generic gear of ``shelf.json``, checked against the contract."""
    return Shelf.model_validate_json((files("just_plane.shelf") / "shelf.json").read_bytes())
