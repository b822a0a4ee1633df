"""Reads the starter shelf that ships with the program: generic gear, as a kit to pick from."""

from functools import cache
from importlib.resources import files

from just_plane.contract.kit_file import read_kit


@cache
def starter_shelf():
    """The generic gear of ``shelf.json``, checked against the contract."""
    return read_kit((files("just_plane.shelf") / "shelf.json").read_bytes())
