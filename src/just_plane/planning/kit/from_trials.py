"""What a believed trial writes into the kit, and how it is taken out again."""

from just_plane.contract.gear import TriedAt, TriedSpread

ALIKE = 1.05
"""Sizes that differ by less are one size."""
MONTHS = (
    *("January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November"),
    "December",
)


def day_in_words(moment):
    """A day as the plan names it.

    Parameters
    ----------
    moment : str   ISO 8601.

    Returns
    -------
    str            Such as ``3 May 2026``.
    """
    year, month, day = (int(part) for part in moment[:10].split("-"))
    return f"{day} {MONTHS[month - 1]} {year}"


def fits(gear, kind):
    """Whether a piece takes what a kind of trial measures.

    Parameters
    ----------
    gear : contract gear
    kind : str

    Returns
    -------
    bool
    """
    return (kind == "stops" and hasattr(gear, "tried")) or (kind in ("steps", "backlash") and gear.kind == "rail")


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
    if result.steps is not None:
        if asked.unit not in ("turn", "division"):
            return "Only millimetres a turn or a division are kept with a rail: say which the trial counted."
        turns = gear.divisions if asked.unit == "division" else 1
        if turns is None:
            return "How many divisions a turn has is not known of this rail: give it at Kit first."
        return gear.model_copy(update={"measured_mm_per_turn": round(result.steps.per_unit_mm * turns, 6)})
    if result.backlash is not None:
        return gear.model_copy(update={"backlash_mm": round(result.backlash.play_mm, 4)})
    if result.stops is None:
        return "This trial is not of a piece of the kit."
    spreads = [
        TriedSpread(f_number=stop.f_number, spread_mm=stop.spread_mm)
        for stop in result.stops.stops
        if stop.spread_mm is not None
    ]
    if not spreads or asked.magnification is None:
        return "At which size it was taken is not known: ask again with the size and the pixel."
    day = day_in_words(moment)
    tried = TriedAt(trial_id=trial_id, magnification=asked.magnification, measured_on=day, stops=spreads)
    # One trial a size: the newer takes the place of one near it.
    others = (one for one in gear.tried if one.trial_id != trial_id)
    rest = [one for one in others if not 1 / ALIKE < one.magnification / asked.magnification < ALIKE]
    return gear.model_copy(update={"tried": [*rest, tried][-8:]})


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
    if result.steps is not None:
        return gear.model_copy(update={"measured_mm_per_turn": None})
    if result.backlash is not None:
        return gear.model_copy(update={"backlash_mm": 0.0})
    return gear.model_copy(update={"tried": [one for one in gear.tried if one.trial_id != trial_id]})
