"""The Light station: exposure at the chosen stop from what the meter said, a shutter wanted, and flash."""

import math

from just_plane.contract.plan import LightAnswer
from just_plane.core.aperture import stops_lost
from just_plane.core.exposure import flash_f_number
from just_plane.planning.words.findings import Answered, caution
from just_plane.planning.words.numbers import f_stop, shutter_words

HIGHEST_ISO = 102_400
NEARLY = 0.1
"""Stops that nobody would turn a flash for."""


def light(setup):
    """The light section of a plan, and what stands against the flash.

    Parameters
    ----------
    setup : Setup

    Returns
    -------
    Answered         Of contract LightAnswer.
    """
    stop, asked = setup.stop, setup.shot.light
    iso = None if asked.wanted_shutter_s is None else asked.iso * stop.shutter / asked.wanted_shutter_s
    flash, down = _flash(setup)
    words = []
    if iso is not None:
        words.append(_iso_words(asked, iso))
    if flash is not None:
        words.append(_flash_words(setup, flash, down))
    return Answered(
        LightAnswer(
            shutter_s=stop.shutter,
            iso=asked.iso,
            stops_lost=stops_lost(stop.f_number, stop.effective_f_number),
            stops_from_metered=math.log2(stop.shutter / asked.metered_shutter_s),
            read=asked.read,
            shutter_words=shutter_words(stop.shutter),
            iso_for_wanted=iso,
            flash_f_number=flash,
            flash_down_stops=down,
            words=words,
        ),
        _said(setup, iso, down),
    )


def _flash(setup):
    """The marked stop for the flash at full power, and how far to turn it down for the one in use: (float, float)."""
    asked = setup.shot.light
    if asked.flash_guide_number_m is None or asked.flash_distance_mm is None:
        return None, None
    works_as = float(flash_f_number(asked.flash_guide_number_m, asked.flash_distance_mm, asked.iso))
    works_as *= 2 ** (-asked.compensation_stops / 2)
    # The rig takes light from the flash as from any lamp: the marked number is smaller by what extension costs.
    marked = works_as / setup.rigged.imaging.f_number_factor
    return marked, 2 * math.log2(works_as / setup.stop.effective_f_number)


def _iso_words(asked, iso):
    return f"For {shutter_words(asked.wanted_shutter_s)} at this stop: ISO {_round(iso):g}."


def _flash_words(setup, flash, down):
    at = f"The flash at full power asks for {f_stop(flash)} marked here"
    if abs(down) < NEARLY:
        return f"{at}: as set."
    if down > 0:
        return f"{at}: for {f_stop(setup.stop.f_number)} turn it down {down:.1f} stops, to {_power(down)}."
    return f"{at}: at {f_stop(setup.stop.f_number)} it is {-down:.1f} stops short."


def _power(down):
    return f"1/{2 ** round(down):,}" if down >= 0.5 else "just under full power"


def _round(iso):
    return float(f"{iso:.2g}")


def _said(setup, iso, down):
    found = []
    if iso is not None and iso > HIGHEST_ISO:
        found.append(
            caution(
                "iso.too_high",
                "/light/wanted_shutter_s",
                f"{shutter_words(setup.shot.light.wanted_shutter_s)} would take ISO {_round(iso):g}: "
                "past what cameras have.",
                "Add light, open up, or take a longer shutter.",
            )
        )
    if down is not None and down < -NEARLY:
        found.append(
            caution(
                "flash.too_weak",
                "/light/flash_guide_number_m",
                f"The flash is {-down:.1f} stops short of {f_stop(setup.stop.f_number)} here.",
                "Bring it nearer, raise the ISO, or open up.",
            )
        )
    return tuple(found)
