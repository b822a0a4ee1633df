"""Gear: what stands on the shelf and goes into a shot, each kind with the few numbers that people have on paper.

A shot holds copies, so that nothing done to the kit changes or breaks it; ``kit_id`` says what it was taken from. Null
means not known; the description says what is assumed then.
"""

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, ValidationInfo

from just_plane.contract.base import FNumber, Length, LengthOrZero, Model, Ratio
from just_plane.contract.measured import FocusUnit, MeasuredStill, MeasuredTimes, TriedAt
from just_plane.contract.piece import Grams, Piece
from just_plane.contract.set_gear import Diffuser, Light, Rail, Support

Aperture = Annotated[float, Field(gt=0, lt=1)]
PupilMagnification = Annotated[float, Field(ge=0.1, le=10)]

ASSUMED_PUPIL_MAGNIFICATION = 1.0
ASSUMED_THREAD_MM = 62.0
ASSUMED_BARREL_WIDTH_MM = 70.0


MOST_ASPECT = 10.0


def _no_strip(height: float, info: ValidationInfo) -> float:
    """Pictures are drawn so many pixels wide: of a strip they would have no end."""
    width = info.data.get(str(info.field_name).replace("height", "width"))
    if width is not None and max(height / width, width / height) > MOST_ASPECT:
        raise ValueError(f"The longer side may be at most {MOST_ASPECT:g} times the shorter.")
    return height


NoStrip = AfterValidator(_no_strip)


class CropMode(Model):
    """A part of the sensor that the body can use alone."""

    name: Annotated[str, Field(title="Name", min_length=1, max_length=60)]
    width_mm: Annotated[Length, Field(title="Width")]
    height_mm: Annotated[Length, Field(title="Height"), NoStrip]


class Body(Piece):
    """A camera body."""

    kind: Literal["body"]
    sensor_width_mm: Annotated[float, Field(title="Sensor width", ge=0.1, le=100_000)]
    sensor_height_mm: Annotated[float, Field(title="Sensor height", ge=0.1, le=100_000), NoStrip]
    pixels_across: Annotated[int | None, Field(title="Pixels across", gt=0, le=1_000_000)] = None
    register_mm: Annotated[LengthOrZero, Field(title="Mount to sensor", description="Lens mount to sensor.")] = 18.0
    crop_modes: Annotated[list[CropMode], Field(max_length=8)] = []
    measured_times: Annotated[MeasuredTimes | None, Field(description="Of dark frame and writing; null: not.")] = None
    measured_by_hand: Annotated[MeasuredStill | None, Field(description="Held by hand; null: not measured.")] = None


class LensPiece(Piece):
    """What primes and zooms have in common."""

    stops: Annotated[
        Literal["full", "half", "third"], Field(title="Aperture clicks by", description="How the aperture clicks.")
    ] = "third"
    barrel_growth_mm: Annotated[
        LengthOrZero,
        Field(
            title="Grows by", description="How much longer the barrel is at closest focus; 0 when it focuses inside."
        ),
    ] = 0.0
    hood_mm: Annotated[
        LengthOrZero,
        Field(title="Of that, hood", description="How much of the barrel is hood; taken off to reverse it."),
    ] = 0.0
    thread_mm: Annotated[Length | None, Field(title="Filter thread", description="Filter thread; null: not known.")] = (
        None
    )
    weight_g: Annotated[
        Grams | None, Field(title="Weight", description="null: not known, not weighed against tubes.")
    ] = None
    image_circle_mm: Annotated[
        Length | None, Field(title="Image circle", description="Diameter at infinity; null: covers the sensor just so.")
    ] = None
    aperture_ring: Annotated[
        bool, Field(title="Aperture ring on the lens", description="The aperture can be set on the lens itself.")
    ] = False
    foot: Annotated[
        bool, Field(title="Stands on a foot of its own", description="It can stand on a foot of its own.")
    ] = False
    made_to_magnification: Annotated[
        Ratio | None,
        Field(title="Made for sizes up to", description="Largest size it was made for; null: what it reaches alone."),
    ] = None
    tried: Annotated[list[TriedAt], Field(max_length=8, description="What trials measured of it.")] = []
    focus_units: Annotated[list[FocusUnit], Field(max_length=8, description="Camera units of its focus steps.")] = []


class Lens(LensPiece):
    """A lens of one focal length, by the numbers of its data sheet; macro and tilting lenses too."""

    kind: Literal["lens"]
    focal_length_mm: Annotated[Length, Field(title="Focal length")]
    widest_f_number: Annotated[FNumber, Field(title="Widest stop")]
    narrowest_f_number: Annotated[FNumber, Field(title="Narrowest stop")]
    minimum_focus_distance_mm: Annotated[
        Length | None,
        Field(
            title="Closest focus",
            description="Subject to sensor mark at closest focus; null: as a thin lens of this size there.",
        ),
    ] = None
    closest_magnification: Annotated[Ratio, Field(title="Size there", description="At closest focus, nothing added.")]
    smallest_magnification: Annotated[
        Ratio | None,
        Field(
            title="Smallest size",
            description="Of a lens for large sizes only, at the far end of its ring; null: it focuses to infinity.",
        ),
    ] = None
    working_distance_mm: Annotated[
        Length | None,
        Field(
            title="Room at the largest size",
            description="Front of the lens to the subject, of a lens for large sizes only; null: not known.",
        ),
    ] = None
    farthest_working_distance_mm: Annotated[
        Length | None,
        Field(title="Room at the smallest size", description="The same at its smallest size; null: not known."),
    ] = None
    pupil_magnification: Annotated[
        PupilMagnification | None,
        Field(title="Pupil magnification", description="Exit pupil / entrance pupil; null: not known, 1 is assumed."),
    ] = None
    barrel_mm: Annotated[
        LengthOrZero,
        Field(title="Barrel with hood", description="Lens mount to front of glass, hood included, at infinity."),
    ]
    tilt_deg: Annotated[float, Field(title="Tilts by up to", ge=0, le=45, description="Largest tilt; 0: none.")] = 0.0
    shift_mm: Annotated[float, Field(title="Shifts by up to", ge=0, le=100, description="Largest shift; 0: none.")] = (
        0.0
    )
    rotates: Annotated[
        Literal["no", "clicks", "freely"],
        Field(title="The mechanism turns", description="How the tilting mechanism turns about the axis."),
    ] = "no"
    click_apart_deg: Annotated[
        float | None,
        Field(
            title="Clicks lie apart",
            ge=0.1,
            le=180,
            description="Between two clicks, one of them unturned; null: it stays between clicks too.",
        ),
    ] = None
    pivot_behind_node_mm: Annotated[
        float | None,
        Field(
            title="Tilt pivot behind the node",
            ge=-500,
            le=500,
            description="From the lens's node back to the point the tilt turns about; null: unknown.",
        ),
    ] = None
    measured_focal_length_mm: Annotated[
        Length | None,
        Field(title="Measured focal length", description="At infinity, measured; wins over the marked one."),
    ] = None
    measured_closest_focal_length_mm: Annotated[
        Length | None,
        Field(title="Measured, at closest", description="At closest focus, measured; wins over the data sheet's."),
    ] = None
    measured_pupil_magnification: Annotated[
        PupilMagnification | None, Field(title="Measured pupils", description="Measured; wins over the one given.")
    ] = None


class ZoomEnd(Model):
    """One end of a zoom."""

    focal_length_mm: Annotated[Length, Field(title="Focal length")]
    widest_f_number: Annotated[FNumber, Field(title="Widest stop")]
    narrowest_f_number: Annotated[FNumber, Field(title="Narrowest stop")]
    minimum_focus_distance_mm: Annotated[Length, Field(title="Closest focus there")]
    closest_magnification: Annotated[
        Ratio | None,
        Field(title="Size there", description="null: as it follows when this end breathes as the other does."),
    ] = None
    pupil_magnification: Annotated[PupilMagnification | None, Field(title="Pupil magnification")] = None
    barrel_mm: Annotated[LengthOrZero, Field(title="Barrel with hood")]


class Zoom(LensPiece):
    """A zoom lens, by what its data sheet says at both ends."""

    kind: Literal["zoom"]
    short: ZoomEnd
    long: ZoomEnd


class Tube(Piece):
    """An extension tube."""

    kind: Literal["tube"]
    length_mm: Annotated[Length, Field(title="Length")]
    contacts: Annotated[bool, Field(title="Contacts", description="Passes aperture and autofocus on.")] = True
    carries_g: Annotated[Grams | None, Field(title="Carries", description="Weight it may carry; null: not known.")] = (
        None
    )


class Bellows(Piece):
    """Bellows."""

    kind: Literal["bellows"]
    shortest_mm: Annotated[Length, Field(title="Shortest")]
    longest_mm: Annotated[Length, Field(title="Longest")]
    contacts: Annotated[bool, Field(title="Contacts")] = False
    carries_g: Annotated[Grams | None, Field(title="Carries")] = None


class Converter(Piece):
    """A teleconverter."""

    kind: Literal["converter"]
    factor: Annotated[float, Field(title="Factor", gt=1, le=10)]
    thickness_mm: Annotated[Length, Field(title="Mount to mount", description="Between its mounts.")] = 20.0
    contacts: Annotated[bool, Field(title="Contacts")] = True
    reaches_in: Annotated[
        bool,
        Field(
            title="Front glass reaches into the lens", description="Its front glass stands out into the lens before it."
        ),
    ] = False


class CloseUp(Piece):
    """A close-up lens for the filter thread."""

    kind: Literal["close_up"]
    dioptres: Annotated[float, Field(title="Dioptres", ge=0, le=100)]
    thread_mm: Annotated[Length | None, Field(title="Thread")] = None
    thickness_mm: Annotated[LengthOrZero, Field(title="Thickness")] = 6.0


class StepRing(Piece):
    """A ring from one filter thread to another."""

    kind: Literal["step_ring"]
    lens_thread_mm: Annotated[Length, Field(title="Toward the lens", description="On the side of the lens.")]
    front_thread_mm: Annotated[Length, Field(title="Toward the front", description="On the side of what it carries.")]
    thickness_mm: Annotated[LengthOrZero, Field(title="Thickness")] = 4.0


class ReversingRing(Piece):
    """A ring that holds a lens by its filter thread on the body's mount."""

    kind: Literal["reversing_ring"]
    thread_mm: Annotated[Length, Field(title="Thread")]
    thickness_mm: Annotated[
        LengthOrZero, Field(title="Thickness", description="Body's mount to the lens's thread.")
    ] = 7.0


class CouplingRing(Piece):
    """A ring that holds a second lens, front to front."""

    kind: Literal["coupling_ring"]
    lens_thread_mm: Annotated[Length, Field(title="Lens on the camera")]
    front_thread_mm: Annotated[Length, Field(title="Lens in front")]
    thickness_mm: Annotated[LengthOrZero, Field(title="Thickness")] = 5.0


class Objective(Piece):
    """A microscope objective."""

    kind: Literal["objective"]
    magnification: Annotated[Ratio, Field(title="Engraved size", description="As engraved.")]
    numerical_aperture: Annotated[Aperture, Field(title="Numerical aperture")]
    correction: Annotated[
        Literal["finite", "infinity"],
        Field(title="Corrected for", description="finite: makes its own image; infinity: needs a tube lens."),
    ] = "infinity"
    tube_length_mm: Annotated[
        Length, Field(title="Tube length", description="Finite: shoulder to the image it is engraved for.")
    ] = 150.0
    reference_focal_length_mm: Annotated[
        Length,
        Field(
            title="Engraved for a lens of", description="Infinity: focal length of the tube lens it is engraved for."
        ),
    ] = 200.0
    working_distance_mm: Annotated[
        Length, Field(title="Working distance", description="Front of the glass to the subject.")
    ] = 10.0
    barrel_mm: Annotated[
        LengthOrZero, Field(title="Shoulder to front", description="Shoulder to front of the glass.")
    ] = 35.0
    iris_to: Annotated[
        Aperture | None,
        Field(title="Iris closes to", description="Smallest numerical aperture its iris closes to; null: no iris."),
    ] = None


ChainGear = Annotated[
    Lens | Zoom | Tube | Bellows | Converter | CloseUp | StepRing | ReversingRing | CouplingRing | Objective,
    Field(discriminator="kind"),
]
SetGear = Annotated[Rail | Light | Diffuser | Support, Field(discriminator="kind")]
Gear = Annotated[
    Body
    | Lens
    | Zoom
    | Tube
    | Bellows
    | Converter
    | CloseUp
    | StepRing
    | ReversingRing
    | CouplingRing
    | Objective
    | Rail
    | Light
    | Diffuser
    | Support,
    Field(discriminator="kind"),
]
KINDS: dict[str, type[Piece]] = {
    "body": Body,
    "lens": Lens,
    "zoom": Zoom,
    "objective": Objective,
    "tube": Tube,
    "bellows": Bellows,
    "converter": Converter,
    "close_up": CloseUp,
    "step_ring": StepRing,
    "reversing_ring": ReversingRing,
    "coupling_ring": CouplingRing,
    "rail": Rail,
    "light": Light,
    "diffuser": Diffuser,
    "support": Support,
}
KIND_WORDS: dict[str, tuple[str, str]] = {
    "body": ("body", "Bodies"),
    "lens": ("lens", "Lenses"),
    "zoom": ("zoom", "Zooms"),
    "objective": ("objective", "Objectives"),
    "tube": ("tube", "Tubes"),
    "bellows": ("bellows", "Bellows"),
    "converter": ("converter", "Converters"),
    "close_up": ("close-up lens", "Close-up lenses"),
    "step_ring": ("step ring", "Step rings"),
    "reversing_ring": ("reversing ring", "Reversing rings"),
    "coupling_ring": ("coupling ring", "Coupling rings"),
    "rail": ("rail", "Rails"),
    "light": ("light", "Lights"),
    "diffuser": ("diffuser", "Diffusers"),
    "support": ("support", "Supports"),
}
"""What one of each kind is called, and a shelf of them."""
CHAIN_KINDS = tuple(kind for kind in KINDS if kind not in ("body", "rail", "light", "diffuser", "support"))
