"""Room for light between the lens and the subject: what stands where, what does not fit, what the lens shades."""

import math

from just_plane.contract.room_plan import RoomAnswer, StandingAnswer
from just_plane.core.room import Field, looks_wide, reaches_in, standing, touches
from just_plane.planning.rig.rigging import sensor
from just_plane.planning.words.findings import Answered, caution

NAMES = {"light": "the light", "diffuser": "the diffuser"}
SIDES = {"left": -1, "right": 1}
CLEAR_MM = 0.5
"""By which a thing may reach into the picture by rounding of its numbers alone."""


def room(framed):
    """What stands before this rig, and what there is to say of it.

    Parameters
    ----------
    framed : Framed

    Returns
    -------
    Answered          Of contract RoomAnswer.
    """
    rigged = framed.rigged
    imaging, area, front = rigged.imaging, sensor(rigged.asked), rigged.working_distance
    field = Field(area.width / imaging.magnification, imaging.pupil_distance, front)
    found, said, unplaced = [], [], []
    for index, thing in enumerate(framed.shot.on_set):
        if thing.gear.kind == "support":
            continue
        said += _of_itself(framed, index, thing)
        if thing.from_axis_deg is None or thing.away_mm is None:
            unplaced.append(_name(thing.gear))
            continue
        edges = standing(math.radians(thing.from_axis_deg), thing.away_mm, thing.gear.width_mm, SIDES[thing.side])
        trouble = _in_the_way(framed, index, thing, edges, field)
        said += trouble
        found.append(
            StandingAnswer(
                index=index,
                kind=thing.gear.kind,
                name=_name(thing.gear),
                one=list(edges.one),
                other=list(edges.other),
                looks_deg=math.degrees(looks_wide(thing.away_mm, thing.gear.width_mm)),
                in_the_way=bool(trouble),
            )
        )
    answer = RoomAnswer(
        free_mm=front - framed.focus,
        shade_deg=math.degrees(shade_angle(rigged)),
        frame_width_mm=field.width,
        front_mm=front,
        front_width_mm=rigged.pieces[-1].width_mm,
        seen_at_front_mm=2 * field.half_at(front),
        nearest_mm=framed.focus,
        farthest_mm=framed.focus - framed.depth,
        things=found,
        unplaced=unplaced,
    )
    return Answered(answer, tuple(said))


def shade_angle(rigged):
    """Half angle of the cone that the front of the rig shades, radians, seen from the middle of the subject.

    A front of radius r at working distance w shades everything within atan(r/w) of the axis.
    """
    front = rigged.pieces[-1]
    return math.atan2(front.width_mm / 2, max(rigged.working_distance, 0.0))


def _name(gear):
    return gear.name or NAMES.get(gear.kind, gear.kind)


def _capital(text):
    return text[:1].upper() + text[1:]


def _of_itself(framed, index, thing):
    """What is to be said of a thing wherever it stands, or by its angle alone."""
    length, gear = framed.wording.length, thing.gear
    free = framed.rigged.working_distance - framed.focus
    shade = math.degrees(shade_angle(framed.rigged))
    if gear.kind == "diffuser" and gear.thickness_mm >= free > 0:
        yield caution(
            "light.diffuser_too_thick",
            f"/on_set/{index}",
            f"{_capital(_name(gear))} is {length(gear.thickness_mm)} thick; between lens and "
            f"subject there are {length(free)}.",
            "Use a thinner one, light from the side, or stand farther back with a longer lens.",
        )
    if gear.kind == "light" and thing.from_axis_deg is not None and thing.from_axis_deg < shade:
        yield caution(
            "light.in_shade",
            f"/on_set/{index}",
            f"{_capital(_name(gear))} stands {thing.from_axis_deg:g}° from the axis; the front of the lens "
            f"shades everything within {shade:.0f}°.",
            f"Bring it out past {math.ceil(shade):d}°, or stand farther back.",
        )


def _in_the_way(framed, index, thing, edges, field):
    """What a thing is in the way of where it stands: list of Finding."""
    length, rigged = framed.wording.length, framed.rigged
    deep = reaches_in(edges, field)
    if deep > CLEAR_MM:
        return [
            caution(
                "light.in_picture",
                f"/on_set/{index}",
                f"{_capital(_name(thing.gear))} reaches {length(deep)} into the picture.",
                "Bring it farther from the axis, or take a narrower one.",
            )
        ]
    to_sensor = rigged.imaging.subject_to_sensor
    for piece in rigged.pieces:
        end = to_sensor - piece.from_sensor_mm
        if touches(edges, end - piece.length_mm, end, piece.width_mm / 2):
            return [
                caution(
                    "light.touches_rig",
                    f"/on_set/{index}",
                    f"{_capital(_name(thing.gear))} would stand where {piece.name or 'the body'} is.",
                    "Bring it farther from the axis, or nearer to the subject.",
                )
            ]
    return []
