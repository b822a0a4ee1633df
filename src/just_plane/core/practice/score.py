"""What a result is worth: against the best that the lens can do and the moves of a good hand, never against a clock."""

import math
from typing import NamedTuple

from just_plane.core.practice.drill import CIRCLE, RAIL_CLICK, Setting, start_of
from just_plane.core.practice.hands import best_setting, edges, par_of
from just_plane.core.practice.seeing import worst_blur, worst_contrast_at
from just_plane.core.practice.words import capital, ends_named, softest

MOVES_SHARE = 0.2
"""Of the score, that moves decide."""
STOP_POWER = 4
"""With it a stop chosen blindly is worth less than a fifth in the mean."""
SHORT_COSTS, OVER_COSTS = 4.0, 0.3
"""Of the depth that is cut off, and of what is taken over: likewise."""
NO_ONE_SEES = 1 / 4
"""Share of the circle of confusion below which no one tells blurs apart."""


class Result(NamedTuple):
    """How it went."""

    score: float
    """0 to 100."""
    sharp_enough: bool
    moves: int
    par: int
    reached: float
    """Worst blur, mm; for a stop the worst contrast; for the ends how far off, mm."""
    best: float
    """The same at its best."""
    said: str
    softest: str = ""
    """Which place that is; empty where the drill is not of blur."""


def score(start, reached, best, moves, par, circle=CIRCLE):
    """The score of a blur.

    Parameters
    ----------
    start, reached, best : float   Worst blur at the start, at the end, and the least that can be had, mm.
    moves, par : int
    circle : float                 Blur that counts as sharp, mm.

    Returns
    -------
    float                          0 to 100.
    """
    floor = max(best, NO_ONE_SEES * circle)
    if start <= floor:
        return 100.0
    share = min(max(math.log(start / max(reached, 1e-9)) / math.log(start / floor), 0.0), 1.0)
    return 100 * share * (1 - MOVES_SHARE + MOVES_SHARE * min(1.0, math.sqrt(par / max(moves, 1))))


def judge(drill, pressed, moves):
    """Judge a drill.

    Parameters
    ----------
    drill : Drill
    pressed : list of Setting   Where it was pressed: one; for ``ends`` the first frame and the last.
    moves : int

    Returns
    -------
    Result
    """
    if drill.kind == "stop":
        return _stop(drill, pressed[-1], moves)
    if drill.kind == "ends":
        return _ends(drill, pressed, moves)
    best, par, circle, last = best_setting(drill), par_of(drill), drill.gear.circle, pressed[-1]
    least, reached = worst_blur(drill, best), worst_blur(drill, last)
    value = score(worst_blur(drill, start_of(drill)), reached, least, moves, par, circle)
    said = _said_of_blur(drill, last, reached, least)
    return Result(value, reached <= circle, moves, par, reached, least, said, softest(drill, last))


def _said_of_blur(drill, last, reached, least):
    """One sentence: what is soft, and what would have helped."""
    near, far = edges(drill, last)
    if reached <= drill.gear.circle:
        return "All that must be sharp is." if drill.places else "Sharp from the near edge to the far one."
    if reached <= 1.1 * least:
        return "As sharp as this lens can be here."
    if max(near, far) < 0.6 * reached:
        if drill.places:
            return f"The nearest and the farthest are sharp; {softest(drill, last)} is not."
        return "Near and far are sharp; a corner is not: the tilt leans the wrong way across."
    soft = capital(ends_named(drill)[far > near])
    if far <= near:
        return f"{soft} is what is soft: focus on it once more."
    cure = "focus near, and tilt until it comes up" if drill.knob("tilt") else "focus a little farther"
    return f"{soft} is what is soft: {cure}."


def _stop(drill, pressed, moves):
    best = best_setting(drill)
    every = sorted(worst_contrast_at(drill, Setting(stop=stop)) for stop in range(len(drill.gear.stops)))
    (third, _, top), reached = every[-3:], worst_contrast_at(drill, pressed)
    # Of a handful of stops a guess is often near: the third best is worth nothing, and the second little.
    value = 100 * min(max((reached - third) / (top - third), 0.0), 1.0) ** STOP_POWER if top > third else 100.0
    if pressed.stop == best.stop:
        said = "That is the one: wider leaves the ends soft, narrower softens everything."
    elif pressed.stop > best.stop:
        said = "Narrower than it need be: light itself softens all of it now."
    else:
        said = "Too wide: the near and the far end are soft."
    return Result(value, reached >= 0.9 * top, moves, par_of(drill), reached, top, said)


def ends_of(drill):
    """Readings of the rail at which the nearest and the farthest part that must be sharp is in focus.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    (float, float)   mm, near and far.
    """
    return -drill.depth / 2, drill.depth / 2


def _ends(drill, pressed, moves):
    near, far = ends_of(drill)
    readings = sorted(one.rail * RAIL_CLICK for one in pressed)
    if len(readings) < 2:
        return Result(0.0, False, moves, par_of(drill), drill.depth, 0.0, "Two frames are asked for: first and last.")
    short = max(readings[0] - near, 0.0) + max(far - readings[-1], 0.0)
    over = max(near - readings[0], 0.0) + max(readings[-1] - far, 0.0)
    # What is cut off is lost; what is taken over is only time.
    value = 100 * max(0.0, 1 - SHORT_COSTS * short / drill.depth - OVER_COSTS * over / drill.depth)
    if short > 0.05 * drill.depth:
        said = "The stack begins too late or ends too soon: what is cut off there is sharp in no frame."
    elif over > 0.3 * drill.depth:
        said = "Nothing is missing, but many frames show nothing that must be sharp."
    else:
        said = "First and last frame hold all of it."
    return Result(value, short <= 0.05 * drill.depth, moves, par_of(drill), short, 0.0, said)
