"""The starter shelf: generic bodies, lenses and tubes to pick from. Picking copies the numbers into the shot."""

from typing import Annotated

from pydantic import Field

from just_plane.contract.base import Length, Model
from just_plane.contract.shot import Body, Lens


class Shelf(Model):
    """What there is to pick from."""

    bodies: list[Body]
    lenses: list[Lens]
    tubes_mm: Annotated[list[Length], Field(description="Lengths that extension tubes commonly come in.")]
