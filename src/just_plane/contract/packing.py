"""What to pack for a day: the gear of several shots as one list."""

from typing import Annotated

from pydantic import Field

from just_plane.contract.base import Answer, Model
from just_plane.contract.shot import Heading


class PackingQuery(Model):
    """Which shots to pack for."""

    heading: Heading = ""


class PackedPiece(Answer):
    """One piece to take along."""

    kind: str
    name: str
    kit_id: str | None
    count: Annotated[int, Field(description="As many as the shot that needs most of it.")]
    cost: Annotated[float | None, Field(description="Of one, as typed in the kit; null: not known.")]
    shots: Annotated[list[str], Field(description="Names of those that need it, in the order of the day.")]


class PackingList(Answer):
    """Everything to take along."""

    heading: str
    shots: Annotated[list[str], Field(description="Those that hold still shortest first.")]
    pieces: list[PackedPiece]
    cost: Annotated[float | None, Field(description="Of all whose cost was typed; null: of none.")]
    without_cost: Annotated[int, Field(description="Pieces whose cost is not known.")]
