"""Steps of the camera's own focus drive: how many of its units a planned step is, as a trial measured them."""

import math

from just_plane.planning.words.numbers import count

NEAR_SIZE, NEAR_STOP = 1.4, 1.5
"""A trial holds for sizes and stops so many times larger or smaller; the size between is taken into account."""


def camera_units(setup, step_mm):
    """How to set the camera's step for a stack by ring.

    Parameters
    ----------
    setup : Setup
    step_mm : float   The smallest step of the stack, in the subject.

    Returns
    -------
    str               A sentence; empty where no trial of this lens holds here.
    """
    used, own = _trial(setup), setup.shot.stack.own_step_units
    if used is None:
        if own is None:
            return ""
        return (
            f"Your step of {count(own, 'unit')} is kept with this shot. How far a unit moves was not tried with this "
            "lens at this size and stop, so the steps here are those worked out: try it under Trials."
        )
    here = setup.view.magnification
    # The drive moves the lens by the same; what that moves in the subject falls with the square of the size.
    unit = used.mm * (used.magnification / here) ** 2
    length = setup.wording.length
    if own is not None:
        return f"Your step of {count(own, 'unit')}: {length(unit)} each here, by your trial of {used.measured_on}."
    if unit > step_mm * (1 + 1e-6):
        return (
            f"One unit of the camera's focus step moves {length(unit)} here, by your trial of {used.measured_on}: "
            f"coarser than the {length(step_mm)} asked."
        )
    whole = math.floor(step_mm / unit + 1e-6)
    return (
        f"Set the camera's focus step to {count(whole, 'unit')}: {length(unit)} each here, by your trial of "
        f"{used.measured_on}."
    )


def unit_in_subject(setup):
    """How far one unit moves in the subject, as tried.

    Parameters
    ----------
    setup : Setup

    Returns
    -------
    (float, float) or None   mm, and the size on the sensor at which that is so; None: not tried here.
    """
    used = _trial(setup)
    return None if used is None else (used.mm, used.magnification)


def _trial(setup):
    """The trial of this lens that holds at the size and stop in use; None without one."""
    row, here = setup.rigged.row, setup.view.magnification
    tried = [
        one
        for one in getattr(row.gear(row.lens), "focus_units", [])
        if 1 / NEAR_SIZE <= here / one.magnification <= NEAR_SIZE
        and (one.f_number is None or 1 / NEAR_STOP <= setup.stop.f_number / one.f_number <= NEAR_STOP)
    ]
    return min(tried, key=lambda one: abs(math.log(here / one.magnification)), default=None)
