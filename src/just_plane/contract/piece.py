"""What every piece of gear has, whatever it is."""

from typing import Annotated

from pydantic import Field

from just_plane.contract.base import Model

Name = Annotated[str, Field(max_length=120)]
KitId = Annotated[str, Field(min_length=1, max_length=40, pattern="^[0-9a-z-]+$")]
Grams = Annotated[float, Field(gt=0, le=100_000)]


class Piece(Model):
    """What every piece of gear has."""

    name: Annotated[Name, Field(title="Name")] = ""
    kit_id: Annotated[KitId | None, Field(description="The piece of the kit it was taken from; null: none.")] = None
    cost: Annotated[
        float | None, Field(title="Cost", ge=0, le=1e9, description="In your own money; null: not known.")
    ] = None
