"""Trials: gear measured from photographs; what is asked and what came out."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from just_plane.contract.base import Answer, FNumber, Length, Model, PathName, Ratio

TrialKind = Literal["stops", "steps", "backlash", "calm", "stillness", "sway", "dark", "ruler", "two_tubes"]
"""The last two come from a shot's own pages; the others from frames of their own."""
BY_HAND = ("ruler", "two_tubes")
Pitch = Annotated[float, Field(ge=1e-5, le=1, title="Pixel", description="Pitch of the frames as they are, mm.")]


class TrialAsked(Model):
    """What to measure, and the few numbers that the frames do not say themselves."""

    kind: TrialKind
    folder: Annotated[PathName, Field(title="Folder", description="Empty: of no frames of its own.")] = ""
    name: Annotated[str, Field(title="What is measured", max_length=120, description="The lens, the rail.")] = ""
    kit_id: Annotated[str | None, Field(max_length=40, description="The piece of the kit; null: none.")] = None
    target: Annotated[Literal["texture", "edge"], Field(title="Target")] = "texture"
    f_numbers: Annotated[
        list[FNumber],
        Field(title="Stops", max_length=60, description="In the order of the frames, where the files do not say."),
    ] = []
    magnification: Annotated[Ratio | None, Field(title="Size")] = None
    pupil_magnification: Annotated[float, Field(ge=0.1, le=10, title="Pupil magnification")] = 1.0
    pixel_pitch_mm: Pitch | None = None
    c_mm: Annotated[float | None, Field(ge=1e-6, le=10, title="Sharp", description="Circle of confusion, mm.")] = None
    angle_deg: Annotated[float, Field(gt=1, lt=89, title="Slant", description="Of the surface from the axis.")] = 30.0
    tick_mm: Annotated[
        Length | None,
        Field(title="Ticks of the ruler", description="That lies there; with those seen it gives the slant."),
    ] = None
    tick_px: Annotated[
        float | None, Field(ge=1e-3, le=100_000, title="Ticks seen", description="From tick to tick in the frame, px.")
    ] = None
    step_mm: Annotated[Length | None, Field(title="Step", description="Read on the rail, between frames.")] = None
    per_step: Annotated[
        float, Field(ge=1e-6, le=1e6, title="Units a step", description="Divisions, turns or camera units a step.")
    ] = 1.0
    unit: Annotated[str, Field(title="Unit", max_length=40)] = "step"
    interval_s: Annotated[
        float | None,
        Field(ge=1e-5, le=3600, title="Between frames, s", description="Where the files do not say it finely enough."),
    ] = None
    held: Annotated[Literal["support", "hand"], Field(title="The camera was")] = "support"
    focal_length_mm: Annotated[Length | None, Field(title="Focal length", description="Of frames by hand.")] = None

    @model_validator(mode="after")
    def _frames_lie_somewhere(self):
        if self.kind not in BY_HAND and not self.folder.strip():
            raise ValueError("Which folder are the frames in?")
        return self


class TrialFrame(Answer):
    """A frame that is not as it should be."""

    file: str
    problem: str


class TriedStop(Answer):
    """One stop of a trial."""

    f_number: float
    contrast: Annotated[float, Field(description="Of the best; absolute with an edge.")]
    doubt: Annotated[float, Field(description="Standard deviation.")]
    model: Annotated[float | None, Field(description="A perfect lens, in the same measure; null: size not known.")]
    spread_mm: Annotated[
        float | None, Field(description="That the lens adds on the sensor; contrast is times exp(-2 (pi nu s)^2).")
    ]


class StopsFound(Answer):
    """The best stop of a lens at a size."""

    best_f_number: float
    alike: Annotated[list[float], Field(description="Within 2 % of it.")]
    could_be: Annotated[list[float], Field(description="That noise does not tell from it.")]
    at_end: Annotated[bool, Field(description="The first or last tried: it may lie beyond.")]
    frequency_per_px: float
    frequency_per_mm: float | None
    stops: list[TriedStop]


class StepsFound(Answer):
    """How far a step goes."""

    step_mm: float
    doubt_mm: Annotated[float, Field(description="Standard deviation.")]
    per_unit_mm: Annotated[float, Field(description="A division, a turn or a camera unit.")]
    unit: str
    fine: Annotated[bool, Field(description="Row by row; else frame by frame, with more doubt.")]
    rows_agree: Annotated[float, Field(description="Share.")]


class BacklashFound(Answer):
    """Play of a screw."""

    play_mm: float
    doubt_mm: float
    seen: Annotated[bool, Field(description="It stands out of its doubt.")]
    take_up_mm: Annotated[float, Field(description="To go back past a mark, so that the play is taken up.")]


class TriedShutter(Answer):
    """One shutter time of a trial."""

    shutter_s: float
    passed: int
    frames: int


class StillnessFound(Answer):
    """The longest shutter that was sharp."""

    longest_s: float | None
    fails_at_s: float | None
    tried: list[TriedShutter]


class CalmFound(Answer):
    """A swing after a move, and how soon it dies away."""

    swing_um: Annotated[float, Field(description="To either side right after the move, in the subject.")]
    calms_s: Annotated[float, Field(description="In which it falls to 1/e; 0: none was seen.")]
    doubt_s: float
    wait_s: Annotated[float, Field(description="Until it blurs by no more than half of what counts as sharp.")]
    seen: bool


class SwayFound(Answer):
    """How much a hand sways: standard deviations in the subject."""

    along_mm: float
    across_mm: float


class RulerFound(Model):
    """The size of a rig, by a ruler in a frame."""

    rig: Annotated[list[Annotated[str, Field(max_length=60)]], Field(min_length=1, max_length=20)]
    magnification: Ratio
    uncertainty: Annotated[float, Field(ge=0, le=1000)]
    modelled: Annotated[Ratio, Field(description="What the model gave at the same setting.")]


class TwoTubesFound(Model):
    """A lens by two tubes."""

    at: Annotated[Literal["infinity", "closest"], Field(description="Where the ring stood.")]
    focal_length_mm: Length
    uncertainty_mm: Annotated[float, Field(ge=0, le=10_000)]
    pupil_magnification: Annotated[float | None, Field(gt=0, le=10)] = None
    pupil_uncertainty: Annotated[float | None, Field(ge=0, le=10)] = None


class MeasuredByHand(Model):
    """Keep what was measured at a shot's page: one of the two."""

    kit_id: Annotated[str | None, Field(max_length=40, description="Of the lens.")] = None
    ruler: RulerFound | None = None
    two_tubes: TwoTubesFound | None = None

    @model_validator(mode="after")
    def _one_of_them(self):
        if (self.ruler is None) == (self.two_tubes is None):
            raise ValueError("Either a ruler or two tubes: one of them.")
        return self


class DarkFound(Answer):
    """Whether long exposures take twice as long."""

    doubled: bool
    write_s: float


class TrialResult(Answer):
    """What a trial says: one sentence, the figures under it, what to be careful of."""

    kind: TrialKind
    refused: Annotated[bool, Field(description="Nothing could be measured; the sentence says why.")]
    sentence: str
    warnings: list[str]
    frames: Annotated[list[TrialFrame], Field(description="Left out, or odd.")]
    used: Annotated[int, Field(description="Frames that count.")]
    stops: StopsFound | None = None
    steps: StepsFound | None = None
    backlash: BacklashFound | None = None
    calm: CalmFound | None = None
    stillness: StillnessFound | None = None
    sway: SwayFound | None = None
    dark: DarkFound | None = None
    ruler: RulerFound | None = None
    two_tubes: TwoTubesFound | None = None


class TrialPath(Model):
    """A trial in the address."""

    trial_id: Annotated[str, Field(pattern="^[0-9a-f]{32}$")]


class TrialJudged(Model):
    """Whether a trial counts from now on."""

    believed: Annotated[bool, Field(description="Use it: it goes into the kit, and so into new shots.")] = False
    put_aside: Annotated[bool, Field(description="Out of sight, not lost.")] = False
    over_the_other: Annotated[
        bool, Field(description="Believe it though another says something else; that one is not believed any more.")
    ] = False


class TrialAnswer(Answer):
    """A trial as it stands."""

    trial_id: str
    asked: TrialAsked
    state: Literal["waiting", "running", "cancelling", "done", "failed", "cancelled"]
    share: float
    message: str
    result: TrialResult | None
    believed: bool
    put_aside: bool
    usable: Annotated[bool, Field(description="There is a piece of the kit that it goes into, or it is of a person.")]
    used_in: Annotated[str, Field(description="Where it is used, in words; empty: nowhere.")]
    asked_at: str


class TrialList(Answer):
    """What was measured, the newest first."""

    trials: list[TrialAnswer]


class TrialPracticeAsked(Model):
    """Frames of the simulated camera to try a trial on."""

    kind: Literal["stops", "steps", "backlash", "calm", "stillness", "sway", "dark"]
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1
    noise: Annotated[float, Field(ge=0, le=0.2, description="Of full scale.")] = 0.01
    faults: Annotated[
        list[Literal["soft_wide_open", "focus_off", "focus_shifts", "light_jumps", "moved"]],
        Field(max_length=5, description="Of the lens and of how it is tried; of the kind ``stops``."),
    ] = []


class TrialPracticeMade(Answer):
    """Where they are, what they show, and the numbers that belong to them."""

    asked: TrialAsked
    truth: Annotated[str, Field(description="What the trial should find.")]
