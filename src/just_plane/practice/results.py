"""Results of drills: what a press was worth, how it would have been done, and which drill to take next."""

import uuid

from just_plane.contract.practice import AnswerStep, PracticeResult
from just_plane.core.practice.drill import KINDS, start_of
from just_plane.core.practice.hands import PRESSES, best_setting
from just_plane.core.practice.reading import reading_score, rounds_of, sharpest_of
from just_plane.core.practice.rocking import hits, lateness, rocking_score
from just_plane.core.practice.score import judge
from just_plane.core.practice.words import steps_to
from just_plane.core.units import UM_PER_MM
from just_plane.practice.drills import WITHOUT_KNOBS, reading, taken, told
from just_plane.practice.hold import rocking_of

LATE_ENOUGH_S = 0.025
GOOD = 70.0
"""Two results of this in a row, and the next drill is suggested."""


class NothingPressedError(ValueError):
    """A drill that was sent to be judged without a press."""


def result_of(asked, drill, at, own=None):
    """A result to keep.

    Parameters
    ----------
    asked : JudgeAsked
    drill : Drill
    at : str              ISO 8601.
    own : Own or None     The shot's own set: it says the steps of the answer in the plan's words.

    Returns
    -------
    PracticeResult

    Raises
    ------
    NothingPressedError
    """
    if asked.kind in WITHOUT_KNOBS:
        return _of_presses(asked, drill, at)
    if not asked.pressed:
        raise NothingPressedError
    found = judge(drill, [taken(drill, one) for one in asked.pressed], asked.moves)
    of_blur = asked.kind not in ("stop", "ends")
    um = UM_PER_MM * drill.gear.scale_behind
    best = best_setting(drill) if own is None else own.planned
    return PracticeResult(
        **_common(asked, at),
        score=round(found.score, 1),
        sharp_enough=found.sharp_enough,
        moves=asked.moves,
        par=found.par,
        reached_um=round(um * found.reached, 1) if of_blur else None,
        best_um=round(um * found.best, 1) if of_blur else None,
        said=found.said,
        answer=told(best),
        steps=_steps(drill, best) if own is None else own.steps,
        softest=found.softest,
        own=asked.own,
        title="" if own is None else own.title,
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


def _common(asked, at):
    """What every result holds of what was asked."""
    return {
        "result_id": uuid.uuid4().hex,
        "kind": asked.kind,
        "seed": asked.seed,
        "hints": asked.hints,
        "time_s": asked.time_s,
        "at": at,
    }


def _steps(drill, best):
    """From the start to the answer, one knob after the other."""
    if drill.kind == "ends":
        return []
    verbs = {"stop": "Set", "turn": "Turn the tilt to", "tilt": "Tilt to", "focus": "Focus to", "rail": "Rail to"}
    return [
        AnswerStep(words=f"{verbs[name]} {reading(drill, name, getattr(at, name))}.", setting=told(at))
        for name, at in steps_to(drill, best)
    ]


def _of_presses(asked, drill, at):
    """A result of ten presses or picks."""
    rocking = asked.kind == "rock"
    if not (asked.times if rocking else asked.picks):
        raise NothingPressedError
    if rocking:
        rock = rocking_of(asked)
        value, right = rocking_score(rock, asked.times, asked.slower), int(hits(rock, asked.times, asked.slower).sum())
        said = f"{right} of {len(asked.times)} were sharp. {_late_words(lateness(rock, asked.times, asked.slower))}"
    else:
        value = reading_score(asked.seed, asked.picks)
        right = sum(
            pick == sharpest_of(clicks) for pick, clicks in zip(asked.picks, rounds_of(asked.seed), strict=False)
        )
        said = f"{right} of {len(asked.picks)} were the sharpest. Look at the finest strokes first."
    return PracticeResult(
        **_common(asked, at),
        score=round(value, 1),
        sharp_enough=value >= GOOD,
        moves=len(asked.times if rocking else asked.picks),
        par=PRESSES,
        reached_um=None,
        best_um=None,
        said=said,
        answer=told(start_of(drill)),
    )


def _late_words(late):
    if late is None:
        return "None fell near a crossing: watch one pass first."
    if late > LATE_ENOUGH_S:
        return f"You pressed {1000 * late:.0f} ms late: go slower, and press before it is sharp."
    if late < -LATE_ENOUGH_S:
        return f"You pressed {-1000 * late:.0f} ms early: wait a little longer."
    return "On the whole neither late nor early."
