"""What checking a stack finds: the report, as a file and over HTTP. No NaN: what is not known is null."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer
from just_plane.contract.stack_numbers import StackNumbers

REPORT_VERSION = 1
Code = Literal[
    "unreadable",
    "foreign_frame",
    "registration_failed",
    "duplicate",
    "taken_again",
    "wrong_order",
    "skipped_step",
    "bump",
    "rotation",
    "dead_flash",
    "light_jump",
    "light_drift",
    "shake",
    "moved",
    "sensor_dust",
]


class FrameReport(Answer):
    """One frame, in the order of the names."""

    file: Annotated[str, Field(description="Name, within the folder.")]
    used: Annotated[bool, Field(description="It counts for coverage and merges.")]
    why_not: Annotated[str, Field(description="Code of the finding that it is left out for; empty when it is used.")]
    to_reference: Annotated[
        list[list[float]] | None,
        Field(description="2 x 3: its places to places of the reference frame, px; null: could not be laid."),
    ]
    place_steps: Annotated[float | None, Field(description="Where it is sharp, in steps from the first frame.")]
    focus_mm: Annotated[
        float | None, Field(description="The same in mm behind the nearest point; null: the step is not known.")
    ]
    ev: Annotated[float | None, Field(description="Light against the reference frame.")]
    moved_px: Annotated[float | None, Field(description="Of the view, against the frame before it, beyond the usual.")]
    likeness: Annotated[float | None, Field(description="Fine detail in common with the frame before it; 1 all of it.")]
    loss: Annotated[
        float | None,
        Field(description="ln of energy against the frames beside, place allowed for; null: unknown."),
    ]
    clipped: Annotated[float | None, Field(description="Share of it that is burnt out.")]


class FindingReport(Answer):
    """Something that went wrong."""

    code: Code
    frame: Annotated[int | None, Field(description="Counted from 0 as listed; of a pair the later one.")]
    after: Annotated[int | None, Field(description="Of a pair the earlier frame; the frame that a copy repeats.")]
    frames: Annotated[list[int], Field(description="All frames that it is true of, where there are several.")]
    amount: float | None
    unit: str
    place: Annotated[list[float] | None, Field(description="x, y, px of the reference frame; of dust, of every frame.")]
    message: Annotated[str, Field(description="What is wrong.")]
    remedy: Annotated[str, Field(description="What to do now.")]
    costs: Annotated[int, Field(description="What it would cost at home: 3 the picture, 2 work, 1 a word, 0 nothing.")]


class CoverageReport(Answer):
    """One place of the subject."""

    x: Annotated[float, Field(description="px of the reference frame.")]
    y: float
    name: str
    covered: Annotated[bool | None, Field(description="Sharp in a frame that is used; null: cannot be told.")]
    contrast: Annotated[float | None, Field(description="Of the finest detail, there, in the best frame.")]
    frame: Annotated[int | None, Field(description="The frame that holds it best.")]
    depth_mm: float | None


class GapReport(Answer):
    """Depth that is sharp in no frame."""

    from_steps: float
    to_steps: float
    from_mm: float | None
    to_mm: float | None
    after: Annotated[int | None, Field(description="The frame on its near side; null: none was taken that near.")]
    before: Annotated[int | None, Field(description="The frame on its far side; null: none was taken so far.")]
    frames_needed: Annotated[int, Field(description="That would close it, at the planned step.")]
    focuses_mm: Annotated[list[float], Field(description="Where to take them; empty: the step is not known in mm.")]


class DepthReport(Answer):
    """A map of depth: mm = zero_mm + count * mm_per_count; in steps where the step is not known in mm."""

    file: Annotated[str, Field(description="16 bit, beside the report.")]
    zero_mm: float
    mm_per_count: float
    unknown: int = 0
    unit: Literal["mm", "steps"] = "mm"


class PictureReport(Answer):
    """A proof."""

    method: Literal["depth", "pyramid", "windowed"]
    file: str


class SlabReport(Answer):
    """Some frames merged by themselves, by detail: for the retoucher."""

    file: str
    frames: Annotated[list[int], Field(description="Of the stack, in the order of focus.")]


class DifferenceReport(Answer):
    """Where two proofs differ."""

    one: Literal["depth", "pyramid", "windowed"]
    other: Literal["depth", "pyramid", "windowed"]
    levels: Annotated[list[float], Field(description="By cell, row by row: the largest difference in it, of 255.")]


class MarksReport(Answer):
    """What is drawn over proofs: a grid of cells, row by row from the top left, over what all frames cover."""

    across: int
    down: int
    unit: Literal["mm", "steps"]
    depth: Annotated[list[float | None], Field(description="Depth; null: nothing to tell by.")]
    brush: Annotated[list[float], Field(description="Share of the cell in the fog of nearer parts.")]
    differences: list[DifferenceReport]


class StepMeasured(Answer):
    """How far the rail really went, where the frames lay it to the step: worth keeping."""

    step_mm: float
    doubt_mm: Annotated[float, Field(description="Standard deviation, of the view's growth alone.")]
    pairs: Annotated[int, Field(description="Of neighbouring frames that tell it.")]
    agree: Annotated[float, Field(description="Share of them within a fifth of it.")]


class CheckVerdict(Answer):
    """Can the set come down?"""

    may_come_down: Annotated[bool, Field(description="Only when all that was asked is known to be there.")]
    answer: str
    action: Annotated[str, Field(description="The one thing that would change it, or what to mind; may be empty.")]


class CheckReport(Answer):
    """A stack, checked."""

    version: int = REPORT_VERSION
    name: str
    folder: str
    width_px: int
    height_px: int
    reference_frame: Annotated[int | None, Field(description="The frame that all are laid on.")]
    scale: Annotated[float, Field(description="Pixels of depth map and pictures to one of the reference frame.")] = 1.0
    origin: Annotated[
        list[float], Field(description="x, y in the reference frame of the first pixel of depth map and pictures.")
    ]
    size: Annotated[list[int], Field(description="Width and height of depth map and pictures: what all frames cover.")]
    order: Annotated[list[int], Field(description="Frames in the order of focus.")]
    frames: list[FrameReport]
    findings: list[FindingReport]
    coverage: list[CoverageReport]
    covered_share: Annotated[float | None, Field(description="Of the places that can be judged; null: none can.")]
    unknown_share: Annotated[float, Field(description="Places without texture to judge by.")]
    gaps: list[GapReport]
    steps_found: Annotated[
        list[float | None], Field(description="Between neighbours in the order of focus, in steps as planned.")
    ]
    against_plan: Annotated[list[str], Field(description="Where what was planned and what was found do not agree.")]
    step_measured: Annotated[
        StepMeasured | None, Field(description="Where the frames say that the step is the number that is wrong.")
    ] = None
    not_judged: Annotated[list[str], Field(description="What could not be told, in sentences.")]
    verdict: CheckVerdict
    depth: DepthReport | None = None
    brush_share: Annotated[
        float | None, Field(description="In the fog of nearer parts, which no merge takes away; null: not looked for.")
    ] = None
    method_that_suits: Annotated[
        Literal["depth", "pyramid", "windowed"] | None, Field(description="By the depth found; null: not looked for.")
    ] = None
    pictures: list[PictureReport] = []
    slabs: list[SlabReport] = []
    plan: StackNumbers
