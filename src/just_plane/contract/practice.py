"""Practice: a drill, what it looks like, what was pressed and what it was worth."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer, Model

DrillKind = Literal["magnifier", "stop", "ends", "rock", "tilt", "tilt_and_turn", "limits"]
Seed = Annotated[int, Field(ge=0, le=2**31)]
Clicks = Annotated[int, Field(ge=-10_000, le=10_000)]


class DrillSetting(Model):
    """Where every knob stands, in clicks."""

    focus: Clicks = 0
    tilt: Clicks = 0
    turn: Clicks = 0
    stop: Clicks = 2
    rail: Clicks = 0


class DrillQuery(Model):
    """Which drill."""

    kind: DrillKind
    seed: Annotated[int, Field(ge=0, le=2**31, strict=False)] = 1


class KnobAnswer(Answer):
    """Something that a hand turns."""

    name: Literal["focus", "tilt", "turn", "stop", "rail"]
    low: int
    high: int
    scale: Annotated[list[str], Field(description="What is engraved at each click, from low to high.")]


class DrillAnswer(Answer):
    """A drill before it is begun."""

    kind: DrillKind
    seed: int
    task: str
    start: DrillSetting
    knobs: list[KnobAnswer]
    presses: Annotated[int, Field(description="How many are asked for.")]
    par: Annotated[int, Field(description="Moves that a good hand takes.")]
    reaches: Annotated[bool, Field(description="The lens can make all of it sharp; else as sharp as it can.")]
    sharp_um: Annotated[float, Field(description="Blur that counts as sharp.")]
    marks_reach_um: Annotated[float, Field(description="Blur up to which edges of the whole frame are marked.")]
    rounds: Annotated[list[list[int]], Field(description="Clicks of focus to choose among; of the magnifier.")] = []


class MagnifierPlace(Model):
    """A place of the frame, as shares of it."""

    from_left: Annotated[float, Field(ge=0, le=1)]
    from_top: Annotated[float, Field(ge=0, le=1)]


class ViewAsked(Model):
    """What the camera shows, a function of this alone."""

    kind: DrillKind
    seed: Seed = 1
    setting: DrillSetting
    magnified: Annotated[MagnifierPlace | None, Field(description="Middle of the magnifier; null: all of it.")] = None
    marks: Annotated[bool, Field(description="Sharp edges are hatched.")] = False
    moving: Annotated[bool, Field(description="Two levels of blur will do.")] = False
    truth: Annotated[bool, Field(description="What was really sharp is outlined: after the drill.")] = False
    t: Annotated[float, Field(ge=0, le=3600, description="s: where the hand has the camera; of rocking.")] = 0.0
    slower: Annotated[float, Field(ge=1, le=4, description="Times as slow, for those who ask for less motion.")] = 1.0


class JudgeAsked(Model):
    """What was pressed."""

    kind: DrillKind
    seed: Seed = 1
    pressed: Annotated[list[DrillSetting], Field(max_length=2)] = []
    times: Annotated[
        list[Annotated[float, Field(ge=0, le=3600)]],
        Field(max_length=10, description="s, of the frame on the screen when it was pressed; of rocking."),
    ] = []
    picks: Annotated[
        list[Annotated[int, Field(ge=0, le=4)]], Field(max_length=10, description="Of the magnifier.")
    ] = []
    slower: Annotated[float, Field(ge=1, le=4)] = 1.0
    moves: Annotated[int, Field(ge=0, le=100_000)] = 0
    hints: Annotated[int, Field(ge=0, le=1000)] = 0
    time_s: Annotated[float, Field(ge=0, le=1e6, description="Shown, never counted.")] = 0.0


class MoveAsked(Model):
    """One move, or a question for the next."""

    kind: DrillKind
    seed: Seed = 1
    before: DrillSetting
    after: DrillSetting


class MoveSaid(Answer):
    """What was seen, and what a good hand would do now."""

    saw: str
    hint: str


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
    at: str


class PracticeResults(Answer):
    """Results so far, the oldest first; what to take next."""

    results: list[PracticeResult]
    next: DrillKind
