"""The few numbers of a stack that checking it needs: from a shot, from a run, or typed."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Length, Model, Ratio


class StackNumbers(Model):
    """What is known of a stack before its frames are looked at. Null: not known, and not judged by."""

    kind: Annotated[Literal["rail", "ring", "hand"], Field(description="What was moved from frame to frame.")] = "rail"
    magnification: Ratio | None = None
    effective_f_number: Annotated[float | None, Field(gt=0, le=1000)] = None
    pixel_pitch_mm: Annotated[float | None, Field(gt=0, le=1, description="Of the frames as they are.")] = None
    sensor_width_mm: Annotated[
        float | None, Field(gt=0, le=1000, description="That the frames are wide; for the pitch where that is null.")
    ] = None
    c_mm: Annotated[float | None, Field(gt=0, le=10, description="Circle of confusion, on the sensor.")] = None
    depth_of_field_mm: Length | None = None
    step_mm: Length | None = None
    planned_frames: Annotated[int | None, Field(ge=1, le=100_000)] = None
    entrance_pupil_distance_mm: Annotated[
        float | None, Field(gt=0, le=1e7, description="Plane of focus to entrance pupil; null: endless, or not known.")
    ] = None
    wavelength_nm: Annotated[float, Field(ge=200, le=2000)] = 550.0
    contrast_threshold: Annotated[float, Field(gt=0, lt=1)] = 0.2
    first_mm: Annotated[
        float, Field(ge=-1e5, le=1e5, description="First frame, behind the nearest point that must be sharp.")
    ] = 0.0
    depth_mm: Annotated[Length | None, Field(description="That must be sharp, from the nearest point on.")] = None
    points: Annotated[list["NamedPlace"], Field(max_length=200)] = []


class NamedPlace(Model):
    """A point that must be sharp, by its place on the frame."""

    name: Annotated[str, Field(max_length=200)] = ""
    from_left: Annotated[float, Field(ge=0, le=1, description="Share of the frame's width.")]
    from_top: Annotated[float, Field(ge=0, le=1, description="Share of the frame's height.")]


StackNumbers.model_rebuild()
