"""What a believed trial writes into the kit, and how it is taken out again."""

from just_plane.contract.measured import FocusUnit, MeasuredStill, MeasuredTimes, TriedAt, TriedSpread
from just_plane.planning.kit.measured_by_hand import lens_by_two_tubes, lens_without_two_tubes
from just_plane.planning.words.days import day_in_words

ALIKE = 1.05
"""Sizes that differ by less are one size."""
CAMERA_UNIT = "camera unit"
KEPT_UNITS = 8
OF = {
    "stops": ("lens", "zoom"),
    "steps": ("rail", "lens", "zoom"),
    "backlash": ("rail",),
    "calm": ("rail",),
    "stillness": ("body", "support"),
    "dark": ("body",),
    "sway": (),
    "ruler": (),
    "two_tubes": ("lens",),
}
"""Kinds of gear that each kind of trial is of; of none, it is of a person."""


def fits(gear, asked):
    """Whether a piece takes what a trial measures.

    Parameters
    ----------
    gear : contract gear
    asked : TrialAsked

    Returns
    -------
    bool
    """
    if asked.kind == "steps":
        return (gear.kind == "rail") != (asked.unit == CAMERA_UNIT) and gear.kind in OF["steps"]
    if asked.kind == "stillness":
        return gear.kind == ("body" if asked.held == "hand" else "support")
    return gear.kind in OF[asked.kind]


def believed(gear, trial_id, asked, result, moment):
    """The piece with what the trial measured.

    Parameters
    ----------
    gear : contract gear
    trial_id : str
    asked : TrialAsked
    result : TrialResult
    moment : str           ISO 8601, of the trial.

    Returns
    -------
    contract gear, or str  Why it cannot be used, as a sentence.
    """
    if result.refused:
        return "This trial measured nothing."
    day = day_in_words(moment)
    if result.steps is not None:
        return _with_steps(gear, trial_id, asked, result.steps, day)
    if result.backlash is not None:
        return gear.model_copy(update={"backlash_mm": round(max(result.backlash.play_mm, 0.0), 4)})
    if result.calm is not None:
        swing, calms = (result.calm.swing_um, result.calm.calms_s) if result.calm.seen else (None, None)
        return gear.model_copy(update={"measured_swing_um": swing, "measured_calms_s": calms})
    if result.dark is not None:
        times = MeasuredTimes(dark_frame=result.dark.doubled, write_s=result.dark.write_s, measured_on=day)
        return gear.model_copy(update={"measured_times": times})
    if result.stillness is not None:
        return _with_stillness(gear, asked, result.stillness, day)
    if result.two_tubes is not None:
        return lens_by_two_tubes(gear, result.two_tubes)
    if result.stops is None:
        return "This trial is not of a piece of the kit."
    spreads = [
        TriedSpread(f_number=stop.f_number, spread_mm=stop.spread_mm)
        for stop in result.stops.stops
        if stop.spread_mm is not None
    ]
    if not spreads or asked.magnification is None:
        return "At which size it was taken is not known: ask again with the size and the pixel."
    tried = TriedAt(trial_id=trial_id, magnification=asked.magnification, measured_on=day, stops=spreads)
    # One trial a size: the newer takes the place of one near it.
    others = (one for one in gear.tried if one.trial_id != trial_id)
    rest = [one for one in others if not alike(one.magnification, asked.magnification)]
    return gear.model_copy(update={"tried": [*rest, tried][-8:]})


def _with_steps(gear, trial_id, asked, steps, day):
    if gear.kind == "rail":
        if asked.unit not in ("turn", "division"):
            return "Only millimetres a turn or a division are kept with a rail: say which the trial counted."
        turns = gear.divisions if asked.unit == "division" else 1
        if turns is None:
            return "How many divisions a turn has is not known of this rail: give it at Kit first."
        return gear.model_copy(update={"measured_mm_per_turn": round(steps.per_unit_mm * turns, 6)})
    stop = asked.f_numbers[0] if asked.f_numbers else None
    unit = FocusUnit(
        trial_id=trial_id,
        magnification=asked.magnification,
        f_number=stop,
        mm=round(steps.per_unit_mm, 8),
        measured_on=day,
    )
    # Some bodies step by the stop and by the place of the focus: each has its own.
    rest = [
        one
        for one in gear.focus_units
        if one.trial_id != trial_id and not (alike(one.magnification, asked.magnification) and one.f_number == stop)
    ]
    return gear.model_copy(update={"focus_units": [*rest, unit][-KEPT_UNITS:]})


def _with_stillness(gear, asked, found, day):
    if found.longest_s is None:
        return "No shutter time stayed sharp: there is nothing to use."
    if asked.magnification is None:
        return "At which size it was taken is not known: ask again with the size."
    still = MeasuredStill(
        shutter_s=found.longest_s,
        magnification=asked.magnification,
        focal_length_mm=asked.focal_length_mm if asked.held == "hand" else None,
        measured_on=day,
    )
    return gear.model_copy(update={"measured_by_hand" if gear.kind == "body" else "measured_still": still})


def alike(one, two):
    """Whether two sizes are one (float > 0 each): bool."""
    return 1 / ALIKE < one / two < ALIKE


def forgotten(gear, trial_id, result):
    """The piece without what the trial measured.

    Parameters
    ----------
    gear : contract gear
    trial_id : str
    result : TrialResult

    Returns
    -------
    contract gear
    """
    if result.steps is not None and gear.kind == "rail":
        return gear.model_copy(update={"measured_mm_per_turn": None})
    if result.steps is not None:
        return gear.model_copy(update={"focus_units": [one for one in gear.focus_units if one.trial_id != trial_id]})
    if result.backlash is not None:
        return gear.model_copy(update={"backlash_mm": 0.0})
    if result.calm is not None:
        return gear.model_copy(update={"measured_swing_um": None, "measured_calms_s": None})
    if result.dark is not None:
        return gear.model_copy(update={"measured_times": None})
    if result.stillness is not None:
        return gear.model_copy(update={"measured_by_hand" if gear.kind == "body" else "measured_still": None})
    if result.two_tubes is not None:
        return lens_without_two_tubes(gear, result.two_tubes)
    return gear.model_copy(update={"tried": [one for one in gear.tried if one.trial_id != trial_id]})
