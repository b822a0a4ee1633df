"""A plan: everything the program works out for a shot. Numbers with their units in the name, reasons in sentences.

Places along the axis (``*_behind_nearest_mm``, bands) count from the nearest point that must be sharp, away from the
camera. A part that cannot be worked out is null, and a finding says why.
"""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer
from just_plane.contract.plane_plan import PlaneSection
from just_plane.contract.room_plan import RoomAnswer
from just_plane.contract.shot import WayId

Severity = Literal["trouble", "caution", "note"]
PieceKind = Literal[
    "body",
    "lens",
    "zoom",
    "objective",
    "tube",
    "bellows",
    "converter",
    "close_up",
    "step_ring",
    "reversing_ring",
    "coupling_ring",
]


class Finding(Answer):
    """Something the photographer should know, at the field that caused it."""

    severity: Severity
    code: str
    field: str
    message: str
    remedy: str = ""
    put_aside: Annotated[bool, Field(description="The photographer has read it and put it aside.")] = False


class Piece(Answer):
    """One piece of the rig as drawn, sensor to subject."""

    kind: PieceKind
    name: str
    index: Annotated[int | None, Field(description="In the shot's row; null: the body.")]
    from_sensor_mm: float
    length_mm: float
    width_mm: Annotated[float, Field(description="Across the axis, as far as it is known.")]
    reversed: bool


class Contribution(Answer):
    """What one piece does: the rig with it, less the rig without it, the ring left where it is."""

    index: int
    name: str
    magnification: Annotated[float | None, Field(description="Size it adds; null: without it there is no picture.")]
    stops: Annotated[float | None, Field(description="Light it costs.")]
    room_mm: Annotated[float | None, Field(description="Working distance it gives; null: endless without it.")]


class OrderAnswer(Answer):
    """The same pieces in another order, the ring left where it is."""

    words: str
    magnification: float
    frame_width_mm: float
    working_distance_mm: float
    stops_lost: float
    this: Annotated[bool, Field(description="It is the order of the row.")]


class CropAnswer(Answer):
    """What a crop mode of the body takes in."""

    name: str
    frame_width_mm: float
    frame_height_mm: float


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
    lens_magnification: Annotated[float, Field(description="At which the lens itself works.")]
    bellows_draw_mm: float | None
    entrance_pupil_mm: Annotated[float, Field(description="Plane of focus to entrance pupil.")]
    sensor_width_mm: Annotated[float, Field(description="Of the part of the sensor in use.")]
    sensor_height_mm: float
    is_fixed: Annotated[bool, Field(description="It gives one size only.")]
    widest_f_number: float
    narrowest_f_number: float
    size_uncertainty: Annotated[float | None, Field(description="Of a measured size, standard; null: modelled.")]
    measured_as: Annotated[list[str], Field(description="By which a measured size is kept for this rig.")]
    crops: list[CropAnswer]
    contributions: list[Contribution]
    orders: Annotated[list[OrderAnswer], Field(description="Where the order of the pieces matters.")]
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
    soft: Annotated[str, Field(description="How far under sharp over the depth, and for what it is enough; or empty.")]


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
    best_by: Annotated[
        Literal["contrast", "most_of_depth", "in_focus"],
        Field(
            description="What the best stop is best in: where none holds the depth, the most of it; or detail in focus."
        ),
    ]
    best_words: str
    schools: list[DepthSchool]
    stops: list[StopAnswer]


class LightAnswer(Answer):
    """Exposure at the chosen aperture."""

    shutter_s: float
    iso: float
    stops_lost: float
    stops_from_metered: Annotated[float, Field(description="Longer than metered, in stops.")]
    read: Annotated[bool, Field(description="From a reading that was taken; else from an assumed one.")]
    shutter_words: Annotated[str, Field(description="As cameras mark it.")]
    iso_for_wanted: Annotated[float | None, Field(description="That gives the shutter wanted; null: none is wanted.")]
    flash_f_number: Annotated[float | None, Field(description="Marked, at full power; null: no flash, or no distance.")]
    flash_down_stops: Annotated[
        float | None, Field(description="To turn the flash down for the stop in use; below 0: so much is missing.")
    ]
    words: Annotated[list[str], Field(description="What follows for the light, in sentences.")]


class StackAnswer(Answer):
    """A focus stack in numbers."""

    step_mm: Annotated[float, Field(description="The step; for a ring the first one.")]
    largest_step_mm: float
    steps: int
    frames: int
    covering_frames: Annotated[int, Field(description="Without the spare ones.")]
    first_mm: Annotated[float, Field(description="Behind the nearest point.")]
    last_mm: float
    first_rail_mm: Annotated[
        float | None, Field(description="Mark of the rail at the first frame; null: no point was read on the rail.")
    ] = None
    frames_per_depth: float
    crop: Annotated[float, Field(description="Share of the frame's width that a stack by ring costs.")]
    magnifications: Annotated[list[float], Field(description="At each frame of a ring; one for a rail.")]
    slabs: Annotated[list[list[int]], Field(description="First and last frame of each, of the frames kept.")]
    own: Annotated[bool, Field(description="Steps or count are the photographer's own, not worked out.")] = False
    gaps_mm: Annotated[
        list[list[float]], Field(description="Near and far end of what no frame holds, behind the nearest point.")
    ] = []
    series: Annotated[
        int | None, Field(description="By hand: series to take and merge together for nearly all; null: too many.")
    ] = None
    whole_share: Annotated[
        float | None, Field(description="By hand: share of the series that hold all of it; null: not by hand.")
    ] = None
    kept_frames: Annotated[int, Field(description="That are merged when only every so manyth is kept.")]
    kept_overlap: Annotated[float, Field(description="Of one kept frame's depth with the next; below 0: a gap.")]
    camera_words: Annotated[str, Field(description="How to set the camera's own focus step; empty: not tried.")]


class BackOffAnswer(Answer):
    """Standing back and cropping, in numbers."""

    factor: Annotated[float, Field(description="How many times smaller on the sensor; the crop makes up for it.")]
    magnification: float
    entrance_pupil_mm: Annotated[float, Field(description="Plane of focus to entrance pupil, from there.")]
    room_mm: Annotated[float, Field(description="Working distance from there.")]
    subject_to_sensor_mm: Annotated[float, Field(description="Plane of focus to sensor mark, from there.")]
    room_gained_mm: float
    pixels_across: Annotated[int | None, Field(description="Left after the crop; null: the body's are not known.")]
    equal_f_number: Annotated[float, Field(description="Marked stop that gives the same picture from the first place.")]
    equal_effective_f_number: float
    without: Annotated[
        list[int], Field(description="Places in the row of pieces to take out first: with them it focuses no farther.")
    ] = []


class WayAnswer(Answer):
    """One way to get the shot."""

    id: WayId
    kind: Literal["one_frame", "rail", "ring", "hand"]
    title: str
    note: str
    f_number: float
    effective_f_number: float
    cover: float
    worst_contrast: float
    worst_behind_nearest_mm: float
    frames: int
    time_s: float
    hold_s: Annotated[float, Field(description="From the first exposure to the last: the subject holds still so long.")]
    focuses_mm: Annotated[list[float], Field(description="Behind the nearest point, in shooting order.")]
    bands_mm: Annotated[list[list[float]], Field(description="Near and far end of what each frame holds sharp.")]
    against: list[str]
    soft: Annotated[str, Field(description="How far under sharp at its worst, and for what it is enough; or empty.")]
    feasible: Annotated[bool, Field(description="It can be carried out as things are.")]
    rank: Annotated[int, Field(description="1 is the recommended one.")]
    reason: Annotated[str, Field(description="Why it stands there, in a sentence.")]
    points_held: Annotated[int | None, Field(description="Of the points that must be sharp; null: no points.")] = None
    steady: "SteadyAnswer"
    stack: StackAnswer | None = None
    back_off: BackOffAnswer | None = None
    recommended: bool = False


class SteadyAnswer(Answer):
    """What movement and background mean for a way."""

    shutter_s: float
    subject_s: Annotated[float | None, Field(description="Longest shutter against its movement; null: it rests.")]
    hand_s: Annotated[float | None, Field(description="Longest shutter by hand; null: on a support.")]
    support_s: Annotated[float | None, Field(description="Longest on the support, as tried; null: not tried.")]
    settle_s: Annotated[float | None, Field(description="To wait after each move; null: no rail, or not known.")]
    background_um: Annotated[float | None, Field(description="Blur of the background on the sensor; null: none.")]
    background_share: Annotated[float | None, Field(description="The same, of the frame's width.")]


class AimAnswer(Answer):
    """Where to aim one frame when points differ in worth, the first of the list the most."""

    behind_nearest_mm: float
    behind_first_mm: Annotated[float, Field(description="Behind the point that matters most.")]
    slack_mm: Annotated[float, Field(description="To either side, and the same points are held.")]
    first: str
    held: list[str]
    missed: list[str]
    presses: Annotated[
        float | None,
        Field(description="Share of presses from the hand that come within it; null: on a support."),
    ]
    words: Annotated[list[str], Field(description="Both schools: what matters most, and the plane through the body.")]


class Verdict(Answer):
    """The shot in a sentence, as a colleague would say it."""

    headline: str
    detail: str
    way: WayId | None


class Plan(Answer):
    """The answer to a shot."""

    findings: list[Finding]
    depth_mm: Annotated[
        float, Field(description="That must be sharp: of the points where they are read, else as given.")
    ]
    depth_from_points: bool
    reach: Reach | None = None
    sharpness: Sharpness | None = None
    aperture: ApertureAnswer | None = None
    room: RoomAnswer | None = None
    light: LightAnswer | None = None
    plane: PlaneSection | None = None
    focus_behind_nearest_mm: float | None = None
    gear_cost: Annotated[float | None, Field(description="Of the pieces whose cost is typed; null: of none.")] = None
    gear_cost_unknown: Annotated[int, Field(description="Pieces whose cost is not typed.")] = 0
    ways: list[WayAnswer] = []
    aim: Annotated[AimAnswer | None, Field(description="null: no point is read.")] = None
    verdict: Verdict


class StepRow(Answer):
    """One frame of a way, in shooting order. Places in mm behind the nearest point."""

    frame: Annotated[int, Field(description="Counted from 1.")]
    spare: Annotated[bool, Field(description="Outside the depth, for safety.")]
    focus_behind_nearest_mm: float
    move_from_first_mm: float
    move_from_last_mm: Annotated[float | None, Field(description="null: the first frame.")]
    sharp_from_mm: float
    sharp_to_mm: float
    magnification: float
    rail_mark_mm: Annotated[float | None, Field(description="The rail's own mark; null: no point was read on it.")]
    knob_divisions: Annotated[float | None, Field(description="Of the knob, from the first frame; null: not known.")]
    knob_words: Annotated[str, Field(description="How far to turn it from the last frame; empty: not known.")]
    slabs: Annotated[list[int], Field(description="Slabs that it is merged in, counted from 1; empty: no slabs.")]
    kept: Annotated[bool, Field(description="It is merged; else it was taken and is left out.")]


class StepTable(Answer):
    """The steps of a way."""

    rows: list[StepRow]


class ThroughFocus(Answer):
    """Contrast at the smallest detail, for every stop over the subject's depth and beyond."""

    f_numbers: list[float]
    from_mm: Annotated[float, Field(description="First sample, behind the nearest point.")]
    step_mm: float
    contrast_percent: Annotated[list[list[int]], Field(description="One row a stop, one entry a sample; signed.")]
