"""What stands against a setting: the mechanism's limit, its clicks, a ring that ends, and the cure for each."""

import math

import numpy as np

from just_plane.contract.plane_plan import TurnRestAnswer
from just_plane.planning.plane.words import direction
from just_plane.planning.setup.ring_reach import ring_reaches
from just_plane.planning.words.findings import caution, note

NO_TURN = 0.05
"""Degrees below which there is nothing to turn the camera for."""
LITTLE = 0.01
"""mm off the plane that nobody could read."""


def turn_rest(work, wording):
    """The least turn of the camera after which the tilt reaches the plane (PlaneSetup): TurnRestAnswer, or None."""
    turn = work.rest
    if turn is None or math.degrees(turn.angle) < NO_TURN:
        return None
    setting, toward = turn.laid.setting, math.degrees(turn.toward)
    faces = (math.degrees(setting.azimuth) + 360) % 360 - 180
    angle, tilt = math.degrees(turn.angle), math.degrees(setting.tilt)
    left = turn.laid.fit.largest_deviation
    after = f"tilt {tilt:.1f}°, the lens facing {direction(faces)}" if tilt >= NO_TURN else "no tilt is needed"
    return TurnRestAnswer(
        angle_deg=angle,
        toward_deg=toward,
        toward=direction(toward),
        tilt_deg=tilt,
        faces_deg=faces,
        left_over_mm=left,
        words=f"Move the camera {angle:.0f}° round the subject, {direction(toward)} in the frame; then {after}"
        + (f", and {wording.length(left)} is left over." if left > LITTLE else "."),
    )


def say_limits(setup):
    """What the mechanism's limit, its direction or its clicks leave over: yields Finding.

    Parameters
    ----------
    setup : Setup   With a plane laid and a setting.
    """
    work = setup.plane
    if work.laid.limited:
        yield _off_axis(setup) if _leans_aside(work) else _beyond_limit(setup)
    elif work.lens.click is not None:
        yield from _between_clicks(work.laid, setup.wording)


def _leans_aside(work):
    """The plane recedes along a direction in which this mechanism cannot tilt."""
    wanted, rest = work.laid.wanted, work.lens.rest
    aside = wanted.slope_y * math.cos(rest) - wanted.slope_x * math.sin(rest)
    return not work.lens.turns and abs(aside) > math.tan(math.radians(NO_TURN))


def _off_axis(setup):
    work, wording = setup.plane, setup.wording
    lens, laid = work.lens, work.laid
    along = "up and down" if lens.rest else "left and right"
    return caution(
        "plane.no_rotation",
        "/plane",
        f"This mechanism does not turn about the axis: it tilts {along} only, and the plane recedes "
        f"{direction(math.degrees(laid.azimuth))}. {wording.length(laid.fit.largest_deviation)} is left over.",
        " ".join(_cures(setup)),
    )


def _cures(setup):
    """What would lay the plane, that which costs least first: yields sentences."""
    work, wording = setup.plane, setup.wording
    rolled, rest = work.rolled, turn_rest(work, wording)
    if rolled is not None and rolled.setting is not None and _holds(setup, rolled):
        how = "Turn the camera on its side" if work.lens.rest else "Stand the camera upright"
        yield f"{how}: tilted {math.degrees(rolled.setting.tilt):.1f}° there, every point is within its slack."
    if rest is not None:
        yield (
            rest.words if rest.left_over_mm <= LITTLE or _holds(setup, work.rest.laid) else rest.words + " Then stack."
        )
    else:
        yield "Tilt and stack."


def _holds(setup, laid):
    """Whether the points are sharp with a plane laid otherwise: by the blur at their deviation from it."""
    if laid.defocus is None:
        return False
    blur = np.abs(setup.plane.lens.blur_of(laid.defocus, setup.stop.effective_f_number)).max()
    return bool(blur <= setup.stop.blur)


def _beyond_limit(setup):
    work, wording = setup.plane, setup.wording
    lens, laid, rest = work.lens, work.laid, turn_rest(work, wording)
    reach = math.degrees(math.atan(math.sin(lens.limit) * laid.fit.z0 / lens.focal_length))
    return caution(
        "plane.beyond_limit",
        "/plane",
        f"The plane lies {math.degrees(math.atan(laid.slope)):.0f}° from square; with {math.degrees(lens.limit):g}° of "
        f"tilt this lens follows {reach:.1f}° here. {wording.length(laid.fit.largest_deviation)} is left over.",
        f"{rest.words} Or tilt and stack." if rest is not None else "Tilt and stack.",
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
    if not ring_reaches(setup, setup.plane.laid.setting.image_distance):
        yield caution(
            "plane.ring_ends",
            "/plane",
            "With this tilt the focus ring ends before the plane is reached.",
            "Add a short tube, or step back a little and focus again.",
        )
