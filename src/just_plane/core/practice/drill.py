"""Drills: a flat set seen through a lens that can be focused, tilted, turned and stopped down, all from a seed.

What a hand does is a setting: whole clicks of each knob. What is shown and judged is a function of both.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.contrast import contrast
from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane.tilt import TiltSetting, tilt_for_plane
from just_plane.core.view.focus import focus_of_lens
from just_plane.core.view.geometry import Grid, seen
from just_plane.core.view.scene import Scene, made_scene

KINDS = ("magnifier", "stop", "ends", "rock", "tilt", "tilt_and_turn", "limits")
"""In the order in which they are best learned."""
SENSOR = (36.0, 24.0)
CIRCLE = 0.03
STOPS = (2.8, 4.0, 5.6, 8.0, 11.0, 16.0, 22.0)
FOCAL = 90.0
FOCUS_CLICKS = 160
FOCUS_CLICK = 0.05
"""mm of extension."""
RAIL_CLICK = 1.0
"""mm."""
TURN_CLICK = math.radians(15)
RASTER_PX = 1.3
"""Texels of the set to a pixel of the widest view."""
VIEW_PX = 960
JUDGED = Grid(13, 19, SENSOR[0] / 19)
"""Places of the frame that are judged."""


class Knob(NamedTuple):
    """Something that a hand turns, in whole clicks."""

    name: str
    """focus, tilt, turn, stop or rail."""
    low: int
    high: int
    start: int
    click: float
    """What a click is: mm, radians; 1 for stops."""


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
    pivot: float
    """mm from the node to where the lens turns, along its axis."""

    @property
    def image_distance(self):
        """A of the lens, square, focused on the middle of the set: mm."""
        return FOCAL * self.distance / (self.distance - FOCAL)


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
    azimuth = math.pi / 2
    if kind == "tilt_and_turn":
        azimuth = made.choice([math.radians(angle) for angle in (30, 45, 60, 120, 135, 150)])
    if kind == "ends":
        steep = made.uniform(0.25, 0.6)
    if kind == "stop":
        # So that the best of the stops lies anywhere among them.
        steep = 10 ** made.uniform(-2.0, -0.9)
    slope = (steep * math.cos(azimuth), steep * math.sin(azimuth))
    height = SENSOR[1] / m
    ideal = tilt_for_plane(FOCAL, distance, *slope).tilt
    reach = 3.0 * max(ideal, math.radians(1))
    click = math.radians(0.25)
    if kind == "limits":
        reach, click = made.uniform(0.55, 0.8) * ideal, math.radians(0.5)
    tilts = max(int(reach / click), 3)
    focus = Knob("focus", -FOCUS_CLICKS, FOCUS_CLICKS, int(made.integers(-30, 31)), FOCUS_CLICK)
    knobs: tuple = (focus, Knob("tilt", -tilts, tilts, 0, click))
    if kind == "tilt_and_turn":
        knobs = (*knobs, Knob("turn", 0, 11, 6, TURN_CLICK))
    if kind == "stop":
        knobs = (Knob("stop", 0, len(STOPS) - 1, int(made.integers(0, len(STOPS))), 1.0),)
    if kind == "ends":
        half = int(steep * height / RAIL_CLICK)
        knobs = (Knob("rail", -half, half, int(made.integers(-half // 3, half // 3 + 1)), RAIL_CLICK),)
    pivot = float(made.uniform(20, 60)) if kind == "limits" else 0.0
    return Drill(kind, seed, float(distance), slope, float(steep * height * 0.9), knobs, pivot)


def _square(kind, seed, m):
    """A page that stands square: it is looked at, not laid."""
    knobs = (Knob("focus", -FOCUS_CLICKS, FOCUS_CLICKS, 0, FOCUS_CLICK),)
    return Drill(kind, seed, float(FOCAL * (1 + 1 / m)), (0.0, 0.0), 0.0, knobs, 0.0)


def start_of(drill):
    """Where the knobs stand at first.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    Setting
    """
    return Setting()._replace(**{knob.name: knob.start for knob in drill.knobs})


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
    has = {knob.name: knob for knob in drill.knobs}
    values = {}
    for name, default in Setting()._asdict().items():
        knob = has.get(name)
        values[name] = default if knob is None else min(max(getattr(setting, name), knob.low), knob.high)
    return Setting(**values)


def lens_of(drill, setting):
    """The lens as it is set.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    (TiltSetting, float)   And the marked f-number.
    """
    clicks = {knob.name: knob.click for knob in drill.knobs}
    tilt = setting.tilt * clicks.get("tilt", 0.0)
    azimuth = setting.turn * clicks["turn"] if "turn" in clicks else math.pi / 2
    # A pivot off the node carries the node along the axis as the lens turns.
    image = drill.image_distance + setting.focus * FOCUS_CLICK + drill.pivot * (1 - math.cos(tilt))
    return TiltSetting(tilt, azimuth, image), STOPS[setting.stop]


def works_as(drill, setting):
    """Effective f-number.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    float
    """
    lens, f_number = lens_of(drill, setting)
    return f_number * lens.image_distance / FOCAL


def set_of(drill):
    """The set, drawn fine enough for the widest view.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    Scene
    """
    m = drill.image_distance / drill.distance
    texel = SENSOR[0] / VIEW_PX / m / RASTER_PX
    # Far parts of a slope reach farther out; past the raster its edge goes on.
    wide = 1.0 + 1.2 * (abs(drill.slope[0]) * SENSOR[0] + abs(drill.slope[1]) * SENSOR[1]) / 2 / drill.image_distance
    shape = tuple(math.ceil(side / m * wide * 1.12 / texel) for side in (SENSOR[1], SENSOR[0]))
    return made_scene("lettering", shape, texel, drill.distance, drill.slope, 0.0, 0.9 * shape[1] * texel, drill.seed)


def blurs(drill, setting):
    """Blur on the sensor at the places that are judged.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    (13, 19) array   mm; rows from the top.
    """
    lens, f_number = lens_of(drill, setting)
    plane = Scene(
        drill.distance,
        drill.slope[0],
        drill.slope[1],
        np.zeros((2, 2), np.float32),
        np.zeros((3, 2, 2), np.float32),
        1.0,
    )
    there = seen(plane, JUDGED, lens.image_distance, (0.0, 0.0, setting.rail * RAIL_CLICK))
    return focus_of_lens(FOCAL, f_number, lens).blur(JUDGED, there.inverse)


def worst_blur(drill, setting):
    """The most blurred place.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    float   mm.
    """
    return float(blurs(drill, setting).max())


def worst_contrast_at(drill, setting):
    """Contrast of detail of the size of the circle of confusion, where it is lowest.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    float
    """
    return float(contrast(1 / CIRCLE, works_as(drill, setting), worst_blur(drill, setting)))
