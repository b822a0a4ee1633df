"""What stands against a setting: the mechanism's limit, its clicks, a ring that ends, and the cure for each."""

import math

import numpy as np

from just_plane.planning.plane.words import direction
from just_plane.planning.words.findings import caution, note

NO_TURN = 0.05
"""Degrees below which there is nothing to turn the camera for."""


def turn_for_the_rest(work):
    """The turn of the camera that would do what the tilt cannot (PlaneSetup): degrees, or None."""
    if not work.laid.limited:
        return None
    rest = _beyond(work)[1]
    return None if rest < NO_TURN and not work.lens.turns else rest


def say_limits(work, wording):
    """What the mechanism's limit, its direction or its clicks leave over: yields Finding.

    Parameters
    ----------
    work : PlaneSetup   With a plane laid and a setting.
    wording : Wording
    """
    if work.laid.limited:
        rest = turn_for_the_rest(work)
        yield _no_rotation(work) if rest is None else _beyond_limit(work, rest, wording)
    elif work.lens.click is not None:
        yield from _between_clicks(work.laid, wording)


def _beyond(work):
    """The angle that the tilt follows here, and what is left of the plane's: (degrees, degrees)."""
    lens, laid = work.lens, work.laid
    reach = math.degrees(math.atan(math.sin(lens.limit) * laid.fit.z0 / lens.focal_length))
    return reach, max(math.degrees(math.atan(laid.slope)) - reach, 0.0)


def _no_rotation(work):
    lens, laid = work.lens, work.laid
    along = "up and down" if lens.rest else "left and right"
    return caution(
        "plane.no_rotation",
        "/plane",
        f"This mechanism does not turn about the axis: it tilts {along} only, and the plane recedes "
        f"{direction(math.degrees(laid.azimuth))}.",
        f"{'Turn the camera on its side' if lens.rest else 'Stand the camera upright'}, or turn it about its axis "
        f"until the plane recedes {along} in the frame.",
    )


def _beyond_limit(work, rest, wording):
    lens, laid = work.lens, work.laid
    return caution(
        "plane.beyond_limit",
        "/plane",
        f"The plane lies {math.degrees(math.atan(laid.slope)):.0f}° from square; with {math.degrees(lens.limit):g}° of "
        f"tilt this lens follows {_beyond(work)[0]:.1f}° here. {wording.length(laid.fit.largest_deviation)} is left "
        "over.",
        f"Turn the camera {rest:.0f}° toward the subject's slope for the rest, or tilt and stack.",
    )


def _between_clicks(laid, wording):
    """What it costs that the mechanism does not stay where the plane wants it."""
    if laid.fit.largest_deviation <= laid.wanted.largest_deviation + 1e-3:
        return
    turn = math.degrees(laid.azimuth - laid.setting.azimuth)
    roll = (turn + 90) % 180 - 90
    way = "clockwise" if roll < 0 else "anticlockwise"
    yield note(
        "plane.between_clicks",
        "/plane",
        f"The plane recedes {abs(roll):.0f}° beside the nearest click of the mechanism: "
        f"{wording.length(laid.fit.largest_deviation)} is left over, where "
        f"{wording.length(laid.wanted.largest_deviation)} would be.",
        f"Where that matters, turn the camera about its axis by {abs(roll):.0f}° {way}, seen from behind.",
    )


def ring_ends(setup):
    """A focus ring that ends before the plane is reached (Setup): yields Finding."""
    made, work = setup.rigged, setup.plane
    if made.over_throw is None or made.rig.bellows is not None:
        return
    own = work.laid.setting.image_distance / work.lens.focal_length - 1
    reached = float(np.max(made.over_throw.magnification)) / work.lens.scale_behind
    if own > reached * 1.002:
        yield caution(
            "plane.ring_ends",
            "/plane",
            "With this tilt the focus ring ends before the plane is reached.",
            "Add a short tube, or step back a little and focus again.",
        )
