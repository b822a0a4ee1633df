"""Points of the subject that must be sharp, or should stay soft, and what is read at the camera about them."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from just_plane.contract.base import Length, Model

PointId = Annotated[str, Field(min_length=1, max_length=24, pattern="^[0-9a-z-]+$")]
RailMark = Annotated[float, Field(ge=-100_000, le=100_000)]
Share = Annotated[float, Field(ge=0, le=1)]
Direction = Annotated[float, Field(ge=-360, le=360, description="0 right, 90 up, as seen from behind the camera.")]


class ByRail(Model):
    """Depth by the rail: where the camera stands when the point is sharp, the lens not tilted, its ring left alone."""

    by: Literal["rail"]
    readings_mm: Annotated[list[RailMark], Field(max_length=20, description="One or more; empty: not read yet.")] = []


class ByTape(Model):
    """Depth by a tape, from the sensor mark, along the lens's axis."""

    by: Literal["tape"]
    readings_mm: Annotated[list[Length], Field(max_length=20, description="One or more; empty: not read yet.")] = []


class ByAngle(Model):
    """A flat part of the subject, by its angle: its corners are points like any other."""

    by: Literal["angle"]
    angle_deg: Annotated[
        float, Field(title="From square", ge=0, lt=90, description="From square to the camera; 90 is edge on.")
    ]
    recedes_deg: Annotated[
        Direction, Field(title="Recedes toward", description="Toward where it recedes: 0 right, 90 up.")
    ] = 90.0
    length_mm: Annotated[Length, Field(title="Long that way", description="On the surface, the way it recedes.")]
    width_mm: Annotated[Length, Field(title="Wide", description="On the surface, across.")]
    readings_mm: Annotated[
        list[RailMark], Field(max_length=20, description="Of the rail, at its middle; needed only beside other points.")
    ] = []


class Point(Model):
    """A named place in the subject."""

    id: PointId
    name: Annotated[str, Field(title="Name", max_length=60)] = ""
    wanted: Annotated[Literal["sharp", "soft"], Field(title="It")] = "sharp"
    from_left: Annotated[Share, Field(description="Place on the frame, as a share of its width.")]
    from_top: Annotated[Share, Field(description="Place on the frame, as a share of its height.")]
    depth: Annotated[ByRail | ByTape | ByAngle, Field(discriminator="by")]


class PointRead(Model):
    """What was read at one point with the lens tilted."""

    point: PointId
    reading_mm: RailMark


class ReadBack(Model):
    """Readings taken with the lens tilted, to see how much more or less it takes."""

    by: Annotated[
        Literal["rail", "ring"],
        Field(title="Read", description="The rail's mark, or the distance on the focus ring, where each is sharp."),
    ] = "rail"
    tilt_deg: Annotated[
        float, Field(title="Tilt scale shows", ge=0, le=45, description="On the tilt scale, when they were read.")
    ]
    faces_deg: Annotated[
        Direction, Field(title="Lens faces", description="Toward where the lens faced: 0 right, -90 down.")
    ]
    readings: Annotated[list[PointRead], Field(max_length=60)] = []


class ShiftWanted(Model):
    """What shift is wanted for; mm in the subject."""

    right_mm: Annotated[
        float,
        Field(title="Subject lies right by", ge=-10_000, le=10_000, description="How far right of the axis it lies."),
    ] = 0.0
    up_mm: Annotated[
        float, Field(title="Subject lies up by", ge=-10_000, le=10_000, description="How far above the axis it lies.")
    ] = 0.0
    joined_along: Annotated[
        Literal["width", "height"],
        Field(
            title="Frames joined along the frame's",
            description="Side of the frame along which frames are shifted and joined.",
        ),
    ] = "width"
    joined_mm: Annotated[
        Length | None,
        Field(title="Joined to", description="Of a picture joined from shifted frames, along that side; null: none."),
    ] = None
    joined_overlap: Annotated[float, Field(title="In common at least", ge=0, le=0.9)] = 0.3


class StripWanted(Model):
    """A narrow strip of sharpness through two points: the deliberate opposite."""

    first: PointId
    second: PointId
    tilt_deg: Annotated[
        float | None, Field(title="Strip's tilt", gt=0, le=45, description="null: all that the lens has.")
    ] = None


class PlaneWork(Model):
    """The work at the plane: points, how the rail counts, what was read back, what else is wanted."""

    points: Annotated[list[Point], Field(max_length=60)] = []
    photograph: Annotated[
        str | None, Field(pattern="^[0-9a-f]{32}$", description="A framing photograph kept here; null: none.")
    ] = None
    rail_counts: Annotated[
        Literal["toward", "away"],
        Field(title="The rail's marks grow", description="Whether the rail's marks grow toward the subject."),
    ] = "toward"
    rail_at_mm: Annotated[
        RailMark | None,
        Field(
            title="Camera stood at, for the tape",
            description="Where the camera stands on the rail; ties tape and rail together.",
        ),
    ] = None
    read_back: ReadBack | None = None
    shift: ShiftWanted = ShiftWanted()
    strip: StripWanted | None = None

    @model_validator(mode="before")
    @classmethod
    def _tell_points_apart(cls, document):
        """Two points with one id would be moved and removed together: a later one gets an id of its own."""
        points = document.get("points") if isinstance(document, dict) else None
        if not isinstance(points, list):
            return document
        taken: set = set()
        return {**document, "points": [_with_own_id(point, taken) for point in points]}


def _with_own_id(point, taken):
    wanted = point.get("id") if isinstance(point, dict) else getattr(point, "id", None)
    if not isinstance(wanted, str):
        return point
    own, number = wanted, 2
    while own in taken:
        own, number = f"{wanted[:18]}-{number}", number + 1
    taken.add(own)
    if own == wanted:
        return point
    return {**point, "id": own} if isinstance(point, dict) else point.model_copy(update={"id": own})
