"""Can the set come down? One answer, and the one thing that would change it."""

import numpy as np

from just_plane.contract.check import CheckVerdict
from just_plane.frames.words import PICTURE, at_places, lengths

LEAST_KNOWN = 0.03
"""Share of the places that must be judged before anything is said to be there."""

UNTOLD = 0.25
"""Share of the pairs between which steps are not told, from which that is said; at the ends it is usual."""


def steps_untold(checked):
    """Between how many frames steps are not told.

    Parameters
    ----------
    checked : Checked

    Returns
    -------
    int   0 where it is no more than usual.
    """
    untold = int(np.isnan(checked.steps).sum())
    return untold if untold > UNTOLD * len(checked.steps) else 0


def verdict(findings, coverage, gaps, numbers, checked, names):
    """Decide.

    Parameters
    ----------
    findings : list of FindingReport   The dearest first.
    coverage : list of CoverageReport
    gaps : list of GapReport
    numbers : StackNumbers
    checked : Checked
    names : list of str                Of the frames.

    Returns
    -------
    CheckVerdict
    """
    if len(checked.order) < 2:
        return _no("Not yet: there are no two frames that fit each other.", "Look whether the right folder was chosen.")
    if gaps:
        return _gap(gaps, names, numbers.units)
    known = [one for one in coverage if one.covered is not None]
    if len(known) < LEAST_KNOWN * max(len(coverage), 1) or not known:
        return _no("Nobody can tell: nothing is in focus anywhere that could be judged.", "Look at a frame at 100 %.")
    if numbers.points:
        soft = [one for one in coverage if one.covered is False]
        unknown = [one for one in coverage if one.covered is None]
        if soft:
            which = ", ".join(one.name or f"the point at {one.x:.0f}, {one.y:.0f}" for one in soft[:3])
            return _no(
                f"Not yet: {which} {'is' if len(soft) == 1 else 'are'} sharp in no frame.", "Take more frames there."
            )
        if unknown:
            which = ", ".join(one.name or f"the point at {one.x:.0f}, {one.y:.0f}" for one in unknown[:3])
            return _no(
                f"Nobody can tell: {which} {'has' if len(unknown) == 1 else 'have'} no texture to judge by, "
                f"or {'lies' if len(unknown) == 1 else 'lie'} outside of these frames.",
                "Look there at 100 %.",
            )
    dear = [one for one in findings if one.costs >= PICTURE]
    if dear:
        return _no(f"Not yet. {dear[0].message}", dear[0].remedy)
    minor = len([one for one in findings if one.costs])
    mind = "" if not minor else f" {minor} {'thing' if minor == 1 else 'things'} to mind below."
    what = (
        "Every named point is sharp in some frame."
        if numbers.points
        else "No depth between first and last frame is missing."
        if not steps_untold(checked)
        else "As far as it can be told, no depth between first and last frame is missing."
    )
    return CheckVerdict(may_come_down=True, answer=f"Yes, the set can come down. {what}", action=mind.strip())


def _no(answer, action):
    return CheckVerdict(may_come_down=False, answer=answer, action=action)


def _gap(gaps, names, units):
    first = gaps[0]
    frames = sum(one.frames_needed for one in gaps)
    wanted = [place for one in gaps for place in one.focuses_mm]
    where_to = f", {at_places(wanted, units)}" if wanted else _between(first, names)
    if first.before is None and first.after is not None:
        return _no(
            f"Not yet: the stack ends at {names[first.after]}, short of what was planned.", _take(frames, where_to)
        )
    if first.from_mm is not None:
        near, far = lengths([first.from_mm, first.to_mm], units)
        where = f"{near} to {far} {units} is sharp in no frame"
    else:
        where = f"{_between(first, names).strip()} a part is sharp in no frame"
    others = len(gaps) - 1
    more = "" if not others else f", and {others} more {'gap' if others == 1 else 'gaps'}"
    return _no(
        f"Not yet: {where}{more}.",
        _take(frames, where_to),
    )


def _take(frames, where_to):
    return f"Take {'one more frame' if frames == 1 else f'{frames} more frames'}{where_to}."


def _between(gap, names):
    if gap.after is None:
        return f" before {names[gap.before]}"
    return (
        f" after {names[gap.after]}" if gap.before is None else f" between {names[gap.after]} and {names[gap.before]}"
    )
