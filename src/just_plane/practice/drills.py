"""Drills in the words of the page, results in those of the store, and which drill to take next."""

import math
import uuid

from just_plane.contract.practice import DrillAnswer, DrillSetting, KnobAnswer, MoveSaid, PracticeResult
from just_plane.core.practice.drill import (
    CIRCLE,
    KINDS,
    RAIL_CLICK,
    SENSOR,
    STOPS,
    Setting,
    held,
    make_drill,
    start_of,
    worst_blur,
)
from just_plane.core.practice.hands import PRESSES, best_setting, par_of
from just_plane.core.practice.reading import reading_score, rounds_of, sharpest_of
from just_plane.core.practice.rocking import hits, lateness, make_rocking, rocking_score
from just_plane.core.practice.score import ends_of, judge
from just_plane.core.practice.words import hint, saw
from just_plane.practice.show import COLUMNS, marks_reach

LATE_ENOUGH_S = 0.025
WITHOUT_KNOBS = ("magnifier", "rock")
GOOD = 70.0
"""Two results of this in a row, and the next drill is suggested."""
TASKS = {
    "magnifier": "Which of the five is the sharpest? Ten times, closer together from time to time.",
    "rock": "The hand carries the camera to and fro. Press ten times, each just before the letters come up.",
    "stop": "Choose the stop at which the whole page is as sharp as it can be, near edge to far, then press.",
    "ends": "Find the first frame and the last of a stack: {depth:.0f} mm of the page must be sharp. Press at each.",
    "tilt": "Make the whole page sharp, near edge to far, then press.",
    "tilt_and_turn": "The page lies askew. Turn the tilt the way it falls, make all of it sharp, then press.",
    "limits": "This lens tilts too little, and not about its node. Make the page as sharp as it goes, then press.",
}


def drill_answer(kind, seed):
    """A drill as the page is told of it.

    Parameters
    ----------
    kind : str
    seed : int

    Returns
    -------
    DrillAnswer
    """
    drill = make_drill(kind, seed)
    near, far = ends_of(drill)
    best = best_setting(drill)
    return DrillAnswer(
        kind=kind,
        seed=seed,
        task=TASKS[kind].format(depth=far - near),
        start=_told(start_of(drill)),
        knobs=[KnobAnswer(name=knob.name, low=knob.low, high=knob.high, scale=_scale(knob)) for knob in drill.knobs],
        presses=PRESSES if kind in WITHOUT_KNOBS else 2 if kind == "ends" else 1,
        par=par_of(drill),
        sharp_um=1000 * CIRCLE,
        marks_reach_um=round(1000 * marks_reach(SENSOR[0] / COLUMNS), 1),
        rounds=rounds_of(seed) if kind == "magnifier" else [],
        reaches=kind in ("stop", "ends", *WITHOUT_KNOBS) or worst_blur(drill, best) <= CIRCLE,
    )


def move_said(kind, seed, before, after):
    """What was seen of a move, and the next.

    Parameters
    ----------
    kind : str
    seed : int
    before, after : DrillSetting

    Returns
    -------
    MoveSaid
    """
    drill = make_drill(kind, seed)
    one, two = _taken(drill, before), _taken(drill, after)
    return MoveSaid(saw=saw(drill, one, two), hint=hint(drill, two))


def result_of(asked, at):
    """A result to keep.

    Parameters
    ----------
    asked : JudgeAsked
    at : str             ISO 8601.

    Returns
    -------
    PracticeResult
    """
    drill = make_drill(asked.kind, asked.seed)
    if asked.kind in WITHOUT_KNOBS:
        return _of_presses(asked, drill, at)
    if not asked.pressed:
        raise NothingPressedError
    found = judge(drill, [_taken(drill, one) for one in asked.pressed], asked.moves)
    of_blur = asked.kind not in ("stop", "ends")
    return PracticeResult(
        result_id=uuid.uuid4().hex,
        kind=asked.kind,
        seed=asked.seed,
        score=round(found.score, 1),
        sharp_enough=found.sharp_enough,
        moves=asked.moves,
        par=found.par,
        hints=asked.hints,
        time_s=asked.time_s,
        reached_um=round(1000 * found.reached, 1) if of_blur else None,
        best_um=round(1000 * found.best, 1) if of_blur else None,
        said=found.said,
        answer=_told(best_setting(drill)),
        at=at,
    )


class NothingPressedError(ValueError):
    """A drill that was sent to be judged without a press."""


def _of_presses(asked, drill, at):
    """A result of ten presses or picks."""
    rocking = asked.kind == "rock"
    if not (asked.times if rocking else asked.picks):
        raise NothingPressedError
    if rocking:
        rock = make_rocking(asked.seed)
        value, right = rocking_score(rock, asked.times, asked.slower), int(hits(rock, asked.times, asked.slower).sum())
        said = f"{right} of {len(asked.times)} were sharp. {_late_words(lateness(rock, asked.times, asked.slower))}"
    else:
        value = reading_score(asked.seed, asked.picks)
        right = sum(
            pick == sharpest_of(clicks) for pick, clicks in zip(asked.picks, rounds_of(asked.seed), strict=False)
        )
        said = f"{right} of {len(asked.picks)} were the sharpest. Look at the finest strokes first."
    return PracticeResult(
        result_id=uuid.uuid4().hex,
        kind=asked.kind,
        seed=asked.seed,
        score=round(value, 1),
        sharp_enough=value >= GOOD,
        moves=len(asked.times if rocking else asked.picks),
        par=PRESSES,
        hints=asked.hints,
        time_s=asked.time_s,
        reached_um=None,
        best_um=None,
        said=said,
        answer=_told(start_of(drill)),
        at=at,
    )


def _late_words(late):
    if late is None:
        return "None fell near a crossing: watch one pass first."
    if late > LATE_ENOUGH_S:
        return f"You pressed {1000 * late:.0f} ms late: go slower, and press before it is sharp."
    if late < -LATE_ENOUGH_S:
        return f"You pressed {-1000 * late:.0f} ms early: wait a little longer."
    return "On the whole neither late nor early."


def next_kind(results):
    """Which drill to take: the first that was not done well twice in a row; any may be taken.

    Parameters
    ----------
    results : list of PracticeResult   The oldest first.

    Returns
    -------
    str
    """
    for kind in KINDS:
        last = [result.score for result in results if result.kind == kind][-2:]
        if len(last) < 2 or min(last) < GOOD:
            return kind
    return KINDS[-1]


def _scale(knob):
    clicks = range(knob.low, knob.high + 1)
    if knob.name == "stop":
        return [f"f/{stop:g}" for stop in STOPS]
    if knob.name == "tilt":
        return [f"{math.degrees(click * knob.click):+.2f}°" for click in clicks]
    if knob.name == "turn":
        return [f"{math.degrees(click * knob.click):.0f}°" for click in clicks]
    if knob.name == "rail":
        return [f"{click * RAIL_CLICK:+.0f} mm" for click in clicks]
    return [f"{click:+d}" for click in clicks]


def _told(setting):
    return DrillSetting(**setting._asdict())


def _taken(drill, setting):
    return held(drill, Setting(**setting.model_dump()))
