"""Where the optics planned and those found disagree by more than their doubts, and which number would fit."""

import numpy as np

SCALE_OFF = 0.30
"""Of what the plan says: one pair tells nothing, ten running do."""
LEAST_PAIRS = 10


def against_plan(facts, checked, numbers):
    """Compare.

    Parameters
    ----------
    facts : StackFacts
    checked : Checked
    numbers : StackNumbers

    Returns
    -------
    list of str
    """
    said = []
    if numbers.planned_frames is not None and checked.order:
        taken = len(checked.order)
        if taken < numbers.planned_frames:
            said.append(f"{numbers.planned_frames} frames were planned; {taken} are here.")
    if len(checked.order) > 1 and checked.order[0] > checked.order[-1]:
        said.append("The stack was taken from far to near; it is counted from the near end.")
    scale = _scale(facts, checked)
    if scale:
        said.append(scale)
    return said


def _scale(facts, checked):
    if facts.kind != "rail" or None in (facts.step, facts.pupil_distance) or checked.pairs is None:
        return None
    grown = checked.pairs.scale - 1
    if len(grown) < LEAST_PAIRS:
        return None
    planned, found = facts.step / facts.pupil_distance, float(np.median(grown))
    if planned <= 0 or abs(found / planned - 1) <= SCALE_OFF:
        return None
    if found <= 0:
        return "The view grows the other way: the stack runs from far to near, or the focus ring was turned."
    pupil, step = facts.step / found, found * facts.pupil_distance
    return (
        f"From frame to frame the view grows by {100 * found:.2g} %, planned were {100 * planned:.2g} %: "
        f"a step of {step:.3g} mm would fit, or an entrance pupil {pupil:.0f} mm away."
    )
