"""The few numbers of a stack that checking it needs: from a shot, from a run, or typed."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Model

Measured = Annotated[float, Field(gt=0, le=1e15)]
"""Of a plan at whatever edges: nothing is judged too large to be known."""


class StackNumbers(Model):
    """What is known of a stack before its frames are looked at. Null: not known, and not judged by."""

    kind: Annotated[Literal["rail", "ring", "hand"], Field(description="What was moved from frame to frame.")] = "rail"
    magnification: Measured | None = None
    effective_f_number: Measured | None = None
    pixel_pitch_mm: Annotated[float | None, Field(gt=0, le=1000, description="Of the frames as they are.")] = None
    sensor_width_mm: Annotated[
        float | None, Field(gt=0, le=100_000, description="That the frames are wide; for the pitch where that is null.")
    ] = None
    c_mm: Annotated[Measured | None, Field(description="Circle of confusion, on the sensor.")] = None
    depth_of_field_mm: Measured | None = None
    step_mm: Measured | None = None
    planned_frames: Annotated[int | None, Field(ge=1, le=100_000)] = None
    spare_before: Annotated[int, Field(ge=0, le=100_000, description="Of those, frames in front of the depth.")] = 0
    spare_after: Annotated[int, Field(ge=0, le=100_000, description="Of those, frames past the depth.")] = 0
    entrance_pupil_distance_mm: Annotated[
        Measured | None, Field(description="Plane of focus to entrance pupil; null: endless, or not known.")
    ] = None
    wavelength_nm: Annotated[float, Field(ge=200, le=2000)] = 550.0
    contrast_threshold: Annotated[float, Field(gt=0, lt=1)] = 0.2
    first_mm: Annotated[
        float, Field(ge=-1e15, le=1e15, description="First frame, behind the nearest point that must be sharp.")
    ] = 0.0
    depth_mm: Annotated[Measured | None, Field(description="That must be sharp, from the nearest point on.")] = None
    points: Annotated[list["NamedPlace"], Field(max_length=200)] = []
    units: Annotated[Literal["mm", "in"], Field(description="How sentences speak of lengths.")] = "mm"


class NamedPlace(Model):
    """A point that must be sharp, by its place on the frame."""

    name: Annotated[str, Field(max_length=200)] = ""
    from_left: Annotated[float, Field(ge=0, le=1, description="Share of the frame's width.")]
    from_top: Annotated[float, Field(ge=0, le=1, description="Share of the frame's height.")]


StackNumbers.model_rebuild()
