"""The Light station: exposure at the chosen stop, from what the meter said."""

import math

from just_plane.contract.plan import LightAnswer
from just_plane.core.aperture import stops_lost
from just_plane.planning.words.findings import Answered


def light(setup):
    """The light section of a plan.

    Parameters
    ----------
    setup : Setup

    Returns
    -------
    Answered         Of contract LightAnswer.
    """
    stop, metered = setup.stop, setup.shot.light
    return Answered(
        LightAnswer(
            shutter_s=stop.shutter,
            iso=metered.iso,
            stops_lost=stops_lost(stop.f_number, stop.effective_f_number),
            stops_from_metered=math.log2(stop.shutter / metered.metered_shutter_s),
        )
    )
