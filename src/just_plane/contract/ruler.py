"""Calibration: a ruler found in a photograph, the size it gives, and a lens measured with two tubes."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer, Length, LengthOrZero, Model, Ratio
from just_plane.contract.plan import Finding
from just_plane.contract.shot import MeasuredSize, Shot

Pixels = Annotated[float, Field(gt=0, le=1_000_000)]


class PictureFacts(Answer):
    """What is known of a photograph that was sent."""

    width_px: int
    height_px: int
    kind: Literal["JPEG", "PNG", "TIFF"]
    focal_length_mm: Annotated[float | None, Field(description="By the camera's note in the file.")]
    f_number: float | None
    taken: str
    full_width_px: Annotated[int | None, Field(description="Width that the camera noted; null: not noted.")]
    preview: Annotated[str, Field(description="A smaller JPEG of it as a data address, the right way up.")]


class RulerAnswer(Answer):
    """A picture, and the ticks found in it. Pixels of the picture as sent, the right way up."""

    picture: PictureFacts
    spacing_px: Annotated[float | None, Field(description="Between ticks; null: no ruler was found.")]
    uncertainty_px: float | None
    angle_deg: float | None
    ticks: int
    marks_px: Annotated[list[list[float]], Field(description="x1, y1, x2, y2 of each tick.")]
    findings: list[Finding]


class SizeAsked(Model):
    """A length seen on the frame, and what it is in truth."""

    shot: Shot
    picture_width_px: Annotated[int, Field(gt=0, le=1_000_000)]
    picture_height_px: Annotated[int, Field(gt=0, le=1_000_000)]
    span_px: Annotated[Pixels, Field(description="Tick to tick, or between two points placed by hand.")]
    span_uncertainty_px: Annotated[float, Field(ge=0, le=1_000_000)]
    real_mm: Annotated[Length, Field(description="The same on the ruler.")]
    noted_focal_length_mm: Annotated[Length | None, Field(description="By the camera's note in the picture.")] = None


class SizeAnswer(Answer):
    """The size on the sensor that a ruler shows, beside what the model gives."""

    measured: MeasuredSize
    frame_width_mm: float
    rig: Annotated[
        list[str], Field(description="By which it is kept for this rig; empty: not all of it is of the kit.")
    ]
    words: str
    findings: list[Finding]


class TubeFrame(Model):
    """One of two frames of a ruler, the focus ring where it was."""

    extension_mm: LengthOrZero
    magnification: Ratio
    uncertainty: Annotated[float, Field(ge=0, le=1000)] = 0.0


class TwoTubesAsked(Model):
    """Two frames with different extension, and how much longer the second one had to be exposed."""

    first: TubeFrame
    second: TubeFrame
    stops_longer: Annotated[float | None, Field(ge=-20, le=20, description="null: not metered.")] = None
    stops_uncertainty: Annotated[float, Field(ge=0, le=10)] = 0.1


class TwoTubesAnswer(Answer):
    """The lens at work."""

    focal_length_mm: float
    focal_length_uncertainty_mm: float
    pupil_magnification: float | None
    pupil_uncertainty: float | None
    findings: list[Finding]
