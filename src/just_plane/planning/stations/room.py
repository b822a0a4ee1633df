"""Room for light between the lens and the subject: what does not fit, and what stands in the shade of the lens."""

import math

from just_plane.planning.words.findings import caution

NAMES = {"light": "the light", "diffuser": "the diffuser"}


def room(framed):
    """What there is to say of lights and diffusers before this rig.

    Parameters
    ----------
    framed : Framed

    Returns
    -------
    tuple of Finding
    """
    return tuple(_said(framed))


def shade_angle(rigged):
    """Half angle of the cone that the front of the rig shades, radians, seen from the middle of the subject.

    A front of radius r at working distance w shades everything within atan(r/w) of the axis.
    """
    front = rigged.pieces[-1]
    return math.atan2(front.width_mm / 2, max(rigged.working_distance, 0.0))


def _said(framed):
    rigged, length = framed.rigged, framed.wording.length
    free = rigged.working_distance - framed.focus
    shade = math.degrees(shade_angle(rigged))
    for index, thing in enumerate(framed.shot.on_set):
        gear = thing.gear
        name = gear.name or NAMES.get(gear.kind, gear.kind)
        if gear.kind == "diffuser" and gear.thickness_mm >= free > 0:
            yield caution(
                "light.diffuser_too_thick",
                f"/on_set/{index}",
                f"{name[:1].upper() + name[1:]} is {length(gear.thickness_mm)} thick; between lens and "
                f"subject there are {length(free)}.",
                "Use a thinner one, light from the side, or stand farther back with a longer lens.",
            )
        if gear.kind == "light" and thing.from_axis_deg is not None and thing.from_axis_deg < shade:
            yield caution(
                "light.in_shade",
                f"/on_set/{index}",
                f"{name[:1].upper() + name[1:]} stands {thing.from_axis_deg:g}° from the axis; the front of the lens "
                f"shades everything within {shade:.0f}°.",
                f"Bring it out past {math.ceil(shade):d}°, or stand farther back.",
            )
