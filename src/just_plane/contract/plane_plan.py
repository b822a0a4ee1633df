"""The plane section of a plan: points in the camera's terms, the setting that lays focus across them, and checks.

``across`` runs along the frame toward where the plane recedes, from the axis; ``behind_nearest`` along the axis, away
from the camera.
"""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer


class PointAnswer(Answer):
    """One point, worked out."""

    id: Annotated[str, Field(description="Of the point; the corners of a flat part share theirs.")]
    corner: Annotated[int | None, Field(description="Of a flat part, 0 to 3; null: a point by itself.")]
    name: str
    wanted: Literal["sharp", "soft"]
    from_left: float
    from_top: float
    behind_nearest_mm: Annotated[float | None, Field(description="null: not read yet.")] = None
    x_mm: float | None = None
    y_mm: float | None = None
    across_mm: float | None = None
    frame_width_mm: Annotated[float | None, Field(description="What the frame takes in at its depth.")] = None
    uncertainty_mm: Annotated[float | None, Field(description="Of its depth, standard; null: not known.")] = None
    off_plane_mm: Annotated[float | None, Field(description="Behind the plane that the setting lays.")] = None
    blur_um: Annotated[float | None, Field(description="On the sensor, with the setting, at the chosen stop.")] = None
    slack_mm: Annotated[float | None, Field(description="To the nearer face of the wedge; below 0: outside.")] = None
    slack_uncertainty_mm: Annotated[
        float | None, Field(description="Standard, from the readings of all points; null: none was read twice.")
    ] = None
    carries: Annotated[bool, Field(description="It carries the limit: no plane does better by it.")] = False
    fine: Annotated[bool | None, Field(description="As wanted with the setting; null: not known.")] = None
    expected_rail_mm: Annotated[float | None, Field(description="Mark at which it should be sharp, tilted.")] = None
    expected_ring_mm: Annotated[float | None, Field(description="Distance on the focus ring, likewise.")] = None


class PlaneLine(Answer):
    """A plane seen edge on in the side view: behind_nearest = at_axis_mm + slope * across."""

    at_axis_mm: float
    slope: float


class TiltAnswer(Answer):
    """How the lens is set."""

    tilt_deg: float
    tilt_uncertainty_deg: float | None
    faces_deg: Annotated[float, Field(description="Toward where the lens faces: 0 right, 90 up, -90 down.")]
    faces_uncertainty_deg: float | None
    faces: Annotated[str, Field(description="The same in words.")]
    rotation_deg: Annotated[float, Field(description="Of the mechanism, clockwise from how it rests, from behind.")]
    size_held_tilt_deg: Annotated[float, Field(description="When one steps to hold the size on the sensor instead.")]
    image_distance_mm: float
    focus_moves_mm: Annotated[float, Field(description="How much farther from the sensor the lens must stand.")]
    magnification: float
    hinge_mm: Annotated[float, Field(description="Lens to hinge line.")]
    hinge_across_mm: float
    hinge_behind_nearest_mm: float
    picture_moves_mm: Annotated[float | None, Field(description="On the sensor, by the pivot; null: not known.")]


class CircleAnswer(Answer):
    """The image circle against what tilt and shift ask of it."""

    radius_mm: Annotated[float | None, Field(description="null: not known.")]
    needed_mm: float
    inside: bool | None


class CheckAnswer(Answer):
    """One look at the camera."""

    point: str
    name: str
    rail_mm: float | None
    ring_mm: float | None
    words: str


class CorrectionAnswer(Answer):
    """What was read back, and what it says."""

    found_tilt_deg: float
    found_faces_deg: float
    more_deg: Annotated[float, Field(description="On the tilt scale; below 0: less.")]
    set_tilt_deg: float
    set_faces_deg: float
    within: Annotated[bool, Field(description="Near enough: every point holds, or the scale tells no finer.")]
    held: Annotated[bool, Field(description="What is left moves no point past its slack.")]
    words: str


class TurnAnswer(Answer):
    """Turning the camera square instead."""

    angle_deg: float
    toward: str
    depth_left_mm: float
    stretch: float
    keystone: float
    walk_mm: float
    shift_mm: Annotated[float, Field(description="That restores the framing when the camera turns on its place.")]
    shift_possible: bool
    words: str


class TurnRestAnswer(Answer):
    """Turning the camera only as far as the tilt needs it, the subject kept in the middle."""

    angle_deg: float
    toward_deg: Annotated[float, Field(description="Side of the frame to which the camera moves: 0 right, 90 up.")]
    toward: str
    tilt_deg: Annotated[float, Field(description="To be set then.")]
    faces_deg: float
    left_over_mm: Annotated[float, Field(description="Largest deviation from the plane laid then.")]
    words: str


class ShiftAnswer(Answer):
    """Shift with the sensor kept parallel."""

    right_mm: float
    up_mm: float
    possible: bool
    largest_right_mm: float
    largest_up_mm: float
    circle: CircleAnswer
    words: str


class JoinAnswer(Answer):
    """Frames shifted and joined."""

    frames: int
    shifts_mm: Annotated[list[float], Field(description="Along the side joined, evenly about the axis.")]
    overlap: float
    pixels_wide: Annotated[int | None, Field(description="Of the joined picture; null: pixels not known.")]
    pixels_high: int | None
    circle: CircleAnswer
    words: str


class StripAnswer(Answer):
    """The narrow strip."""

    tilt_deg: float
    faces_deg: float
    faces: str
    width_mm: Annotated[float | None, Field(description="null: the wedge never leaves the subject.")]
    line: PlaneLine
    words: str


class BlurMap(Answer):
    """Defocus over the frame, with what lies between the points taken from them; 100 is what may blur, signed."""

    way: str
    columns: int
    rows: int
    percent: Annotated[list[int], Field(description="Row by row from the top left; below 0 before the focus.")]


class BlurMaps(Answer):
    """Defocus over the frame, for the picture at Plane."""

    maps: list[BlurMap]


class CoveringAnswer(Answer):
    """What the setting holds at the widest stop that holds every point."""

    f_number: float
    allowed_blur_um: float
    blur_share: Annotated[float, Field(description="Blur of a point there / at the stop in use.")]
    near_face: PlaneLine | None
    far_face: PlaneLine | None


class PlaneSection(Answer):
    """Everything about the plane."""

    points: list[PointAnswer]
    steepest_deg: Annotated[float | None, Field(description="Subject angle this rig can follow; null: no tilt.")] = None
    azimuth_deg: Annotated[float, Field(description="Toward where the plane recedes; the side view is turned to it.")]
    half_field_mm: Annotated[float, Field(description="Of the frame along the azimuth, at the plane of focus.")]
    allowed_blur_um: Annotated[float, Field(description="What may blur on the sensor at the chosen stop.")]
    lens_behind_nearest_mm: Annotated[float, Field(description="Below 0: the lens stands before the nearest point.")]
    angle_deg: Annotated[float | None, Field(description="Of the plane from square; null: no plane.")] = None
    wanted: Annotated[PlaneLine | None, Field(description="Through the points.")] = None
    largest_deviation_mm: float | None = None
    across_assumed: Annotated[
        bool, Field(description="The points lie in one line; across it the plane is taken as square to the camera.")
    ] = False
    setting: TiltAnswer | None = None
    limited: Annotated[bool, Field(description="The lens cannot lay the plane wanted: this is the best it can.")] = (
        False
    )
    laid: Annotated[PlaneLine | None, Field(description="By the setting.")] = None
    near_face: PlaneLine | None = None
    far_face: PlaneLine | None = None
    left_over_mm: Annotated[float | None, Field(description="Largest deviation from the plane laid.")] = None
    turn_rest: Annotated[
        TurnRestAnswer | None, Field(description="The least turn of the camera after which the tilt reaches the plane.")
    ] = None
    covering_f_number: Annotated[float | None, Field(description="Widest stop that holds every point; null: none.")] = (
        None
    )
    covering: Annotated[
        CoveringAnswer | None, Field(description="The setting at that stop, where it is not the one in use.")
    ] = None
    circle: CircleAnswer | None = None
    steps: Annotated[list[str], Field(description="What to do at the lens, up to looking at the points.")] = []
    last_steps: Annotated[list[str], Field(description="What is left before the picture, once they are right.")] = []
    checks: list[CheckAnswer] = []
    correction: CorrectionAnswer | None = None
    turn: TurnAnswer | None = None
    shift: ShiftAnswer | None = None
    join: JoinAnswer | None = None
    strip: StripAnswer | None = None
