"""What goes over HTTP besides shots and plans."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer, Model
from just_plane.contract.kit import Kit
from just_plane.contract.plan import Finding
from just_plane.contract.shot import Heading, Shot, WayId
from just_plane.contract.words import FieldProblem


class Problem(Answer):
    """Any refusal, as application/problem+json: what is wrong, where, what would work."""

    title: str
    status: int
    code: str
    detail: Annotated[str, Field(description="What is wrong and why, in a sentence.")]
    remedy: Annotated[str, Field(description="What would work; may be empty.")] = ""
    field: Annotated[str, Field(description="JSON pointer into the body; may be empty.")] = ""
    problems: Annotated[list[FieldProblem], Field(description="Every field at fault.")] = []


class KeptShotAnswer(Answer):
    """A shot as it is kept, with what undo and redo can do."""

    shot_id: str
    revision: int
    saved_at: str
    can_undo: bool
    can_redo: bool
    removed: bool
    shot: Shot


class LineSaid(Answer):
    """What the list says of a shot; kept with its revision."""

    name: str
    what: str
    headline: Annotated[str, Field(description="The plan's verdict.")]
    magnification: float | None
    depth_mm: float
    heading: str = ""
    hold_still_s: Annotated[float | None, Field(description="null: for ever.")] = None


class ShotLine(LineSaid):
    """One line of the list of shots."""

    shot_id: str
    revision: int
    saved_at: str
    damaged: Annotated[bool, Field(description="It cannot be read as it was last saved; the others can.")] = False


class ShotList(Answer):
    """A page of the shots, last changed first."""

    shots: list[ShotLine]
    next: Annotated[str, Field(description="The page behind this one, for after; empty: there is none.")]
    headings: Annotated[list[str], Field(description="Under which shots stand.")] = []


Continues = Annotated[
    bool, Field(description="It goes on with the change saved last, and takes its place: undo goes back before both.")
]


class SaveShot(Model):
    """A changed shot and the revision it was changed from."""

    base_revision: Annotated[int, Field(ge=0, le=9_000_000_000_000_000)]
    shot: Shot
    continues: Continues = False


class BaseRevision(Model):
    """The revision the caller last saw."""

    base_revision: Annotated[int, Field(ge=0, le=9_000_000_000_000_000)]


class UnitsQuery(Model):
    """How sentences speak of lengths."""

    units: Literal["mm", "in"] = "mm"


class ListQuery(UnitsQuery):
    """Which shots to list."""

    removed: Literal["no", "yes"] = "no"
    after: Annotated[
        str,
        Field(
            max_length=60,
            pattern="^$|^[0-9]{1,9}$|^[0-9TZ:.+-]{20,40}_[0-9]{1,16}$",
            description="next of the page before.",
        ),
    ] = ""
    text: Annotated[str, Field(max_length=120, description="In name, subject, heading or notes; empty: any.")] = ""
    heading: Annotated[Heading, Field(description="Under which they stand; empty: any.")] = ""
    sort: Annotated[
        Literal["changed", "name", "hold", "depth"],
        Field(description="Last changed first, by name, what holds still shortest first, or the deepest first."),
    ] = "changed"


class StepsQuery(Model):
    """Which way's table to give; none: the recommended one."""

    way: Literal[""] | WayId = ""


class ShotPath(Model):
    """A shot in the address."""

    shot_id: Annotated[str, Field(min_length=8, max_length=40, pattern="^[0-9a-f]+$")]


class ThroughFocusAsked(Model):
    """The shot and the stretch of the axis to map."""

    shot: Shot
    from_mm: Annotated[float, Field(ge=-100_000, le=100_000)]
    to_mm: Annotated[float, Field(ge=-100_000, le=100_000)]


class StepsAsked(Model):
    """Which way of a shot to list."""

    shot: Shot
    way: WayId


class PhotographPath(Model):
    """A framing photograph in the address."""

    photograph_id: Annotated[str, Field(pattern="^[0-9a-f]{32}$")]


class KeptPhotograph(Answer):
    """A framing photograph as it is kept."""

    photograph: str
    width_px: int
    height_px: int


class PreviewAsked(Model):
    """Which way to picture, and what of it."""

    shot: Shot
    way: WayId
    zoom: Annotated[
        Literal["frame", "pixels", "double"],
        Field(description="All of the frame, its own pixels one to one, or each twice as large."),
    ] = "frame"
    from_left: Annotated[float, Field(ge=0, le=1, description="Middle of what is looked at.")] = 0.5
    from_top: Annotated[float, Field(ge=0, le=1)] = 0.5


class Alive(Answer):
    """The server answers."""

    program: str
    version: str
    demo: bool


class RailStep(Answer):
    """What follows from a rail's numbers."""

    kit_id: str
    smallest_step_mm: Annotated[float | None, Field(description="null: not known.")]
    mm_per_turn: Annotated[float | None, Field(description="Measured, else as given; null: not known.")]


class KeptKitAnswer(Answer):
    """The kit as it is kept, what undo and redo can do, and what there is to say about its pieces."""

    revision: int
    saved_at: str
    can_undo: bool
    can_redo: bool
    kit: Kit
    findings: list[Finding]
    rails: list[RailStep]


class SaveKit(Model):
    """A changed kit and the revision it was changed from."""

    base_revision: Annotated[int, Field(ge=0, le=9_000_000_000_000_000)]
    kit: Kit
    continues: Continues = False


class KitUse(Answer):
    """Shots that hold a copy of a piece."""

    kit_id: str
    shots: list[str]


class KitUses(Answer):
    """Every piece of the kit that is in a shot."""

    uses: list[KitUse]


class KitFileQuery(Model):
    """What to do with the pieces of a file."""

    mode: Annotated[
        Literal["add", "replace"],
        Field(description="add: put them to those there, a piece of the same kit_id being replaced; replace: all."),
    ] = "add"
    base_revision: Annotated[int, Field(ge=0, le=9_000_000_000_000_000, strict=False)]


class TidyAsked(Model):
    """What is to go for good."""

    what: Annotated[Literal["versions", "put_away"], Field(description="Old versions, or the shots put away.")]
    look: Annotated[bool, Field(description="Only say what would go.")] = True
    keep: Annotated[int, Field(ge=1, le=10_000, description="Of each, versions back from the current one.")] = 50


class Tidied(Answer):
    """What went, or would go."""

    documents: int
    revisions: int
    gone: bool
