"""How far under sharp, and for what it is enough: the price of what lies between sharp and nothing."""

import math

import numpy as np

from just_plane.core.enough import MOST, enough_factor
from just_plane.planning.words.numbers import percent


def softness(setup, ways):
    """Of each way (core Way) that falls under the threshold, in words; empty for those that do not: list of str."""
    soft = [index for index, way in enumerate(ways) if way.frames and way.worst_contrast < _threshold(setup)]
    words = [""] * len(ways)
    if not soft:
        return words
    factors = _factors(setup, [ways[i].effective_f_number for i in soft], [ways[i].edge_blur for i in soft])
    for index, factor in zip(soft, factors, strict=True):
        words[index] = soft_words(setup, ways[index].worst_contrast, factor)
    return words


def softness_of_stops(setup):
    """The same of one frame at each stop, over the depth that must be sharp: list of str."""
    stops, words = setup.stops, [""] * len(setup.worst)
    soft = np.flatnonzero(setup.worst < _threshold(setup))
    if soft.size:
        works_as = stops.effective_f_numbers[soft]
        edges = setup.view.blur_at(np.array([-setup.middle, setup.depth - setup.middle])[:, None], works_as)
        for index, factor in zip(soft, _factors(setup, works_as, edges.max(axis=0)), strict=True):
            words[index] = soft_words(setup, float(setup.worst[index]), factor)
    return words


def soft_words(setup, contrast, factor):
    """How far under sharp, and the picture for which it is enough (Setup, float, float): a clause."""
    under = f"soft: {percent(max(contrast, 0.0))} of the detail's contrast"
    if not math.isfinite(factor):
        return f"{under}; not enough for a picture {MOST:.0f} times smaller either"
    length, shot = setup.wording.length, setup.shot
    if shot.sharp.school == "viewing":
        return f"{under}; enough for a picture {length(_about(shot.picture.width_mm / factor))} wide"
    return f"{under}; enough for detail of {length(_about(setup.circle * factor))} on the sensor"


def _about(mm):
    """To two digits: nobody cuts a print to the tenth of a millimetre."""
    return float(f"{mm:.2g}")


def _threshold(setup):
    return setup.shot.sharp.contrast_threshold


def _factors(setup, effective_f_numbers, blurs):
    return enough_factor(setup.circle, effective_f_numbers, blurs, _threshold(setup), setup.wavelength)
