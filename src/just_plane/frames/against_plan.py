"""Where the optics planned and those found disagree by more than their doubts, and which number would fit."""

import math
from typing import NamedTuple

import numpy as np

from just_plane.contract.check import StepMeasured
from just_plane.core.frames.check.bell import expected_width
from just_plane.core.frames.check.focus_fit import USUAL_WIDTH
from just_plane.core.frames.check.places import NOT_LAID, counts_down
from just_plane.planning.words.numbers import Wording

SCALE_OFF = 0.30
"""Of what the plan says: one pair tells nothing, ten running do."""
LEAST_OFF_PX = 0.1
"""At the corner of the picture that is measured, frame to frame: no better are frames laid on each other."""
LEAST_PAIRS = 10
NARROW, WIDE = 0.8, 1.3
"""Of the bell that the plan's optics give: subjects differ by a tenth, a stop by a third."""
ALIKE = 0.12
"""ln of a ratio of widths, up to which they are alike."""
LEAST_FRAMES, LEAST_TILES = 8, 60
NORMAL_SD = 1.4826
"""Standard deviation of a bell curve over the median distance from its middle."""
MEDIAN_SD = 1.2533
"""Standard deviation of a median over that of a mean, of a bell curve."""
AGREES = 0.2
"""Of the step: pairs within so much of it bear it out."""


class AgainstPlan(NamedTuple):
    """Where what was planned and what was found do not agree."""

    said: list
    """Sentences."""
    step: StepMeasured | None
    """How far the rail went, where it is the step that is wrong."""


def against_plan(facts, reduction, checked, numbers):
    """Compare.

    Parameters
    ----------
    facts : StackFacts
    reduction : int      Times fewer pixels each way that were measured.
    checked : Checked
    numbers : StackNumbers

    Returns
    -------
    AgainstPlan
    """
    said = []
    if numbers.planned_frames is not None and checked.order:
        taken = len(checked.order) + sum(reason in NOT_LAID for reason in checked.left_out.values())
        if taken < numbers.planned_frames:
            said.append(f"{numbers.planned_frames} frames were planned; {taken} are here.")
    if counts_down(checked.order):
        said.append("The stack was taken from far to near; it is counted from the near end.")
    wider = _wider(facts, checked, reduction)
    wording = Wording(numbers.units)
    scale, step = _scale(facts, checked, wider, wording)
    said += [sentence for sentence in (scale, None if step else _depth(facts, wider, wording)) if sentence]
    return AgainstPlan(said, step)


def _wider(facts, checked, reduction):
    """How much wider the bells of places are than the plan's optics give; None where that cannot be told."""
    fit = checked.fit
    if fit is None or len(checked.judged) < LEAST_FRAMES or int(fit.textured.sum()) < LEAST_TILES:
        return None
    expected = expected_width(facts, reduction, checked.grid)
    return None if expected is None or USUAL_WIDTH in (expected, fit.width) else fit.width / expected


def _scale(facts, checked, wider, wording):
    """Whether the view grows from frame to frame as planned, and whether the step is to blame if it does not.

    A longer step makes the bells narrower, counted in steps; a pupil that is elsewhere leaves them.
    """
    if facts.kind != "rail" or None in (facts.step, facts.pupil_distance) or checked.pairs is None:
        return None, None
    grown = checked.pairs.scale - 1
    if len(grown) < LEAST_PAIRS:
        return None, None
    planned, found = facts.step / facts.pupil_distance, float(np.median(grown))
    corner = math.hypot(checked.grid.width, checked.grid.height) / 2
    if planned <= 0 or abs(found / planned - 1) <= SCALE_OFF or abs(found - planned) * corner < LEAST_OFF_PX:
        return None, None
    if found <= 0:
        return "The view grows the other way: the stack runs from far to near, or the focus ring was turned.", None
    pupil, measured = facts.step / found, _measured(grown, facts.pupil_distance)
    off = 0.0 if wider is None else math.log(wider)
    longer, away = wording.length(measured.step_mm), wording.length(pupil)
    by_step = abs(off) > ALIKE and (off > 0) != (found > planned)
    if by_step:
        which = f"a step of {longer} fits that, and how long each place is sharp. Look at the rail"
    elif wider is not None and abs(off) <= ALIKE:
        which = f"an entrance pupil {away} away would fit; each place is sharp for as many steps as planned"
    else:
        which = f"a step of {longer} would fit, or an entrance pupil {away} away"
    grows = f"From frame to frame the view grows by {100 * found:.2g} %, planned were {100 * planned:.2g} %"
    return f"{grows}: {which}.", measured if by_step else None


def _measured(grown, pupil_distance):
    """The step by how the view grows from frame to frame: the middle of the pairs, and how well it is known."""
    steps = grown * pupil_distance
    step = float(np.median(steps))
    off = np.abs(steps - step)
    doubt = MEDIAN_SD * NORMAL_SD * float(np.median(off)) / math.sqrt(len(steps))
    return StepMeasured(
        step_mm=round(step, 6),
        doubt_mm=round(doubt, 6),
        pairs=len(steps),
        agree=round(float(np.mean(off <= AGREES * step)), 3),
    )


def _depth(facts, wider, wording):
    """What depth the frames really had."""
    if wider is None or facts.depth_of_field is None or NARROW < wider < WIDE:
        return None
    stops = max(round(4 * abs(math.log2(wider))) / 2, 0.5)
    how = "closed" if wider > 1 else "open"
    held, planned = wording.length(facts.depth_of_field * wider), wording.length(facts.depth_of_field)
    return (
        f"Each frame holds about {held} of depth, planned were {planned}: "
        f"as if the lens stood about {stops:g} {'stop' if stops <= 1 else 'stops'} "
        f"further {how} than planned, or size or step were others. Look at the stop that was set."
    )
