"""The kit: the gear on the shelf, and what was measured with it. This is also the kit file."""

from typing import Annotated, Literal

from pydantic import Field, field_validator

from just_plane.contract.base import Model, Ratio
from just_plane.contract.gear import Gear
from just_plane.contract.piece import KitId

FORMAT = "just-plane/kit"
VERSION = 1
MOST_PIECES = 400


class KitPiece(Model):
    """One piece on the shelf."""

    carried: Annotated[bool, Field(description="On the table today: what the search may use.")] = True
    gear: Gear


class MeasuredRig(Model):
    """The size of a ruler photographed through a rig, kept for that rig."""

    rig: Annotated[
        list[Annotated[str, Field(max_length=60)]],
        Field(max_length=20, description="The pieces, subject to sensor, body last: kit ids, ~ before a reversed one."),
    ]
    magnification: Ratio
    uncertainty: Annotated[float, Field(ge=0, le=1000)]
    modelled: Annotated[Ratio, Field(description="What the model gave at the same setting.")]
    measured_on: Annotated[str, Field(max_length=40, description="Date.")] = ""


class Kit(Model):
    """All of it."""

    format: Literal["just-plane/kit"]
    version: Literal[1]
    pieces: Annotated[list[KitPiece], Field(max_length=MOST_PIECES)] = []
    measured_rigs: Annotated[list[MeasuredRig], Field(max_length=400)] = []

    @field_validator("pieces")
    @classmethod
    def _ids_tell_pieces_apart(cls, pieces):
        seen: set[KitId] = set()
        for place, piece in enumerate(pieces):
            kit_id = piece.gear.kit_id
            if kit_id is None:
                raise ValueError(f"piece {place + 1} has no kit_id; every piece of a kit needs one")
            if kit_id in seen:
                raise ValueError(f"two pieces have the kit_id “{kit_id}”; each needs its own")
            seen.add(kit_id)
        return pieces


def empty_kit():
    """A kit with nothing in it."""
    return Kit(format="just-plane/kit", version=1)
