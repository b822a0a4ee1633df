"""A shot: what must be sharp, with what it is taken, and how. This is also the shot file."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from just_plane.contract.base import FNumber, Length, LengthOrZero, Model, Ratio, Seconds, SecondsOrZero, Speed
from just_plane.contract.gear import Body, ChainGear, SetGear
from just_plane.contract.older import newer_shot
from just_plane.contract.piece import KitId
from just_plane.contract.points import PlaneWork

FORMAT = "just-plane/shot"
VERSION = 2


class Subject(Model):
    """What is in front of the camera."""

    what: Annotated[str, Field(title="Subject", max_length=200)] = ""
    nature: Annotated[
        Literal["thing", "food", "plant", "animal", "person", "liquid"],
        Field(title="It is", description="What it is; decides which cautions are shown."),
    ] = "thing"
    depth_mm: Annotated[
        LengthOrZero, Field(title="Depth", description="Along the axis: nearest to farthest point to be sharp.")
    ]
    hold_still_s: Annotated[
        Seconds | None,
        Field(title="Holds still for", description="How long it keeps still or keeps its shape; null: for ever."),
    ] = None
    moves_mm_s: Annotated[
        Speed | None,
        Field(title="Moves, mm a second", description="How fast it moves across the view; null: not at all."),
    ] = None
    crosses: Annotated[
        bool,
        Field(
            title="A near part crosses in front of a far one",
            description="Hairs, petals, stacked pieces: such a stack is merged in slabs.",
        ),
    ] = False
    background_mm: Annotated[
        Length | None,
        Field(title="Background behind", description="From the farthest point to the background; null: no matter."),
    ] = None


class Picture(Model):
    """Where the picture will be seen."""

    width_mm: Annotated[
        Length, Field(title="Picture width", description="Width of the print, or of the picture on the screen.")
    ] = 300.0
    viewing_distance_mm: Annotated[
        float, Field(title="Seen from", ge=1, le=100_000, description="Eye to print or screen.")
    ] = 310.0
    share_of_frame: Annotated[
        float,
        Field(
            title="Left after crop",
            ge=0.001,
            le=1,
            description="Width of the frame that is left after cropping; 1 is all of it.",
        ),
    ] = 1.0


class Sharp(Model):
    """What counts as sharp, and how depth of field is reckoned."""

    school: Annotated[Literal["viewing", "sensor", "pixel"], Field(title="What counts as sharp")] = "viewing"
    pixel_factor: Annotated[
        float,
        Field(
            title="Pixels across the blur", gt=0, le=100, description="Pixels across the blur, for the pixel school."
        ),
    ] = 2.0
    depth_school: Annotated[
        Literal["contrast", "geometric", "budget", "wave", "microscopy"], Field(title="Depth of field by")
    ] = "contrast"
    contrast_threshold: Annotated[
        float, Field(title="Least contrast", ge=0.01, le=0.9, description="Least contrast that counts as sharp.")
    ] = 0.2
    wavelength_nm: Annotated[float, Field(title="Wavelength", ge=200, le=2000)] = 550.0


class Placed(Model):
    """One piece in the row from subject to sensor."""

    gear: ChainGear
    reversed: Annotated[bool, Field(title="Turned round", description="A lens turned round.")] = False
    at_focal_length_mm: Annotated[
        Length | None, Field(title="Zoom set to", description="Of a zoom: where it is set; null: its long end.")
    ] = None
    f_number: Annotated[
        FNumber | None,
        Field(title="Its own stop", description="Of a lens that faces another: its own stop; null: wide open."),
    ] = None


class Standing(Model):
    """Something that stands on the set."""

    gear: SetGear
    from_axis_deg: Annotated[
        float | None,
        Field(
            title="From the axis, degrees",
            ge=0,
            le=180,
            description="Seen from the subject: 0 at the lens, 90 beside, 180 behind the subject; null: not known.",
        ),
    ] = None
    away_mm: Annotated[
        Length | None,
        Field(title="From the subject", description="From the plane of focus to its middle; null: not known."),
    ] = None
    side: Annotated[
        Literal["left", "right"], Field(title="Side", description="Of the axis, as the camera sees it.")
    ] = "left"


class MeasuredSize(Model):
    """The size of a ruler photographed through this rig; the model is corrected by it at every setting."""

    magnification: Ratio
    uncertainty: Annotated[float, Field(ge=0, le=1000, description="Standard uncertainty.")]
    modelled: Annotated[Ratio, Field(description="What the model gave at the same setting.")]


class FramingByWidth(Model):
    """Framing by what the frame takes in."""

    by: Literal["frame_width"]
    frame_width_mm: Annotated[Length, Field(title="Frame width")]


class FramingByMagnification(Model):
    """Framing by size on the sensor."""

    by: Literal["magnification"]
    magnification: Annotated[Ratio, Field(title="Magnification")]


class FramingClosest(Model):
    """Framing by what the rig gives: at its closest focus, or the one size of a rig that has only one."""

    by: Literal["closest"]


Framing = Annotated[FramingByWidth | FramingByMagnification | FramingClosest, Field(discriminator="by")]


class Aperture(Model):
    """The aperture in use."""

    f_number: Annotated[FNumber, Field(title="Aperture")]
    reading: Annotated[
        Literal["marked", "effective", "with_converter"],
        Field(
            title="The camera shows",
            description="What the camera shows: the number engraved, the one that works up close, or the engraved one "
            "times the converter.",
        ),
    ] = "marked"


class Stack(Model):
    """How a stack is taken, where one frame does not do."""

    overlap: Annotated[
        float, Field(title="Overlap", ge=0, le=0.9, description="Share of one frame's depth that the next has too.")
    ] = 0.5
    spare_before: Annotated[int, Field(title="Spare before", ge=0, le=100)] = 1
    spare_after: Annotated[int, Field(title="Spare behind", ge=0, le=100)] = 1
    slabs: Annotated[
        Literal["as_needed", "always", "never"],
        Field(title="Merge in slabs", description="As needed: where parts cross, and past sixty frames."),
    ] = "as_needed"
    keep_every: Annotated[
        int,
        Field(title="Keep every", ge=1, le=20, description="Of an automatic set: every how manyth frame is merged."),
    ] = 1
    own_frames: Annotated[
        int | None,
        Field(title="Own count", ge=1, le=5000, description="Of frames, all of them; null: as many as it takes."),
    ] = None
    own_step_mm: Annotated[
        Length | None, Field(title="Own step", description="Between two frames; null: by depth of field and overlap.")
    ] = None
    own_step_marks: Annotated[
        float | None,
        Field(title="Step in marks", gt=0, le=1_000_000, description="Of the knob of a rail; wins over mm."),
    ] = None
    own_step_units: Annotated[
        int | None,
        Field(
            title="Step in camera units",
            ge=1,
            le=100_000,
            description="Of the camera's focus drive, kept with this lens and stop; wins over mm for a focus ring.",
        ),
    ] = None
    own_first_mm: Annotated[
        float | None,
        Field(
            title="First frame at",
            ge=-100_000,
            le=100_000,
            description="Behind the nearest point, of steps of one's own; null: on the nearest point.",
        ),
    ] = None
    rail_name: Annotated[str, Field(max_length=120)] = ""
    rail_kit_id: KitId | None = None
    rail_smallest_step_mm: Annotated[
        Length | None, Field(title="Smallest step", description="Of the rail; null: not known.")
    ] = None
    rail_travel_mm: Annotated[Length | None, Field(title="Travel", description="Of the rail; null: not known.")] = None
    rail_mm_per_turn: Annotated[
        Length | None, Field(title="A turn moves", description="Of the rail's knob; null: not known.")
    ] = None
    rail_divisions: Annotated[
        int | None, Field(title="Divisions a turn", ge=1, le=100_000, description="Marks on the knob; null: not known.")
    ] = None
    rail_play_mm: Annotated[LengthOrZero | None, Field(title="Play", description="Of the rail; null: not known.")] = (
        None
    )
    settle_s: Annotated[SecondsOrZero, Field(title="Settle after a move")] = 2.0
    recovery_s: Annotated[
        SecondsOrZero, Field(title="Write or recharge", description="Writing the file or charging the flash.")
    ] = 1.0
    noise_reduction: Annotated[
        bool,
        Field(
            title="Camera takes a dark frame after each",
            description="The camera takes a dark frame after each exposure.",
        ),
    ] = False


class Steadiness(Model):
    """What holds the camera, and how it moves."""

    held: Annotated[Literal["support", "hand"], Field(title="The camera is")] = "support"
    stabiliser_stops: Annotated[
        float, Field(title="Stabiliser, stops", ge=0, le=12, description="Of a stabiliser, held by hand.")
    ] = 0.0
    hand_sways_mm: Annotated[
        Length | None,
        Field(
            title="Hand sways by",
            description="Along the lens, standard deviation; null: as hands that lean on something, 0.4 mm.",
        ),
    ] = None
    rail_swings_um: Annotated[
        float | None,
        Field(
            title="Rail swings by, µm",
            gt=0,
            le=100_000,
            description="To either side, right after a move; null: not known.",
        ),
    ] = None
    rail_calms_s: Annotated[
        Seconds, Field(title="Rail calms in", description="Time in which the swing falls to a third (1/e).")
    ] = 0.3


class Light(Model):
    """What the meter said, before anything was stopped down or moved."""

    read: Annotated[
        bool,
        Field(title="Read on a meter", description="The reading was taken; else it is assumed and warns of nothing."),
    ] = False
    metered_f_number: Annotated[FNumber, Field(title="Meter said")] = 8.0
    metered_shutter_s: Annotated[Seconds, Field(title="Metered shutter")] = 0.25
    metered_iso: Annotated[float, Field(title="Metered ISO", ge=1, le=10_000_000)] = 100.0
    iso: Annotated[float, Field(title="Shoot at ISO", ge=1, le=10_000_000, description="To shoot at.")] = 100.0
    compensation_stops: Annotated[
        float,
        Field(title="Correction, stops", ge=-10, le=10, description="Above 0 lighter than metered: white on white."),
    ] = 0.0
    wanted_shutter_s: Annotated[
        Seconds | None, Field(title="Shutter wanted", description="For which an ISO is worked out; null: any will do.")
    ] = None
    flash_guide_number_m: Annotated[
        float | None,
        Field(title="Guide number, m", ge=0.1, le=1000, description="Metres, at ISO 100; null: no flash."),
    ] = None
    flash_distance_mm: Annotated[Length | None, Field(title="Flash to subject", description="null: not known.")] = None
    meter: Annotated[
        Literal["through_lens", "hand_held"],
        Field(
            title="Metered",
            description="A meter behind the lens has seen the light lost to extension; one in the hand has not.",
        ),
    ] = "through_lens"


Heading = Annotated[str, Field(max_length=120)]
WayId = Literal[
    "one",
    "one_best",
    "one_narrowest",
    "tilt",
    "tilt_best",
    "turn",
    "back_off",
    "hand",
    "rail",
    "ring",
    "tilt_rail",
    "tilt_ring",
    "strip",
]


class OtherWay(Model):
    """A way of another shot, to compare with."""

    shot_id: Annotated[str, Field(min_length=8, max_length=40, pattern="^[0-9A-Za-z_-]+$")]
    way: Annotated[WayId | None, Field(description="null: the one decided on there, else the recommended one.")] = None


class Shot(Model):
    """One shot, whole: enough to plan it again anywhere."""

    format: Literal["just-plane/shot"]
    version: Literal[2]
    name: Annotated[str, Field(title="Name", min_length=1, max_length=120)]
    notes: Annotated[str, Field(title="Notes", max_length=4000)] = ""
    heading: Annotated[
        Heading, Field(title="Heading", description="Under which shots of a day or a job stand together; may be empty.")
    ] = ""
    subject: Subject
    picture: Picture = Picture()
    sharp: Sharp = Sharp()
    body: Body
    crop_mode: Annotated[
        str | None,
        Field(title="Part of the sensor", max_length=60, description="Of the body, by name; null: whole sensor."),
    ] = None
    camera_on_its_side: Annotated[
        bool,
        Field(
            title="Camera on its side",
            description="The picture stands upright: what is wide of the sensor is high of the frame.",
        ),
    ] = False
    rig: Annotated[
        list[Placed], Field(max_length=16, description="The row of pieces from the subject to the body's mount.")
    ]
    measured: MeasuredSize | None = None
    framing: Framing
    back_off_factor: Annotated[
        float | None,
        Field(
            title="Back off by, times",
            gt=1,
            le=8,
            description="How many times smaller on the sensor, cropped to the same picture; null: until it holds all.",
        ),
    ] = None
    focus_behind_nearest_mm: Annotated[
        float | None,
        Field(
            title="Focus behind nearest",
            ge=-100_000,
            le=100_000,
            description="Where one frame is focused; null puts it best.",
        ),
    ] = None
    aperture: Aperture
    plane: PlaneWork = PlaneWork()
    stack: Stack = Stack()
    steadiness: Steadiness = Steadiness()
    light: Light = Light()
    on_set: Annotated[list[Standing], Field(max_length=16, description="Lights, diffusers, supports.")] = []
    put_aside: Annotated[
        list[Annotated[str, Field(max_length=80)]],
        Field(max_length=100, description="Cautions that were read and put aside, by their codes."),
    ] = []
    chosen_way: Annotated[WayId | None, Field(description="The way decided on; null: not decided.")] = None
    pinned: Annotated[list[WayId], Field(max_length=4, description="Ways kept in sight side by side.")] = []
    beside: Annotated[
        list[OtherWay], Field(max_length=3, description="Ways of other shots kept beside them: by other rigs.")
    ] = []

    @model_validator(mode="before")
    @classmethod
    def _take_older_versions(cls, document):
        return newer_shot(document)
