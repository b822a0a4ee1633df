"""What is asked of the kit, and what of it gets the frame."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer, Length, LengthOrZero, Model
from just_plane.contract.gear import Body
from just_plane.contract.plan import Piece
from just_plane.contract.shot import Framing, MeasuredSize, Placed


class SearchAsked(Model):
    """A frame, and the room wanted in front of the lens."""

    body: Body
    crop_mode: Annotated[str | None, Field(max_length=60)] = None
    camera_on_its_side: bool = False
    frame_width_mm: Length
    room_mm: Annotated[LengthOrZero, Field(description="Working distance wanted at least.")] = 0.0
    carried_only: Annotated[bool, Field(description="Only what is on the table today.")] = True
    look_for: Annotated[
        Literal["frame", "closest", "widest"],
        Field(description="This frame; the closest with that room at least; or the widest from no farther than it."),
    ] = "frame"
    order: Annotated[Literal["best", "room", "light", "pieces"], Field(description="What counts first.")] = "best"


class FoundRig(Answer):
    """One row of pieces that gets the frame, or nearly."""

    title: str
    rig: list[Placed]
    framing: Framing
    measured: MeasuredSize | None
    fits: Annotated[bool, Field(description="The frame is the one asked, within 2 %.")]
    room_enough: bool
    magnification: float
    frame_width_mm: float
    frame_height_mm: float
    working_distance_mm: float
    subject_to_sensor_mm: float
    f_number: Annotated[float, Field(description="Marked, at which the next two are given.")]
    effective_f_number: float
    stops_lost: float
    against: list[str]
    outline: list[Piece]


class SearchAnswer(Answer):
    """What was found, best first."""

    tried: int
    bounds: Annotated[str, Field(description="What was combined, and what was not.")]
    headline: str
    generic: Annotated[bool, Field(description="The kit holds no lens: generic gear was searched instead.")] = False
    results: list[FoundRig]
