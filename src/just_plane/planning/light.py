"""Exposure at the chosen stop, from what the meter said."""

import math

from just_plane.contract.plan import LightAnswer
from just_plane.core.aperture import stops_lost
from just_plane.core.exposure import Exposure, equal_shutter, shutter_after_extension


def shutter(shot, f_number, f_number_factor):
    """Shutter time at a marked stop, s; f_number may be an array."""
    light = shot.light
    metered = Exposure(light.metered_f_number, light.metered_shutter_s, light.metered_iso)
    time = equal_shutter(metered, f_number, light.iso)
    return shutter_after_extension(time, 1.0, f_number_factor) if light.meter == "hand_held" else time


def light(shot, f_number, f_number_factor):
    """The light section of a plan."""
    time = float(shutter(shot, f_number, f_number_factor))
    return LightAnswer(
        shutter_s=time,
        iso=shot.light.iso,
        stops_lost=stops_lost(1.0, f_number_factor),
        stops_from_metered=math.log2(time / shot.light.metered_shutter_s),
    )
