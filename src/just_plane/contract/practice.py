"""Practice: a drill, what it looks like, what was pressed and what it was worth."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from just_plane.contract.base import Answer, Model

DrillKind = Literal["magnifier", "stop", "ends", "rock", "tilt", "tilt_and_turn", "limits", "own"]
Hold = Annotated[Literal["rested", "braced", "standing"], Field(description="How steadily the camera is held.")]
OwnSway = Annotated[
    float | None, Field(gt=0, le=10, description="Of one's own hands as measured, mm; wins over how it is held.")
]
SubjectMoves = Annotated[Literal["still", "draught", "alive"], Field(description="What the subject does; of rocking.")]
ShotId = Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,64}$")]
Seed = Annotated[int, Field(ge=0, le=2**31)]
Clicks = Annotated[int, Field(ge=-10_000, le=10_000)]


class DrillSetting(Model):
    """Where every knob stands, in clicks."""

    focus: Clicks = 0
    tilt: Clicks = 0
    turn: Clicks = 0
    stop: Clicks = 2
    rail: Clicks = 0


class OwnSet(Model):
    """A shot of one's own, as it was when the drill began."""

    shot_id: ShotId
    revision: Annotated[int, Field(ge=1, le=2**53)]


class Asked(Model):
    """Which drill it is about."""

    kind: DrillKind
    seed: Seed = 1
    own: Annotated[OwnSet | None, Field(description="Of the kind ``own``; null for the others.")] = None

    @model_validator(mode="after")
    def _own_names_its_shot(self):
        if (self.kind == "own") != (self.own is not None):
            raise ValueError("A drill on a set of one's own names its shot, and no other drill does.")
        return self


class DrillQuery(Model):
    """Which drill; with a shot, on its set."""

    kind: DrillKind = "own"
    seed: Annotated[int, Field(ge=0, le=2**31, strict=False)] = 1
    shot_id: ShotId | None = None

    @model_validator(mode="after")
    def _own_names_its_shot(self):
        if (self.kind == "own") != (self.shot_id is not None):
            raise ValueError("A drill on a set of one's own names its shot, and no other drill does.")
        return self


class KnobAnswer(Answer):
    """Something that a hand turns."""

    name: Literal["focus", "tilt", "turn", "stop", "rail"]
    low: int
    high: int
    scale: Annotated[list[str], Field(description="What is engraved at each click, from low to high.")]


class DrillPlace(Answer):
    """A place that can be looked at closely."""

    name: str
    from_left: float
    from_top: float


class DrillAnswer(Answer):
    """A drill before it is begun."""

    kind: DrillKind
    seed: int
    own: OwnSet | None = None
    title: Annotated[str, Field(description="Of the shot; empty for the others.")] = ""
    task: str
    start: DrillSetting
    knobs: list[KnobAnswer]
    presses: Annotated[int, Field(description="How many are asked for.")]
    par: Annotated[int, Field(description="Moves that a good hand takes.")]
    reaches: Annotated[bool, Field(description="The lens can make all of it sharp; else as sharp as it can.")]
    nearest: Annotated[str, Field(description="How near it comes where it cannot; empty where it can.")] = ""
    places: Annotated[list[DrillPlace], Field(description="Near and far end first; then what must be sharp.")] = []
    sharp_um: Annotated[float, Field(description="Blur that counts as sharp.")]
    marks_reach_um: Annotated[float, Field(description="Blur up to which edges of the whole frame are marked.")]
    rounds: Annotated[list[list[int]], Field(description="Clicks of focus to choose among; of the magnifier.")] = []


class MagnifierPlace(Model):
    """A place of the frame, as shares of it."""

    from_left: Annotated[float, Field(ge=0, le=1)]
    from_top: Annotated[float, Field(ge=0, le=1)]


class ViewAsked(Asked):
    """What the camera shows, a function of this alone."""

    setting: DrillSetting
    magnified: Annotated[MagnifierPlace | None, Field(description="Middle of the magnifier; null: all of it.")] = None
    marks: Annotated[bool, Field(description="Sharp edges are hatched.")] = False
    moving: Annotated[bool, Field(description="Two levels of blur will do.")] = False
    truth: Annotated[bool, Field(description="What was really sharp is outlined: after the drill.")] = False
    t: Annotated[float, Field(ge=0, le=3600, description="s: where the hand has the camera; of rocking.")] = 0.0
    slower: Annotated[float, Field(ge=1, le=4, description="Times as slow, for those who ask for less motion.")] = 1.0
    hold: Hold = "braced"
    sway_mm: OwnSway = None
    subject: SubjectMoves = "still"


class JudgeAsked(Asked):
    """What was pressed."""

    pressed: Annotated[list[DrillSetting], Field(max_length=2)] = []
    times: Annotated[
        list[Annotated[float, Field(ge=0, le=3600)]],
        Field(max_length=10, description="s, of the frame on the screen when it was pressed; of rocking."),
    ] = []
    picks: Annotated[
        list[Annotated[int, Field(ge=0, le=4)]], Field(max_length=10, description="Of the magnifier.")
    ] = []
    slower: Annotated[float, Field(ge=1, le=4)] = 1.0
    hold: Hold = "braced"
    sway_mm: OwnSway = None
    subject: SubjectMoves = "still"
    moves: Annotated[int, Field(ge=0, le=100_000)] = 0
    hints: Annotated[int, Field(ge=0, le=1000)] = 0
    time_s: Annotated[float, Field(ge=0, le=1e6, description="Shown, never counted.")] = 0.0


class MoveAsked(Asked):
    """One move, or a question for the next."""

    before: DrillSetting
    after: DrillSetting


class MoveSaid(Answer):
    """What was seen, and what a good hand would do now."""

    saw: str
    hint: str


class AnswerStep(Answer):
    """One step of the answer, and where the knobs then stand."""

    words: str
    setting: DrillSetting


class PracticeResult(Answer):
    """How it went."""

    result_id: str
    kind: DrillKind
    seed: int
    score: float
    sharp_enough: bool
    moves: int
    par: int
    hints: int
    time_s: float
    reached_um: Annotated[float | None, Field(description="Worst blur; null where the drill is not of blur.")]
    best_um: float | None
    said: str
    answer: Annotated[DrillSetting, Field(description="How the sharpest is reached.")]
    steps: Annotated[list[AnswerStep], Field(description="The same from the start, one after the other.")] = []
    softest: Annotated[str, Field(description="Which place is; empty where the drill is not of blur.")] = ""
    own: OwnSet | None = None
    title: str = ""
    at: str


class PracticeResults(Answer):
    """Results so far, the oldest first; what to take next."""

    results: list[PracticeResult]
    next: DrillKind
    own_sway_mm: Annotated[float | None, Field(description="Of one's own hands, by a trial that is believed.")] = None
    own_sway_words: str = ""
