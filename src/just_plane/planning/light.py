"""Exposure at the chosen stop, from what the meter said."""

import math

from just_plane.contract.plan import LightAnswer
from just_plane.core.aperture import stops_lost
from just_plane.core.exposure import Exposure, equal_shutter


def shutter(shot, f_number, imaging):
    """Shutter time at a marked stop, s; f_number may be an array.

    A meter behind the lens has seen the light as it is at its stop; one in the hand has seen none of what is lost.
    """
    light = shot.light
    metered_at = light.metered_f_number
    if light.meter == "through_lens":
        metered_at = imaging.effective_f_number(metered_at)
    metered = Exposure(float(metered_at), light.metered_shutter_s, light.metered_iso)
    return equal_shutter(metered, imaging.effective_f_number(f_number), light.iso)


def light(shot, f_number, imaging):
    """The light section of a plan."""
    time = float(shutter(shot, f_number, imaging))
    return LightAnswer(
        shutter_s=time,
        iso=shot.light.iso,
        stops_lost=stops_lost(f_number, float(imaging.effective_f_number(f_number))),
        stops_from_metered=math.log2(time / shot.light.metered_shutter_s),
    )
