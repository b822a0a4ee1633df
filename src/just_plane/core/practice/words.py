"""What was seen from one move to the next, and what a good hand would do now: from the true state, in words."""

import math

import numpy as np

from just_plane.core.practice.drill import start_of
from just_plane.core.practice.hands import EYE, best_setting, edges, ends_of_places
from just_plane.core.practice.seeing import blurs, worst_blur

MUCH = 1.15
"""Times more blur that an eye tells."""
TELLS = math.radians(2)
"""Of a turn, below which it is not worth a word."""


def saw(drill, before, after):
    """What changed on the screen.

    Parameters
    ----------
    drill : Drill
    before, after : Setting

    Returns
    -------
    str   Empty where nothing could be seen.
    """
    if drill.kind in ("stop", "ends") or before == after:
        return ""
    least = EYE * drill.gear.circle
    was, now = edges(drill, before), edges(drill, after)
    both = "Both ends" if drill.places else "Both edges"
    if all(new > MUCH * max(old, least) for old, new in zip(was, now, strict=True)):
        return f"{both} went soft."
    if all(old > MUCH * max(new, least) for old, new in zip(was, now, strict=True)):
        return f"{both} came up."
    parts = []
    for name, old, new in zip(ends_named(drill), was, now, strict=True):
        if new > MUCH * max(old, least):
            parts.append(f"{name} went soft")
        elif old > MUCH * max(new, least):
            parts.append(f"{name} came up")
    if not parts:
        return "Hardly anything changed."
    return f"{capital(' and '.join(parts))}."


def hint(drill, setting):
    """One move that a good hand would make now.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    str
    """
    if drill.kind == "stop":
        best = best_setting(drill).stop
        return "Leave it there." if setting.stop == best else ("Stop down." if setting.stop < best else "Open up.")
    if drill.kind == "ends":
        return "Go back until the nearest part has gone soft, then come on to it: that is the first frame."
    near, far = edges(drill, setting)
    if worst_blur(drill, setting) <= drill.gear.circle:
        return "It is sharp enough: press."
    best = best_setting(drill)
    if worst_blur(drill, setting) <= 1.02 * worst_blur(drill, best):
        return "This lens can do no more here: press."
    near_name, far_name = ends_named(drill)
    turn = drill.knob("turn")
    if turn and abs(setting.turn - best.turn) * turn.click > TELLS:
        if drill.places:
            off = math.degrees((best.turn - setting.turn) * turn.click)
            return (
                f"Turn the tilt {abs(off):.0f}° {'anticlockwise' if off > 0 else 'clockwise'}: the set falls that way."
            )
        return f"Turn the tilt to {math.degrees(best.turn * turn.click):.0f}°: the slope runs that way."
    tilts = drill.knob("tilt") is not None
    if tilts and near > EYE * drill.gear.circle:
        return f"Focus on {near_name}."
    if tilts and far > EYE * drill.gear.circle and setting.tilt != best.tilt:
        return f"Tilt until {far_name} is sharp." if abs(setting.tilt) < abs(best.tilt) else "A little less tilt."
    return f"Focus between {near_name} and {far_name}."


def ends_named(drill):
    """What the near and the far end of a set are called.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    (str, str)
    """
    if not drill.places:
        return "the near edge", "the far edge"
    near, far = ends_of_places(drill)
    return drill.places[near].name, drill.places[far].name


def softest(drill, setting):
    """Which place is the most blurred.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    str
    """
    there = blurs(drill, setting)
    if drill.places:
        return drill.places[int(np.argmax(there))].name
    row, column = np.unravel_index(int(np.argmax(there)), there.shape)
    rows, columns = there.shape
    down = ("top", "middle", "bottom")[min(3 * row // rows, 2)]
    across = ("left", "middle", "right")[min(3 * column // columns, 2)]
    return "the middle" if down == across else f"the {down} {across}".replace("middle ", "").replace(" middle", "")


def steps_to(drill, setting):
    """The settings on the way from the start to another, one knob after the other, as a hand that knows goes.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    list of (str, Setting)   The knob turned, and where all then stand; the focus last.
    """
    at, steps = start_of(drill), []
    for name in ("stop", "rail", "turn", "tilt", "focus"):
        to = getattr(setting, name)
        if drill.knob(name) and getattr(at, name) != to:
            at = at._replace(**{name: to})
            steps.append((name, at))
    return steps


def capital(words):
    """Words as a sentence begins with them.

    Parameters
    ----------
    words : str

    Returns
    -------
    str
    """
    return words[:1].upper() + words[1:]
