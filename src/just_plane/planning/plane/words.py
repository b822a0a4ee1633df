"""The plane in words that a hand can follow."""

import math
from typing import NamedTuple

from just_plane.planning.words.numbers import count, f_stop

QUARTERS = ((0.0, "right"), (90.0, "up"), (180.0, "left"), (-90.0, "down"))
STRAIGHT = 1.0
"""Degrees within which a direction is called straight."""


class Step(NamedTuple):
    """One thing to do at the lens."""

    what: str
    """meter, turn, tilt, focus or recompose."""
    words: str


def direction(degrees):
    """A direction on the frame in words: ``straight down``, ``down, 14° toward the left``; 0 right, 90 up."""
    turned = [((degrees - base + 180) % 360 - 180, word) for base, word in QUARTERS]
    off, word = min(turned, key=lambda each: abs(each[0]))
    if abs(off) < STRAIGHT:
        return f"straight {word}"
    base = next(base for base, name in QUARTERS if name == word)
    side = next(name for other, name in QUARTERS if abs((base + math.copysign(90, off) - other + 180) % 360 - 180) < 1)
    return f"{word}, {abs(off):.0f}° toward {'the ' if side in ('left', 'right') else ''}{side}"


def rotation(faces_deg, rest_deg=90.0):
    """How far the mechanism turns, clockwise from behind, -90 to 90; unturned it tilts along ``rest_deg``."""
    turned = (rest_deg - faces_deg + 180) % 360 - 180
    return turned - math.copysign(180, turned) if abs(turned) > 90 else turned


def steps(lens, answer, first, wording):
    """What to do at the lens, in order, up to looking at the points; ``first`` is the check to focus on, or None."""
    said = [Step("meter", "Meter now, the lens straight, and leave the exposure alone after.")]
    if lens.turns:
        said.append(Step("turn", _turn_words(lens, answer.rotation_deg)))
    tilted = f"Tilt {answer.tilt_deg:.1f}° on the scale, so that the lens faces {answer.faces}."
    said.append(Step("tilt", tilted))
    if first is not None:
        rail = "" if first.rail_mm is None else f"Set the rail to {first.rail_mm:.2f} mm and f"
        said.append(Step("focus", f"{rail or 'F'}ocus again on {first.name}."))
    moved = answer.picture_moves_mm
    if moved is not None and abs(moved) > 0.05:
        words = f"Recompose: the picture has moved {wording.length(abs(moved))} on the sensor."
    else:
        words = "Recompose: tilting moves the picture."
    return [*said, Step("recompose", words)]


def _turn_words(lens, turn):
    click_deg = math.degrees(lens.click or 0.0)
    if abs(turn) < STRAIGHT:
        along = "up and down" if lens.rest else "left and right, the camera on its side"
        return f"Leave the tilt mechanism unturned: it tilts {along}."
    way = "clockwise" if turn > 0 else "anticlockwise"
    clicks = f", {count(round(abs(turn) / click_deg), 'click')}" if click_deg else ""
    return f"Turn the tilt mechanism {abs(turn):.0f}° {way}{clicks}, seen from behind the camera."


def last_steps(stands_at, f_number):
    """What is left before the picture; ``stands_at`` is the rail's mark to shoot at, mm, None without a rail."""
    rail = [] if stands_at is None else [f"Set the rail to {stands_at:.2f} mm for the picture, the ring left alone."]
    return [*rail, f"Set {f_stop(f_number)}."]


def correction_words(shown, found, more, wanted_faces, *, held, close):
    """What was read back, in a sentence."""
    how = "less" if more < 0 else "more"
    if close:
        kept = "Leave it." if held else "No tilt does better: stop down, or check the readings."
        return f"The readings say {found:.1f}°, as near as the scale tells. {kept}"
    target = max(shown + more, 0.0)
    if held:
        return (
            f"The readings say {found:.1f}°, and every point still lies within its slack. Leave it; or take "
            f"{abs(more):.1f}° {how}, to {target:.1f}°, for the middle of it."
        )
    return (
        f"The scale says {shown:.1f}°, the readings say {found:.1f}°. Take {abs(more):.1f}° {how}: set "
        f"{target:.1f}°, the lens facing {direction(wanted_faces)}; then focus and read again."
    )
