"""A plan: everything the program works out for a shot. Numbers with their units in the name, reasons in sentences.

Places along the axis (``*_behind_nearest_mm``, bands) count from the nearest point that must be sharp, away from the
camera. A part that cannot be worked out is null, and a finding says why.
"""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer
from just_plane.contract.shot import WayId

Severity = Literal["trouble", "caution", "note"]


class Finding(Answer):
    """Something the photographer should know, at the field that caused it."""

    severity: Severity
    code: str
    field: str
    message: str
    remedy: str = ""


class Piece(Answer):
    """One piece of the rig as drawn, sensor to subject."""

    kind: Literal["body", "tube", "lens"]
    name: str
    from_sensor_mm: float
    length_mm: float


class Reach(Answer):
    """What the rig gives at the framing asked."""

    magnification: float
    smallest_magnification: float
    largest_magnification: float
    frame_width_mm: float
    frame_height_mm: float
    working_distance_mm: Annotated[float, Field(description="Front of the lens to the plane of focus.")]
    nearest_point_mm: Annotated[float, Field(description="Front of the lens to the nearest point to be sharp.")]
    subject_to_sensor_mm: float
    lens_front_to_sensor_mm: float
    nearest_focus_mm: Annotated[float, Field(description="Sensor to plane of focus at closest.")]
    farthest_focus_mm: Annotated[float | None, Field(description="null: focuses to infinity.")]
    focal_length_now_mm: float
    own_magnification: Annotated[float, Field(description="What the focus ring contributes.")]
    tube_magnification: Annotated[float, Field(description="What the tubes contribute.")]
    entrance_pupil_mm: Annotated[float, Field(description="Plane of focus to entrance pupil.")]
    pieces: list[Piece]


class SharpnessSchool(Answer):
    """The largest acceptable blur by one school."""

    school: Literal["viewing", "sensor", "pixel"]
    circle_um: float | None
    why: str


class Sharpness(Answer):
    """What counts as sharp in this shot."""

    school: Literal["viewing", "sensor", "pixel"]
    circle_um: float
    smallest_detail_um: Annotated[float, Field(description="The same in the subject.")]
    schools: list[SharpnessSchool]


class StopAnswer(Answer):
    """One marked stop on this rig."""

    f_number: float
    effective_f_number: float
    worst_contrast: Annotated[float, Field(description="Over the whole depth, focus placed best; signed.")]
    perfect_contrast: Annotated[float, Field(description="Where focus is perfect: diffraction alone.")]
    depth_of_field_mm: float
    frames: Annotated[int | None, Field(description="A rail stack at this stop; null: no depth, or out of reach.")]
    shutter_s: float


class DepthSchool(Answer):
    """Depth of field by one school at the chosen stop."""

    school: Literal["contrast", "geometric", "budget", "wave", "microscopy"]
    total_mm: float
    near_mm: Annotated[float, Field(description="From the plane of focus toward the camera.")]
    far_mm: Annotated[float | None, Field(description="From the plane of focus away; null: endless.")]


class ApertureAnswer(Answer):
    """The aperture chosen, and the one that would serve best."""

    f_number: Annotated[float, Field(description="Marked.")]
    effective_f_number: float
    stops_lost: float
    airy_um: float
    numerical_aperture: float
    depth_of_field_mm: float
    best_f_number: float
    best_worst_contrast: float
    schools: list[DepthSchool]
    stops: list[StopAnswer]


class LightAnswer(Answer):
    """Exposure at the chosen aperture."""

    shutter_s: float
    iso: float
    stops_lost: float
    stops_from_metered: Annotated[float, Field(description="Longer than metered, in stops.")]


class StackAnswer(Answer):
    """A focus stack in numbers."""

    step_mm: Annotated[float, Field(description="The step; for a ring the first one.")]
    largest_step_mm: float
    steps: int
    frames: int
    covering_frames: Annotated[int, Field(description="Without the spare ones.")]
    first_mm: Annotated[float, Field(description="Behind the nearest point.")]
    last_mm: float
    frames_per_depth: float
    crop: Annotated[float, Field(description="Share of the frame's width that a stack by ring costs.")]
    magnifications: Annotated[list[float], Field(description="At each frame of a ring; one for a rail.")]
    slabs: list[list[int]]


class WayAnswer(Answer):
    """One way to get the shot."""

    id: WayId
    kind: Literal["one_frame", "rail", "ring"]
    title: str
    note: str
    f_number: float
    effective_f_number: float
    cover: float
    worst_contrast: float
    worst_behind_nearest_mm: float
    frames: int
    time_s: float
    focuses_mm: Annotated[list[float], Field(description="Behind the nearest point, in shooting order.")]
    bands_mm: Annotated[list[list[float]], Field(description="Near and far end of what each frame holds sharp.")]
    against: list[str]
    stack: StackAnswer | None = None
    recommended: bool = False


class Verdict(Answer):
    """The shot in a sentence, as a colleague would say it."""

    headline: str
    detail: str
    way: WayId | None


class Plan(Answer):
    """The answer to a shot."""

    findings: list[Finding]
    reach: Reach | None = None
    sharpness: Sharpness | None = None
    aperture: ApertureAnswer | None = None
    light: LightAnswer | None = None
    focus_behind_nearest_mm: float | None = None
    ways: list[WayAnswer] = []
    verdict: Verdict


class ThroughFocus(Answer):
    """Contrast at the smallest detail, for every stop over the subject's depth and beyond."""

    f_numbers: list[float]
    from_mm: Annotated[float, Field(description="First sample, behind the nearest point.")]
    step_mm: float
    contrast_percent: Annotated[list[list[int]], Field(description="One row a stop, one entry a sample; signed.")]
