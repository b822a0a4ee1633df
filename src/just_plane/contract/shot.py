"""A shot: what must be sharp, with what it is taken, and how. This is also the shot file."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import FNumber, Length, LengthOrZero, Model, Ratio, Seconds, SecondsOrZero

FORMAT = "just-plane/shot"
VERSION = 1


class Subject(Model):
    """What is in front of the camera."""

    what: Annotated[str, Field(max_length=200)] = ""
    depth_mm: Annotated[LengthOrZero, Field(description="Along the axis: nearest to farthest point to be sharp.")]
    hold_still_s: Annotated[
        Seconds | None, Field(description="How long it keeps still or keeps its shape; null: for ever.")
    ] = None


class Picture(Model):
    """Where the picture will be seen."""

    width_mm: Annotated[Length, Field(description="Width of the print, or of the picture on the screen.")] = 400.0
    viewing_distance_mm: Annotated[Length, Field(description="Eye to print or screen.")] = 300.0
    share_of_frame: Annotated[
        float, Field(gt=0, le=1, description="Width of the frame that is left after cropping; 1 is all of it.")
    ] = 1.0


class Sharp(Model):
    """What counts as sharp, and how depth of field is reckoned."""

    school: Literal["viewing", "sensor", "pixel"] = "viewing"
    pixel_factor: Annotated[float, Field(gt=0, le=100, description="Pixels across the blur, for the pixel school.")] = (
        2.0
    )
    depth_school: Literal["contrast", "geometric", "budget", "wave", "microscopy"] = "contrast"
    contrast_threshold: Annotated[float, Field(ge=0.01, le=0.9, description="Least contrast that counts as sharp.")] = (
        0.2
    )
    wavelength_nm: Annotated[float, Field(ge=200, le=2000)] = 550.0


class Body(Model):
    """The camera body."""

    name: Annotated[str, Field(max_length=120)] = ""
    sensor_width_mm: Length
    sensor_height_mm: Length
    pixels_across: Annotated[int | None, Field(gt=0, le=1_000_000)] = None
    register_mm: Annotated[LengthOrZero, Field(description="Lens mount to sensor.")] = 18.0


class Lens(Model):
    """A lens, by the numbers of its data sheet."""

    name: Annotated[str, Field(max_length=120)] = ""
    focal_length_mm: Length
    widest_f_number: FNumber
    narrowest_f_number: FNumber
    stops: Annotated[Literal["full", "half", "third"], Field(description="How the aperture clicks.")] = "third"
    minimum_focus_distance_mm: Annotated[Length, Field(description="Subject to sensor mark at closest focus.")]
    closest_magnification: Annotated[Ratio, Field(description="At closest focus, nothing added.")]
    pupil_magnification: Annotated[
        float, Field(ge=0.1, le=10, description="Exit pupil diameter / entrance pupil diameter; 1 when not known.")
    ] = 1.0
    barrel_mm: Annotated[LengthOrZero, Field(description="Lens mount to front of glass, hood included, at infinity.")]
    barrel_growth_mm: Annotated[
        LengthOrZero, Field(description="How much longer the barrel is at closest focus; 0 when it focuses inside.")
    ] = 0.0


class FramingByWidth(Model):
    """Framing by what the frame takes in."""

    by: Literal["frame_width"]
    frame_width_mm: Length


class FramingByMagnification(Model):
    """Framing by size on the sensor."""

    by: Literal["magnification"]
    magnification: Ratio


Framing = Annotated[FramingByWidth | FramingByMagnification, Field(discriminator="by")]


class Aperture(Model):
    """The aperture in use."""

    f_number: FNumber
    reading: Annotated[
        Literal["marked", "effective"], Field(description="What the camera shows when focused close.")
    ] = "marked"


class Stack(Model):
    """How a stack is taken, where one frame does not do."""

    overlap: Annotated[float, Field(ge=0, le=0.9, description="Share of one frame's depth that the next has too.")] = (
        0.5
    )
    spare_before: Annotated[int, Field(ge=0, le=100)] = 1
    spare_after: Annotated[int, Field(ge=0, le=100)] = 1
    rail_smallest_step_mm: Annotated[Length | None, Field(description="Of the rail; null: not known.")] = None
    rail_travel_mm: Annotated[Length | None, Field(description="Of the rail; null: not known.")] = None
    settle_s: SecondsOrZero = 2.0
    recovery_s: Annotated[SecondsOrZero, Field(description="Writing the file or charging the flash.")] = 1.0
    noise_reduction: Annotated[bool, Field(description="The camera takes a dark frame after each exposure.")] = False


class Light(Model):
    """What the meter said, before anything was stopped down or moved."""

    metered_f_number: FNumber = 8.0
    metered_shutter_s: Seconds = 0.25
    metered_iso: Annotated[float, Field(ge=1, le=10_000_000)] = 100.0
    iso: Annotated[float, Field(ge=1, le=10_000_000, description="To shoot at.")] = 100.0
    meter: Annotated[
        Literal["through_lens", "hand_held"],
        Field(description="A meter behind the lens has seen the light lost to extension; one in the hand has not."),
    ] = "through_lens"


WayId = Literal["one", "one_best", "one_narrowest", "rail", "ring"]


class Shot(Model):
    """One shot, whole: enough to plan it again anywhere."""

    format: Literal["just-plane/shot"]
    version: Literal[1]
    name: Annotated[str, Field(min_length=1, max_length=120)]
    notes: Annotated[str, Field(max_length=4000)] = ""
    subject: Subject
    picture: Picture = Picture()
    sharp: Sharp = Sharp()
    body: Body
    lens: Lens
    tubes_mm: Annotated[list[Length], Field(max_length=8, description="Between body and lens, from the body.")] = []
    framing: Framing
    focus_behind_nearest_mm: Annotated[
        float | None,
        Field(ge=-100_000, le=100_000, description="Where one frame is focused; null puts it best."),
    ] = None
    aperture: Aperture
    stack: Stack = Stack()
    light: Light = Light()
    chosen_way: Annotated[WayId | None, Field(description="The way decided on; null: not decided.")] = None
