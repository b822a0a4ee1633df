"""Hands that can see: the best that can be reached with a lens, and how many moves a good hand takes without a plan."""

import numpy as np

from just_plane.core.practice.drill import Setting, held, start_of, tilt_toward
from just_plane.core.practice.seeing import blurs, worst_blur, worst_contrast_at

EYE = 1 / 3
"""Share of the circle of confusion that an eye at the magnifier tells from sharp."""
MOST_MOVES = 24
PRESSES = 10
"""Of the drills that are a count of hits."""
NEARBY = 3
"""Clicks of tilt beside the one that the plane asks for."""


def edges(drill, setting):
    """Blur of the near and the far edge of the set, in the middle of each; of named places the nearest and farthest.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    (float, float)   mm.
    """
    there = blurs(drill, setting)
    if drill.places:
        near, far = ends_of_places(drill)
        return float(there[near]), float(there[far])
    rows, columns = there.shape
    if abs(drill.slope[1]) >= abs(drill.slope[0]):
        ends = (there[-1, columns // 2], there[0, columns // 2])
        away = drill.slope[1] >= 0
    else:
        ends = (there[rows // 2, 0], there[rows // 2, -1])
        away = drill.slope[0] >= 0
    return (float(ends[0]), float(ends[1])) if away else (float(ends[1]), float(ends[0]))


def ends_of_places(drill):
    """Which of the places that a drill names is the nearest, and which the farthest.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    (int, int)
    """
    away = [place.z for place in drill.places]
    return int(np.argmin(away)), int(np.argmax(away))


def best_setting(drill):
    """The sharpest that can be had: the tilt that the set asks for, as far as the lens goes, and what lies beside it.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    Setting
    """
    start = start_of(drill)
    if drill.kind == "stop":
        every = (Setting(stop=stop) for stop in range(len(drill.gear.stops)))
        return max(every, key=lambda one: worst_contrast_at(drill, one))
    if drill.kind in ("ends", "magnifier", "rock"):
        return start
    best = as_asked(drill)
    lean, turn = drill.knob("tilt"), drill.knob("turn")
    if lean is None:
        return best
    tilt, middle = best.tilt, best.turn
    for turned in (middle - 1, middle, middle + 1) if turn else (middle,):
        for step in range(-NEARBY, NEARBY + 1):
            beside = held(drill, start._replace(turn=_round(turn, turned), tilt=tilt + step))
            tried = focused(drill, beside, worst_blur)
            if worst_blur(drill, tried) < worst_blur(drill, best):
                best = tried
    return best


def _round(turn, clicks):
    """A turn past its end comes in again at the other: there the lens tilts the other way."""
    return clicks if turn is None else turn.low + (clicks - turn.low) % (turn.high - turn.low + 1)


def as_asked(drill):
    """The setting that the set asks for, in clicks, with the focus shared between its ends.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    Setting
    """
    start = start_of(drill)
    if drill.knob("tilt") is None:
        return focused(drill, start, worst_blur)
    tilt, turn = tilt_toward(drill, *drill.asked)
    return focused(drill, start._replace(tilt=tilt, turn=turn), worst_blur)


def focused(drill, setting, measure):
    """The same with the focus where a measure of blur is least.

    Parameters
    ----------
    drill : Drill
    setting : Setting
    measure : function   (drill, setting) to float, with one dip.

    Returns
    -------
    Setting
    """
    return _dip(drill, setting, "focus", measure)


def _dip(drill, setting, name, measure):
    """The click of a knob at which a measure that falls and then rises is least: halved by which way it goes."""
    knob = drill.knob(name)
    low, high = knob.low, knob.high
    while low < high:
        middle = (low + high) // 2
        here, next_one = (setting._replace(**{name: at}) for at in (middle, middle + 1))
        if measure(drill, here) <= measure(drill, next_one):
            high = middle
        else:
            low = middle + 1
    return setting._replace(**{name: low})


def near_then_far(drill):
    """A good hand without a plan: focus near, tilt until far is sharp, focus near again.

    Parameters
    ----------
    drill : Drill   Of those with a tilt; a turn is set first, square to the slope.

    Returns
    -------
    (list of Setting, Setting)   Every move, and where it ends.
    """
    setting, moves = start_of(drill), []

    def move(made):
        nonlocal setting
        if made != setting:
            setting = held(drill, made)
            moves.append(setting)

    if drill.knob("turn"):
        move(setting._replace(turn=tilt_toward(drill, *drill.asked)[1]))
    while drill.knob("tilt") and len(moves) < MOST_MOVES:
        before = len(moves)
        move(_dip(drill, setting, "focus", lambda drill, one: edges(drill, one)[0]))
        if worst_blur(drill, setting) <= drill.gear.circle:
            break
        move(_dip(drill, setting, "tilt", lambda drill, one: edges(drill, one)[1]))
        if worst_blur(drill, setting) <= drill.gear.circle or len(moves) == before:
            break
    # What is left is shared between the two ends.
    move(focused(drill, setting, worst_blur))
    return moves, setting


def par_of(drill):
    """Moves that a good hand takes.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    int
    """
    if drill.kind == "stop":
        return 1
    if drill.kind == "ends":
        return 2
    if drill.kind in ("magnifier", "rock"):
        return PRESSES
    return max(len(near_then_far(drill)[0]), 1)
