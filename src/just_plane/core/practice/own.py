"""A drill on a set of one's own: its points before its lens with its limits, in clicks that reach the plan."""

import math

import numpy as np

from just_plane.core.practice.drill import Drill, Knob

TILT_CLICK = math.radians(0.1)
"""As tilt scales are read."""
TURN_CLICK = math.radians(1)
"""Of a mechanism that stays anywhere."""
SHARE_OF_CIRCLE = 0.25
"""Of the circle of confusion, that a click of the focus moves the blur."""
BEYOND = 1.3
"""How much farther the focus goes than the set asks for."""
MOST_CLICKS = 2000


def own_drill(seed, lens, gear, places, asked, slope, distance):
    """A drill on one's own set.

    Parameters
    ----------
    seed : int               Where the focus stands at first.
    lens : TiltingLens
    gear : Gear              With one stop.
    places : list of Place   That must be sharp.
    asked : TiltSetting      That the plan lays; untilted where the lens does not tilt.
    slope : (float, float)   dz/dx, dz/dy of the plane through them.
    distance : float         mm from the lens to where that plane meets its axis.

    Returns
    -------
    Drill
    """
    focal, away = lens.focal_length, np.array([place.z for place in places])
    reached = [*(focal * away / (away - focal)), asked.image_distance]
    middle = focal * distance / (distance - focal)
    click = SHARE_OF_CIRCLE * gear.circle * gear.stops[0]
    half = int(BEYOND * max(abs(image - middle) for image in reached) / click) + 20
    if half > MOST_CLICKS:
        click, half = click * half / MOST_CLICKS, MOST_CLICKS
    start = int(np.random.default_rng((93, seed)).choice([-1, 1]) * np.random.default_rng((94, seed)).integers(5, 16))
    knobs = [Knob("focus", -half, half, start, click)]
    if lens.limit > 0:
        tilts = max(int(lens.limit / TILT_CLICK + 1e-6), 1)
        knobs.append(Knob("tilt", -tilts, tilts, 0, TILT_CLICK))
        if lens.turns:
            apart = lens.click or TURN_CLICK
            side = math.floor(math.pi / 2 / apart + 1e-9)
            knobs.append(Knob("turn", -side, side, 0, apart))
    return Drill(
        "own",
        seed,
        float(distance),
        tuple(float(part) for part in slope),
        0.0,
        tuple(knobs),
        gear,
        tuple(places),
        (asked.tilt, asked.azimuth),
    )
