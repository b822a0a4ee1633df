"""Drills in the words of the page, results in those of the store, and which drill to take next."""

import math
import uuid

from just_plane.contract.practice import DrillAnswer, DrillSetting, KnobAnswer, MoveSaid, PracticeResult
from just_plane.core.practice.drill import (
    CIRCLE,
    KINDS,
    RAIL_CLICK,
    STOPS,
    Setting,
    held,
    make_drill,
    start_of,
    worst_blur,
)
from just_plane.core.practice.hands import best_setting, par_of
from just_plane.core.practice.score import ends_of, judge
from just_plane.core.practice.words import hint, saw

GOOD = 70.0
"""Two results of this in a row, and the next drill is suggested."""
TASKS = {
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
        presses=2 if kind == "ends" else 1,
        par=par_of(drill),
        reaches=kind in ("stop", "ends") or worst_blur(drill, best) <= CIRCLE,
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
