"""Two trials of the same: which takes the place of which, and whether they agree."""

import math

from just_plane.planning.kit.from_trials import CAMERA_UNIT, alike

DISAGREE_SD, DISAGREE_SHARE = 3.0, 0.01
"""Two answers differ when they lie farther apart than so many doubts, and than so large a share."""
THIRD_STOP = 2 ** (1 / 6) * 2 ** (1 / 12)
"""A third of a stop, as a ratio of f-numbers, and half a third more."""
TWICE = 2.0


def replaces(asked, other):
    """Whether one trial takes the place of another: both of the same, at the same size and stop where that matters.

    Parameters
    ----------
    asked, other : TrialAsked

    Returns
    -------
    bool
    """
    if asked.kind != other.kind or asked.kit_id != other.kit_id:
        return False
    if asked.kind == "ruler":
        return asked.name == other.name
    if asked.kind == "stops" or (asked.kind == "steps" and asked.unit == CAMERA_UNIT):
        if asked.magnification is None or other.magnification is None:
            return True
        return alike(asked.magnification, other.magnification) and asked.f_numbers == other.f_numbers
    return True


def disagreement(result, other):
    """How two trials of the same differ, where they differ by more than their doubts.

    Parameters
    ----------
    result, other : TrialResult   The new one, and the one that is believed.

    Returns
    -------
    str                           What each says; empty where they agree.
    """
    said = ""
    if result.steps and other.steps and result.steps.unit == other.steps.unit:
        one, two = (each.steps for each in (result, other))
        doubts = [each.doubt_mm * each.per_unit_mm / max(each.step_mm, 1e-12) for each in (one, two)]
        if _apart(one.per_unit_mm, two.per_unit_mm, *doubts):
            said = f"{one.per_unit_mm:.5g} mm a {one.unit} now, {two.per_unit_mm:.5g} mm before"
    elif result.backlash and other.backlash:
        one, two = result.backlash, other.backlash
        if _apart(one.play_mm, two.play_mm, one.doubt_mm, two.doubt_mm):
            said = f"{1000 * one.play_mm:.0f} µm of play now, {1000 * two.play_mm:.0f} µm before"
    elif result.stops and other.stops:
        one, two = result.stops, other.stops
        ratio = one.best_f_number / two.best_f_number
        told = {*one.alike, *one.could_be} & {*two.alike, *two.could_be}
        if not 1 / THIRD_STOP < ratio < THIRD_STOP and not told:
            said = f"best at f/{one.best_f_number:g} now, at f/{two.best_f_number:g} before"
    elif result.dark and other.dark and result.dark.doubled != other.dark.doubled:
        takes = ("takes no dark frame", "takes a dark frame")
        said = f"the camera {takes[result.dark.doubled]} now, it {takes[other.dark.doubled]} before"
    elif result.calm and other.calm:
        one, two = result.calm, other.calm
        if _apart(one.calms_s, two.calms_s, one.doubt_s, two.doubt_s):
            said = f"calm in {one.calms_s:.2g} s now, in {two.calms_s:.2g} s before"
    elif result.ruler and other.ruler:
        one, two = result.ruler, other.ruler
        if _apart(one.magnification, two.magnification, one.uncertainty, two.uncertainty):
            said = f"{one.magnification:.4g}× now, {two.magnification:.4g}× before"
    elif result.two_tubes and other.two_tubes and result.two_tubes.at == other.two_tubes.at:
        one, two = result.two_tubes, other.two_tubes
        if _apart(one.focal_length_mm, two.focal_length_mm, one.uncertainty_mm, two.uncertainty_mm):
            said = f"{one.focal_length_mm:.4g} mm now, {two.focal_length_mm:.4g} mm before"
    elif result.stillness and other.stillness and result.stillness.longest_s and other.stillness.longest_s:
        one, two = result.stillness.longest_s, other.stillness.longest_s
        if not 1 / TWICE < one / two < TWICE:
            said = f"{one:g} s stays sharp now, {two:g} s before"
    return said


def _apart(one, two, doubt_one, doubt_two):
    off = abs(one - two)
    return off > DISAGREE_SD * math.hypot(doubt_one, doubt_two) and off > DISAGREE_SHARE * max(abs(one), abs(two))
