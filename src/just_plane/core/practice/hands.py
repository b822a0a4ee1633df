"""Hands that can see: the best that can be reached with a lens, and how many moves a good hand takes without a plan."""

import numpy as np

from just_plane.core.plane.tilt import tilt_for_plane
from just_plane.core.practice.drill import (
    CIRCLE,
    FOCAL,
    STOPS,
    TURN_CLICK,
    Setting,
    blurs,
    held,
    start_of,
    worst_blur,
    worst_contrast_at,
)

EYE = CIRCLE / 3
"""What an eye at the magnifier tells from sharp."""
MOST_MOVES = 24
PRESSES = 10
"""Of the drills that are a count of hits."""
HALF_TURN = 12
"""Clicks of the turn to where the lens tilts the same way again, the other way round."""
NEARBY = 3
"""Clicks of tilt beside the one that the plane asks for."""


def edges(drill, setting):
    """Blur of the near and the far edge of the set, in the middle of each.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    (float, float)   mm.
    """
    there = blurs(drill, setting)
    rows, columns = there.shape
    if abs(drill.slope[1]) >= abs(drill.slope[0]):
        ends = (there[-1, columns // 2], there[0, columns // 2])
        away = drill.slope[1] >= 0
    else:
        ends = (there[rows // 2, 0], there[rows // 2, -1])
        away = drill.slope[0] >= 0
    return (float(ends[0]), float(ends[1])) if away else (float(ends[1]), float(ends[0]))


def best_setting(drill):
    """The sharpest that can be had: the tilt that the plane asks for, as far as the lens goes, and what lies beside it.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    Setting
    """
    if drill.kind == "stop":
        return max((Setting(stop=stop) for stop in range(len(STOPS))), key=lambda one: worst_contrast_at(drill, one))
    if drill.kind in ("ends", "magnifier", "rock"):
        return start_of(drill)
    knobs = {knob.name: knob for knob in drill.knobs}
    ideal = tilt_for_plane(FOCAL, drill.distance, *drill.slope)
    half_turns = round(ideal.azimuth / TURN_CLICK) % (2 * HALF_TURN)
    tilt = round(ideal.tilt / knobs["tilt"].click) * (-1 if half_turns >= HALF_TURN else 1)
    start = start_of(drill)
    turns = [(half_turns + step) % HALF_TURN for step in (-1, 0, 1)] if "turn" in knobs else [start.turn]
    best = start
    for turn in turns:
        for step in range(-NEARBY, NEARBY + 1):
            tried = focused(drill, held(drill, start._replace(turn=turn, tilt=tilt + step)), worst_blur)
            if worst_blur(drill, tried) < worst_blur(drill, best):
                best = tried
    return best


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
    """Ternary search of a knob for the dip of a measure."""
    knob = next(each for each in drill.knobs if each.name == name)
    low, high = knob.low, knob.high
    while high - low > 2:
        third = (high - low) // 3
        left, right = (setting._replace(**{name: at}) for at in (low + third, high - third))
        if measure(drill, left) <= measure(drill, right):
            high = high - third
        else:
            low = low + third
    return min((setting._replace(**{name: at}) for at in range(low, high + 1)), key=lambda one: measure(drill, one))


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

    if any(knob.name == "turn" for knob in drill.knobs):
        azimuth = np.degrees(np.arctan2(drill.slope[1], drill.slope[0])) % 180
        move(setting._replace(turn=round(azimuth / 15) % HALF_TURN))
    while len(moves) < MOST_MOVES:
        before = len(moves)
        move(_dip(drill, setting, "focus", lambda drill, one: edges(drill, one)[0]))
        if worst_blur(drill, setting) <= CIRCLE:
            break
        move(_dip(drill, setting, "tilt", lambda drill, one: edges(drill, one)[1]))
        if worst_blur(drill, setting) <= CIRCLE or len(moves) == before:
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
    return len(near_then_far(drill)[0])
