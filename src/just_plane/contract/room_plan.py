"""The room before the lens as a plan has it: what stands there, seen from above."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer

XY = Annotated[
    list[float], Field(min_length=2, max_length=2, description="mm: toward the lens, and to the right of the camera.")
]


class StandingAnswer(Answer):
    """A light or diffuser that has a place."""

    index: Annotated[int, Field(description="In the shot's set.")]
    kind: Literal["light", "diffuser"]
    name: str
    one: XY
    other: XY
    looks_deg: Annotated[float, Field(description="How wide it looks from the subject: the wider, the softer.")]
    in_the_way: Annotated[bool, Field(description="It reaches into the picture, or touches the rig.")]


class RoomAnswer(Answer):
    """From where the axis meets the plane of focus, seen from above."""

    free_mm: Annotated[float, Field(description="Between the front of the lens and the nearest point.")]
    shade_deg: Annotated[float, Field(description="From the axis: within it the lens stands in the light.")]
    frame_width_mm: float
    front_mm: Annotated[float, Field(description="From the plane of focus to the front of the lens.")]
    front_width_mm: float
    seen_at_front_mm: Annotated[float, Field(description="Width of what the camera sees where its lens begins.")]
    nearest_mm: Annotated[float, Field(description="The subject's nearest point, toward the lens.")]
    farthest_mm: float
    things: list[StandingAnswer]
    unplaced: Annotated[list[str], Field(description="Lights and diffusers whose place is not known.")]
