"""Objectives in a row: how much room they leave, and how far they may go from the size that is engraved on them."""

import numpy as np

OFF_ITS_SIZE = 1.5
"""Times above or below the engraved size past which it is said that an objective was not corrected for this."""
WORTH_TRYING = (0.35, 1.6)
"""Shares of the engraved size between which the search tries an objective: past them no one would use it."""


def objective_in(row):
    """The objective among pieces of a row (sequence of Placed): contract Objective, or None."""
    return next((placed.gear for placed in row if placed.gear.kind == "objective"), None)


def room(gear, subject_to_glass_mm):
    """Working distance of an objective: as engraved where it works at its engraved size, and from there as much more or
    less as a thin lens of its focal length has it.

    Parameters
    ----------
    gear : contract Objective
    subject_to_glass_mm : float or array   From the plane of focus to the thin lens that stands for it.

    Returns
    -------
    float or array                         mm.
    """
    if gear.correction == "infinity":
        as_engraved = gear.reference_focal_length_mm / gear.magnification
    else:
        # f (1 + 1/M), with f = tube length / (M + 1).
        as_engraved = gear.tube_length_mm / gear.magnification
    return gear.working_distance_mm + subject_to_glass_mm - as_engraved


def worth_trying(gear, works_at):
    """Whether sizes are what an objective can be asked for; of one on a tube lens its focal length has said so.

    Parameters
    ----------
    gear : contract Objective
    works_at : (N,) array   Magnifications.

    Returns
    -------
    (N,) array of bool
    """
    if gear.correction == "infinity":
        return np.ones(len(works_at), bool)
    least, most = WORTH_TRYING
    return (works_at >= least * gear.magnification) & (works_at <= most * gear.magnification)
