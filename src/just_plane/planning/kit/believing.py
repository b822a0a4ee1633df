"""A trial into the kit and out of it: into the piece that it is of, or, of a whole rig, into the kit itself."""

from just_plane.planning.kit.from_trials import believed, fits, forgotten
from just_plane.planning.kit.measured_by_hand import with_ruler, without_ruler


def kit_with(kit, trial_id, asked, result, moment):
    """The kit with what a trial measured.

    Parameters
    ----------
    kit : Kit
    trial_id : str
    asked : TrialAsked
    result : TrialResult
    moment : str   ISO 8601, of the trial.

    Returns
    -------
    Kit, or str    Why it cannot be used, as a sentence.
    """
    if result.ruler is not None:
        return with_ruler(kit, result.ruler, moment)
    place = _place(kit, asked)
    if place is None:
        if is_usable(kit, asked, result):
            return kit
        return "There is no piece of the kit that this belongs to: put it there, and measure again with it named."
    changed = believed(kit.pieces[place].gear, trial_id, asked, result, moment)
    return changed if isinstance(changed, str) else _with_gear(kit, place, changed)


def kit_without(kit, trial_id, asked, result):
    """The kit without what a trial measured.

    Parameters
    ----------
    kit : Kit
    trial_id : str
    asked : TrialAsked
    result : TrialResult

    Returns
    -------
    Kit
    """
    if result.ruler is not None:
        return without_ruler(kit, result.ruler)
    place = _place(kit, asked)
    if place is None:
        return kit
    return _with_gear(kit, place, forgotten(kit.pieces[place].gear, trial_id, result))


def is_usable(kit, asked, result):
    """Whether a trial can be believed: there is a piece that it is of, or it is of a whole rig or of a person.

    Parameters
    ----------
    kit : Kit
    asked : TrialAsked
    result : TrialResult or None   None: it is not done.

    Returns
    -------
    bool
    """
    if result is None or result.refused:
        return _place(kit, asked) is not None
    return asked.kind in ("sway", "ruler") or _place(kit, asked) is not None


def used_in(kit, asked):
    """Where a trial that is believed is used, in words; empty: nowhere.

    Parameters
    ----------
    kit : Kit
    asked : TrialAsked

    Returns
    -------
    str
    """
    if asked.kind == "sway":
        return "practice, focus by rocking"
    if asked.kind == "ruler":
        return "every shot that comes to this rig anew"
    place = _place(kit, asked)
    return "" if place is None else f"{kit.pieces[place].gear.name}, in the kit"


def _place(kit, asked):
    """Which piece of the kit a trial is of, or None."""
    for place, piece in enumerate(kit.pieces):
        if asked.kit_id is not None and piece.gear.kit_id == asked.kit_id and fits(piece.gear, asked):
            return place
    return None


def _with_gear(kit, place, gear):
    pieces = list(kit.pieces)
    pieces[place] = pieces[place].model_copy(update={"gear": gear})
    return kit.model_copy(update={"pieces": pieces})
