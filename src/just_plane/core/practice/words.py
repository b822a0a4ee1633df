"""What was seen from one move to the next, and what a good hand would do now: from the true state, in words."""

from just_plane.core.practice.drill import CIRCLE, worst_blur
from just_plane.core.practice.hands import EYE, best_setting, edges

MUCH = 1.15
"""Times more blur that an eye tells."""


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
    was, now = edges(drill, before), edges(drill, after)
    if all(new > MUCH * max(old, EYE) for old, new in zip(was, now, strict=True)):
        return "Both edges went soft."
    if all(old > MUCH * max(new, EYE) for old, new in zip(was, now, strict=True)):
        return "Both edges came up."
    parts = []
    for name, old, new in zip(("near", "far"), was, now, strict=True):
        if new > MUCH * max(old, EYE):
            parts.append(f"the {name} edge went soft")
        elif old > MUCH * max(new, EYE):
            parts.append(f"the {name} edge came up")
    if not parts:
        return "Hardly anything changed."
    return f"{' and '.join(parts)}.".capitalize()


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
    if worst_blur(drill, setting) <= CIRCLE:
        return "It is sharp enough: press."
    best = best_setting(drill)
    if any(knob.name == "turn" for knob in drill.knobs) and setting.turn != best.turn:
        return f"Turn the tilt to {15 * best.turn}°: the slope runs that way."
    if near > EYE:
        return "Focus on the near edge."
    if far > EYE and setting.tilt != best.tilt:
        return "Tilt until the far edge is sharp." if abs(setting.tilt) < abs(best.tilt) else "A little less tilt."
    return "Focus between the two ends."
