"""Drills: a set seen through a lens that can be focused, tilted, turned and stopped down, all from a seed.

What a hand does is a setting: whole clicks of each knob. What is shown and judged is a function of both.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane.tilt import tilt_for_plane

KINDS = ("magnifier", "stop", "ends", "rock", "tilt", "tilt_and_turn", "limits")
"""In the order in which they are best learned."""
FOCAL = 90.0
CIRCLE = 0.03
STOPS = (2.8, 4.0, 5.6, 8.0, 11.0, 16.0, 22.0)
FOCUS_CLICKS = 160
FOCUS_CLICK = 0.05
"""mm of extension."""
RAIL_CLICK = 1.0
"""mm."""
TURN_CLICK = math.radians(15)
TURN_CLICKS = 12
"""A half turn: beyond it the lens tilts the same way again, the other way round."""
UP = math.pi / 2


class Knob(NamedTuple):
    """Something that a hand turns, in whole clicks."""

    name: str
    """focus, tilt, turn, stop or rail."""
    low: int
    high: int
    start: int
    click: float
    """What a click is: mm, radians; 1 for stops."""


class Gear(NamedTuple):
    """The camera and its lens, as one thin lens and what scales behind it."""

    focal_length: float = FOCAL
    """mm."""
    sensor: tuple = (36.0, 24.0)
    """Width and height, mm, where the lens itself forms the picture."""
    circle: float = CIRCLE
    """Blur there that counts as sharp, mm."""
    stops: tuple = STOPS
    """f-numbers as marked."""
    rest: float = UP
    """Azimuth along which the lens tilts when its mechanism is not turned, radians."""
    pivot: float = 0.0
    """mm behind the node."""
    scale_behind: float = 1.0
    """Of the picture on the sensor to the one that the lens forms."""
    pixel: float = 0.006
    """mm where the lens forms the picture."""


class Place(NamedTuple):
    """A place of the set that must be sharp, from the lens: mm right, up and away."""

    name: str
    x: float
    y: float
    z: float


class Drill(NamedTuple):
    """One exercise."""

    kind: str
    seed: int
    distance: float
    """mm from the lens to the middle of the set."""
    slope: tuple
    """dz/dx, dz/dy."""
    depth: float
    """mm, near to far, that must be sharp; for ``stop`` and ``ends``."""
    knobs: tuple
    gear: Gear = Gear()
    places: tuple = ()
    """That must be sharp; none: the whole frame."""
    asked: tuple = (0.0, UP)
    """Tilt and azimuth that the set asks for, radians, within what the lens can do."""

    def knob(self, name):
        """The knob of a name (str), or None where this drill has none."""
        return next((knob for knob in self.knobs if knob.name == name), None)

    @property
    def image_distance(self):
        """A of the lens, square, focused on the middle of the set: mm."""
        focal = self.gear.focal_length
        return focal * self.distance / (self.distance - focal)


class Setting(NamedTuple):
    """Where every knob stands, in clicks."""

    focus: int = 0
    tilt: int = 0
    turn: int = 0
    stop: int = 2
    rail: int = 0


def make_drill(kind, seed):
    """A drill.

    Parameters
    ----------
    kind : str   Of ``KINDS``.
    seed : int

    Returns
    -------
    Drill

    Raises
    ------
    OutOfDomainError   The kind is unknown.
    """
    if kind not in KINDS:
        raise OutOfDomainError(
            "kind.unknown", quantity="kind", value=kind, message=f"A drill is one of {', '.join(KINDS)}; got {kind!r}."
        )
    made = np.random.default_rng((KINDS.index(kind), seed))
    m = made.uniform(0.15, 0.35)
    if kind in ("magnifier", "rock"):
        return _square(kind, seed, m)
    distance = FOCAL * (1 + 1 / m)
    steep = made.uniform(0.5, 1.1)
    azimuth = UP
    if kind == "tilt_and_turn":
        azimuth = made.choice([math.radians(angle) for angle in (30, 45, 60, 120, 135, 150)])
    if kind == "ends":
        steep = made.uniform(0.25, 0.6)
    if kind == "stop":
        # So that the best of the stops lies anywhere among them.
        steep = 10 ** made.uniform(-2.0, -0.9)
    slope = (steep * math.cos(azimuth), steep * math.sin(azimuth))
    height = Gear().sensor[1] / m
    ideal = tilt_for_plane(FOCAL, distance, *slope)
    reach = 3.0 * max(ideal.tilt, math.radians(1))
    click = math.radians(0.25)
    if kind == "limits":
        reach, click = made.uniform(0.55, 0.8) * ideal.tilt, math.radians(0.5)
    tilts = max(int(reach / click), 3)
    focus = Knob("focus", -FOCUS_CLICKS, FOCUS_CLICKS, int(made.integers(-30, 31)), FOCUS_CLICK)
    knobs: tuple = (focus, Knob("tilt", -tilts, tilts, 0, click))
    if kind == "tilt_and_turn":
        knobs = (*knobs, Knob("turn", 0, TURN_CLICKS - 1, TURN_CLICKS // 2, TURN_CLICK))
    if kind == "stop":
        knobs = (Knob("stop", 0, len(STOPS) - 1, int(made.integers(0, len(STOPS))), 1.0),)
    if kind == "ends":
        half = int(steep * height / RAIL_CLICK)
        knobs = (Knob("rail", -half, half, int(made.integers(-half // 3, half // 3 + 1)), RAIL_CLICK),)
    gear = Gear(pivot=float(made.uniform(20, 60))) if kind == "limits" else Gear()
    depth = float(steep * height * 0.9)
    asked = (min(ideal.tilt, tilts * click), ideal.azimuth)
    return Drill(kind, seed, float(distance), slope, depth, knobs, gear, asked=asked)


def _square(kind, seed, m):
    """A page that stands square: it is looked at, not laid."""
    knobs = (Knob("focus", -FOCUS_CLICKS, FOCUS_CLICKS, 0, FOCUS_CLICK),)
    return Drill(kind, seed, float(FOCAL * (1 + 1 / m)), (0.0, 0.0), 0.0, knobs)


def start_of(drill):
    """Where the knobs stand at first.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    Setting
    """
    return Setting(stop=min(Setting().stop, len(drill.gear.stops) - 1))._replace(
        **{knob.name: knob.start for knob in drill.knobs}
    )


def held(drill, setting):
    """A setting within what the knobs can do; those that a drill does not have stay put.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    Setting
    """
    rest = start_of(drill)
    values = {}
    for name in Setting._fields:
        knob = drill.knob(name)
        asked = getattr(setting, name)
        values[name] = getattr(rest, name) if knob is None else min(max(asked, knob.low), knob.high)
    return Setting(**values)


def tilt_toward(drill, tilt, azimuth):
    """The clicks of tilt and turn that come nearest to a tilt along an azimuth.

    Parameters
    ----------
    drill : Drill    With a tilt.
    tilt : float     Radians, >= 0.
    azimuth : float  Radians.

    Returns
    -------
    (int, int)       Clicks of tilt, of turn: within what the knobs can do.
    """
    lean, turn = drill.knob("tilt"), drill.knob("turn")
    if turn is None:
        at, along = start_of(drill).turn, tilt * math.cos(azimuth - drill.gear.rest)
    else:
        clicks = np.arange(turn.low, turn.high + 1)
        toward = np.cos(azimuth - drill.gear.rest - (clicks - turn.start) * turn.click)
        best = int(np.argmax(np.abs(toward)))
        at, along = int(clicks[best]), math.copysign(tilt, toward[best])
    return min(max(round(along / lean.click), lean.low), lean.high), at
