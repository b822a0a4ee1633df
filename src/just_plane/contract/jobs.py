"""Long work over HTTP: what is asked, how far it is, what came out."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer, Model, PathName
from just_plane.contract.check import CheckReport
from just_plane.contract.stack_numbers import StackNumbers

Method = Literal["depth", "pyramid", "windowed"]
JobState = Literal["waiting", "running", "pausing", "paused", "cancelling", "done", "failed", "cancelled"]


class SlabsAsked(Model):
    """Consecutive frames merged by themselves, for the retoucher."""

    frames: Annotated[int, Field(title="Frames a slab", ge=4, le=100)]
    shared: Annotated[int, Field(title="Shared", ge=0, le=3, description="With the slab before.")] = 2


class CheckAsked(Model):
    """Check the frames of a folder."""

    folder: Annotated[PathName, Field(title="Folder", min_length=1, description="That the frames are in.")]
    shot_id: Annotated[
        str | None, Field(pattern="^[0-9a-f]{8,40}$", description="The shot they are of, and planned by; null: none.")
    ] = None
    numbers: Annotated[StackNumbers | None, Field(description="Instead of the shot's; null: the shot's, or none.")] = (
        None
    )
    plan: Annotated[
        Literal["shot", "none"], Field(description="Judge by the shot's plan, or by none; where no numbers are given.")
    ] = "shot"
    methods: Annotated[list[Method], Field(max_length=3, description="Proofs.")] = []
    slabs: SlabsAsked | None = None
    put_back: Annotated[
        list[Annotated[str, Field(max_length=400)]],
        Field(max_length=2000, description="Frames that are used though they would be left out."),
    ] = []


class JobPath(Model):
    """A job in the address."""

    job_id: Annotated[str, Field(pattern="^[0-9a-f]{32}$")]


class JobFramePath(JobPath):
    """A frame of a job's stack in the address."""

    frame: Annotated[int, Field(ge=0, le=100_000)]


class JobProofPath(JobPath):
    """A proof in the address."""

    method: Method


class JobFilePath(JobPath):
    """A file that a job made, in the address."""

    kind: Annotated[
        str,
        Field(pattern=r"^(report|depth|points|sheet|proof-(depth|pyramid|windowed)|slab-\d{2,4})$"),
    ]


class TilePath(JobPath):
    """A tile of a picture in the address."""

    source: Annotated[
        str, Field(pattern=r"^(depth|pyramid|windowed|frame-\d{1,5})$", description="A proof, or a frame as laid.")
    ]
    level: Annotated[int, Field(ge=0, le=12, description="0 is full size, 1 half ...")]
    column: Annotated[int, Field(ge=0, le=1000)]
    row: Annotated[int, Field(ge=0, le=1000)]


class JobQuery(Model):
    """How much of a job is wanted."""

    report: Annotated[Literal["yes", "no"], Field(description="With what came out.")] = "yes"


class PictureQuery(Model):
    """How large a picture is wanted."""

    width: Annotated[int, Field(ge=64, le=20_000, strict=False)] = 1600
    cropped: Annotated[Literal["yes", "no"], Field(description="To what all frames cover, as the proofs are.")] = "no"


class PlaceQuery(Model):
    """A place of the reference frame."""

    x: Annotated[float, Field(ge=-1, le=100_000, strict=False, description="px of the full frame.")]
    y: Annotated[float, Field(ge=-1, le=100_000, strict=False)]


class JobAnswer(Answer):
    """A job as it stands."""

    job_id: str
    shot_id: str | None
    folder: str
    methods: list[Method]
    proofs: Annotated[list[Method], Field(description="That were made and are at hand.")] = []
    state: JobState
    share: Annotated[float, Field(description="Done, 0 to 1.")]
    words: Annotated[str, Field(description="What it is at.")]
    message: Annotated[str, Field(description="Why it failed; else empty.")]
    remedy: str
    asked_at: str
    report: CheckReport | None = None
    slabs: Annotated[SlabsAsked | None, Field(description="That were asked for.")] = None
    put_back: Annotated[list[str], Field(description="Frames that are used though they would be left out.")] = []
    plan_now: Annotated[
        Literal["same", "other", "none"],
        Field(description="The shot's plan as it is now against the one it was judged by; none: there is none."),
    ] = "none"


class JobList(Answer):
    """The last checks of a shot, the newest first, without their reports."""

    jobs: list[JobAnswer]


class PlaceAnswer(Answer):
    """A place through the frames."""

    x: float
    y: float
    contrast: Annotated[
        list[float | None], Field(description="By frame, of its finest detail against the best there; null: not seen.")
    ]
    depth_mm: float | None
    best_frame: int | None


class PracticeAsked(Model):
    """Made-up frames of a shot's stack, to practise on."""

    faults: Annotated[
        list[Literal["skipped_step", "bump", "dead_flash", "light_drift"]],
        Field(max_length=4, description="What may go wrong."),
    ] = []


class PracticeMade(Answer):
    """Where they were put."""

    folder: str
    frames: int
    numbers: StackNumbers
