"""Drills in the words of the page."""

import math

from just_plane.contract.practice import DrillAnswer, DrillPlace, DrillSetting, KnobAnswer, MoveSaid
from just_plane.core.practice.drill import RAIL_CLICK, STOPS, Setting, held, start_of
from just_plane.core.practice.hands import PRESSES, best_setting, par_of
from just_plane.core.practice.reading import rounds_of
from just_plane.core.practice.score import ends_of
from just_plane.core.practice.seeing import blurs, places_seen, worst_blur
from just_plane.core.practice.words import ends_named, hint, saw
from just_plane.core.units import UM_PER_MM
from just_plane.practice.show import COLUMNS, marks_reach

WITHOUT_KNOBS = ("magnifier", "rock")
TASKS = {
    "magnifier": "Which of the five is the sharpest? Ten times, closer together each time.",
    "rock": "The hand carries the camera to and fro. Press ten times, each just before the letters come up.",
    "stop": "Choose the stop at which the whole page is as sharp as it can be, near edge to far, then press.",
    "ends": "Find the first frame and the last of a stack: {depth:.0f} mm of the page must be sharp. Press at each.",
    "tilt": "Make the whole page sharp, near edge to far, then press.",
    "tilt_and_turn": "The page lies askew. Turn the tilt the way it falls, make all of it sharp, then press.",
    "limits": "This lens tilts too little, and not about its node. Make the page as sharp as it goes, then press.",
    "own": "Make every point that is marked sharp, near to far, then press.",
}
EDGE = 0.42
"""Of the frame, from its middle, where the near and the far edge are looked at."""


def drill_answer(drill, own=None, title=""):
    """A drill as the page is told of it.

    Parameters
    ----------
    drill : Drill
    own : OwnSet or None   The shot that it is made of.
    title : str            Of that shot.

    Returns
    -------
    DrillAnswer
    """
    kind = drill.kind
    near, far = ends_of(drill)
    gear = drill.gear
    um = UM_PER_MM * gear.scale_behind
    best = best_setting(drill)
    reaches = kind in ("stop", "ends", *WITHOUT_KNOBS) or worst_blur(drill, best) <= gear.circle
    return DrillAnswer(
        kind=kind,
        seed=drill.seed,
        own=own,
        title=title,
        task=TASKS[kind].format(depth=far - near),
        start=told(start_of(drill)),
        knobs=[
            KnobAnswer(name=knob.name, low=knob.low, high=knob.high, scale=_scale(drill, knob)) for knob in drill.knobs
        ],
        presses=PRESSES if kind in WITHOUT_KNOBS else 2 if kind == "ends" else 1,
        par=par_of(drill),
        sharp_um=um * gear.circle,
        marks_reach_um=round(um * marks_reach(gear.sensor[0] / COLUMNS, gear.circle), 1),
        rounds=rounds_of(drill.seed) if kind == "magnifier" else [],
        reaches=reaches,
        nearest="" if reaches else _nearest(drill, best, um),
        places=_places(drill),
    )


def move_said(drill, before, after):
    """What was seen of a move, and the next.

    Parameters
    ----------
    drill : Drill
    before, after : DrillSetting

    Returns
    -------
    MoveSaid
    """
    one, two = taken(drill, before), taken(drill, after)
    return MoveSaid(saw=saw(drill, one, two), hint=hint(drill, two))


def told(setting):
    """A setting of the core as the page has it: DrillSetting."""
    return DrillSetting(**setting._asdict())


def taken(drill, setting):
    """A setting of the page as the core has it, within what the knobs can do: Setting."""
    return held(drill, Setting(**setting.model_dump()))


def reading(drill, name, click):
    """What is engraved on a knob at a click: str."""
    knob = drill.knob(name)
    return _scale(drill, knob)[click - knob.low]


def _nearest(drill, best, um):
    """How near a lens comes that cannot make all of it sharp."""
    there = blurs(drill, best)
    sharp = f"{(there <= drill.gear.circle).sum()} of {there.size} points are, and " if drill.places else ""
    return (
        f"This lens cannot make all of it sharp: at its best {sharp}the softest place blurs {um * there.max():.0f} µm "
        f"where {um * drill.gear.circle:.0f} µm counts as sharp. Get as near as it goes."
    )


def _places(drill):
    """Where to look closely: the ends of the page, or what must be sharp on one's own set, the nearest first."""
    if drill.places:
        seen = places_seen(drill, start_of(drill))
        order = sorted(range(len(seen)), key=lambda index: drill.places[index].z)
        order = [order[0], order[-1], *order[1:-1]] if len(order) > 1 else order
        return [
            DrillPlace(name=drill.places[at].name, from_left=float(seen[at, 0]), from_top=float(seen[at, 1]))
            for at in order
        ]
    right, up = drill.slope
    steep = math.hypot(right, up)
    across, along = (right / steep, up / steep) if steep else (0.0, 1.0)
    near, far = ends_named(drill)
    return [
        DrillPlace(name=name, from_left=0.5 + EDGE * way * across, from_top=0.5 - EDGE * way * along)
        for name, way in ((near, -1), (far, 1))
    ]


def _scale(drill, knob):
    clicks = range(knob.low, knob.high + 1)
    if knob.name == "stop":
        return [f"f/{stop:g}" for stop in STOPS]
    if knob.name == "tilt":
        digits = 1 if drill.places else 2
        return [f"{math.degrees(click * knob.click):+.{digits}f}°" for click in clicks]
    if knob.name == "turn":
        if drill.places:
            return [_turned(math.degrees((click - knob.start) * knob.click)) for click in clicks]
        return [f"{math.degrees(click * knob.click):.0f}°" for click in clicks]
    if knob.name == "rail":
        return [f"{click * RAIL_CLICK:+.0f} mm" for click in clicks]
    return [f"{click:+d}" for click in clicks]


def _turned(degrees):
    """A turn of the mechanism as it is seen from behind the camera."""
    if abs(degrees) < 0.5:
        return "unturned"
    return f"{abs(degrees):.0f}° {'anticlockwise' if degrees > 0 else 'clockwise'}"
