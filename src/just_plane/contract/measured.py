"""What trials measured of gear, kept with the piece: copied into shots with it, so that a plan can say so."""

from typing import Annotated

from pydantic import Field

from just_plane.contract.base import FNumber, Length, Model, Ratio


class MeasuredTimes(Model):
    """What a burst told of a body."""

    dark_frame: Annotated[bool, Field(description="After an exposure of 1 s or more it takes a dark one as long.")]
    write_s: Annotated[float, Field(ge=0, le=3600, description="To write a frame.")]
    measured_on: Annotated[str, Field(max_length=40, description="The day, in words.")]


class MeasuredStill(Model):
    """The longest shutter that stayed sharp, and at which size."""

    shutter_s: Annotated[float, Field(ge=1e-6, le=3600)]
    magnification: Ratio
    focal_length_mm: Annotated[Length | None, Field(description="By hand; null: not known.")] = None
    measured_on: Annotated[str, Field(max_length=40, description="The day, in words.")]


class TriedSpread(Model):
    """What a lens adds to a perfect picture at one stop."""

    f_number: Annotated[FNumber, Field(title="Stop")]
    spread_mm: Annotated[
        float, Field(ge=0, le=1, description="On the sensor; contrast at nu is times exp(-2 (pi nu s)^2).")
    ]


class TriedAt(Model):
    """A trial of a lens's stops at a size; it wins over the model near that size."""

    trial_id: Annotated[str, Field(max_length=40)]
    magnification: Ratio
    measured_on: Annotated[str, Field(max_length=40, description="The day, in words.")]
    stops: Annotated[list[TriedSpread], Field(min_length=1, max_length=60)]


class FocusUnit(Model):
    """What one unit of the camera's focus steps moves the plane by, at a size and a stop."""

    trial_id: Annotated[str, Field(max_length=40)]
    magnification: Ratio
    f_number: Annotated[FNumber | None, Field(description="null: not known.")]
    mm: Annotated[Length, Field(description="In the subject.")]
    measured_on: Annotated[str, Field(max_length=40, description="The day, in words.")]
