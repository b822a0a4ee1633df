"""What was found in a stack, as the report that people and programs read."""

import math

import numpy as np

from just_plane.contract.check import CheckReport, CoverageReport, FindingReport, FrameReport, GapReport
from just_plane.core.frames.check.coverage import covered_at, gaps, open_ends
from just_plane.core.frames.check.findings import LEAST_FRAMES
from just_plane.core.frames.check.pairs import against_beside
from just_plane.core.frames.proof.crop import covered_by_all
from just_plane.frames.against_plan import against_plan
from just_plane.frames.sensor import places_of, shown
from just_plane.frames.verdict import steps_untold, verdict
from just_plane.frames.words import at_places, spoken

CAN_BE_PUT_BACK = ("shake", "dead_flash")
"""Reasons for which a frame is left out that one may see otherwise; others were not laid on the rest, or repeat it."""
OPEN_END = 0.03
"""Share of the places that are sharper still past the last frame, from which that is said."""


def report(intake, numbers, facts, reduction, checked, unreadable):
    """Tell what was found.

    Parameters
    ----------
    intake : Intake
    numbers : StackNumbers
    facts : StackFacts
    reduction : int
    checked : Checked
    unreadable : dict     Frame to why its pixels could not be read.

    Returns
    -------
    CheckReport
    """
    width, height = intake.size
    disagree = against_plan(facts, reduction, checked, numbers)
    went = _as_it_went(facts, disagree.step)
    asked = covered_at(_places(numbers, checked, width, height, reduction), checked, went, reduction)
    covered = _coverage(numbers, checked, asked, width, height, reduction)
    missing = gaps(checked, went)
    told = _findings(intake, numbers, checked, missing, unreadable)
    known = [one.covered for one in covered if one.covered is not None]
    left, top, right, bottom = crop_box(checked, width, height, reduction)
    not_judged = [*intake.said, *shown(numbers, width), *_not_judged(checked, facts, covered)]
    told_gaps = [_gap(one, numbers, checked) for one in missing]
    return CheckReport(
        name=intake.folder.resolve().name or "stack",
        folder=str(intake.folder),
        width_px=width,
        height_px=height,
        reference_frame=checked.reference,
        origin=[float(left), float(top)],
        size=[right - left, bottom - top],
        order=checked.order,
        frames=_frames(intake, numbers, checked, reduction),
        findings=told,
        coverage=covered,
        covered_share=sum(known) / len(known) if known else None,
        unknown_share=1 - len(known) / len(covered) if covered else 1.0,
        gaps=told_gaps,
        steps_found=[_known(step) for step in checked.steps],
        against_plan=disagree.said,
        step_measured=disagree.step,
        not_judged=not_judged,
        verdict=verdict(told, covered, told_gaps, numbers, checked, intake.names),
        plan=numbers,
    )


def _as_it_went(facts, measured):
    """The facts by the step that the rail really went, where that was measured: what is sharp is judged by it.

    Millimetres stay those of the rail's own reading, at which frames that are missing have to be taken.
    """
    if measured is None:
        return facts
    longer = facts.step / measured.step_mm
    return facts._replace(
        step=measured.step_mm,
        frames=None if facts.frames is None else 1 + (facts.frames - 1) * longer,
        spare_before=facts.spare_before * longer,
        spare_after=facts.spare_after * longer,
    )


def _known(value, digits=6):
    return round(float(value), digits) if value is not None and math.isfinite(value) else None


def used_frames(checked):
    """Frames that coverage and merges go by, in the order of focus."""
    return [frame for frame in checked.order if frame not in checked.left_out]


def crop_box(checked, width, height, reduction):
    """Left, top, right, bottom of what all used frames cover, in whole pixels of the reduced picture."""
    used = [checked.to_reference[frame] for frame in used_frames(checked) if frame in checked.to_reference]
    left, top, right, bottom = covered_by_all(used, width, height)
    return left, top, right - (right - left) % reduction, bottom - (bottom - top) % reduction


def _places(numbers, checked, width, height, reduction):
    if numbers.points:
        return places_of(numbers, width, height)
    if checked.grid is None:
        return np.zeros((0, 2))
    return checked.grid.places * reduction + (reduction - 1) / 2


def _coverage(numbers, checked, asked, width, height, reduction):
    places = _places(numbers, checked, width, height, reduction)
    names = [one.name for one in numbers.points] if numbers.points else [""] * len(places)
    return [
        CoverageReport(
            x=round(float(x), 2),
            y=round(float(y), 2),
            name=name,
            covered=one.covered,
            contrast=_known(one.contrast),
            frame=one.frame,
            depth_mm=_mm(one.depth, numbers),
        )
        for (x, y), name, one in zip(places, names, asked, strict=True)
    ]


def _mm(steps, numbers):
    """Where a place in steps is behind the nearest point, mm."""
    return None if steps is None or numbers.step_mm is None else _known(numbers.first_mm + steps * numbers.step_mm)


def _frames(intake, numbers, checked, reduction):
    shift, likeness = {}, {}
    if checked.pairs is not None:
        moved = np.hypot(*(against_beside(axis) for axis in checked.pairs.shift.T)) * reduction
        for p, frame in enumerate(checked.order[1:]):
            shift[frame], likeness[frame] = float(moved[p]), float(checked.pairs.likeness[p])
    loss = dict(zip(checked.judged, checked.stillness.loss, strict=True)) if checked.stillness else {}
    return [
        FrameReport(
            file=name,
            used=frame in checked.order and frame not in checked.left_out,
            why_not=checked.left_out.get(frame, "" if frame in checked.order else "unreadable"),
            to_reference=_matrix(checked.to_reference.get(frame)),
            place_steps=_known(checked.places.get(frame)),
            focus_mm=_mm(checked.places.get(frame), numbers),
            ev=_known(checked.light.get(frame)),
            moved_px=_known(shift.get(frame), 3),
            likeness=_known(likeness.get(frame), 4),
            loss=_known(loss.get(frame), 4),
            clipped=_known(checked.clipped.get(frame), 5),
        )
        for frame, name in enumerate(intake.names)
    ]


def _matrix(similarity):
    return None if similarity is None else [[round(float(value), 9) for value in row] for row in similarity]


def _findings(intake, numbers, checked, missing, unreadable):
    told = [
        FindingReport(
            code="unreadable",
            frame=intake.names.index(one.name),
            after=None,
            frames=[],
            amount=None,
            unit="",
            place=None,
            message=f"{one.name} is left out. {one.reason}",
            remedy="The stack is judged without it.",
            costs=1,
        )
        for one in intake.refused
    ]
    told += [
        FindingReport(
            code="unreadable",
            frame=frame,
            after=None,
            frames=[],
            amount=None,
            unit="",
            place=None,
            message=f"{intake.names[frame]} is left out. {reason}",
            remedy="The stack is judged without it.",
            costs=1,
        )
        for frame, reason in unreadable.items()
    ]
    for found in checked.findings:
        covered = not any(_concerns(found, gap, checked) for gap in missing)
        message, remedy, costs = spoken(found, intake.names, _where(found, numbers, checked), covered)
        if found.code in CAN_BE_PUT_BACK and found.frame not in checked.left_out:
            remedy, costs = "You put it back: it is used all the same.", 1
        told.append(
            FindingReport(
                code=found.code,
                frame=found.frame,
                after=found.before,
                frames=list(found.frames),
                amount=_known(found.amount),
                unit=found.unit,
                place=None if found.place is None else [round(float(value), 2) for value in found.place],
                message=message,
                remedy=remedy,
                costs=costs,
            )
        )
    return sorted(told, key=lambda one: (-one.costs, one.frame if one.frame is not None else -1))


def _concerns(found, gap, checked):
    """Whether a gap in the depth lies where a finding took something away."""
    if found.code == "skipped_step":
        return (gap.before, gap.after) == (found.before, found.frame)
    if found.frame is None:
        return False
    place = checked.places.get(found.frame)
    if place is None:
        return (gap.before is None or gap.before < found.frame) and (gap.after is None or found.frame < gap.after)
    near = checked.places[gap.before] if gap.before is not None else -math.inf
    far = checked.places[gap.after] if gap.after is not None else gap.end
    return near <= place <= far


def _where(found, numbers, checked):
    """Where to set a frame again, in words."""
    if found.frame is None or found.frame not in checked.places:
        return {}
    place = checked.places[found.frame]
    if found.code == "skipped_step":
        wanted = [checked.places[found.before] + 1 + k for k in range(int(found.amount))]
    else:
        wanted = [place]
    if numbers.step_mm is None:
        return {}
    return {found.frame: f", {at_places([_mm(one, numbers) for one in wanted], numbers.units)}"}


def _gap(gap, numbers, checked):
    first = gap.start - 1 if gap.before is None else checked.places[gap.before]
    last = gap.end + 1 if gap.after is None else checked.places[gap.after]
    needed = max(round(last - first) - 1, 1)
    wanted = [first + (last - first) * (k + 1) / (needed + 1) for k in range(needed)]
    return GapReport(
        from_steps=_known(gap.start),
        to_steps=_known(gap.end),
        from_mm=_mm(gap.start, numbers),
        to_mm=_mm(gap.end, numbers),
        after=gap.before,
        before=gap.after,
        frames_needed=needed,
        focuses_mm=[] if numbers.step_mm is None else [_mm(place, numbers) for place in wanted],
    )


def _not_judged(checked, facts, covered):
    said = []
    judged = len(checked.order)
    if 0 < judged < LEAST_FRAMES:
        said.append(
            f"With {judged} frames none can be told from the usual: steps, bumps, drift, shake and dust are not judged."
        )
    elif facts.kind == "hand":
        said.append("A stack in the hand moves between all frames: steps, bumps and shake are not judged.")
    elif checked.stillness is not None:
        untold = steps_untold(checked)
        if untold:
            said.append(
                f"How far the focus went cannot be told at {untold} of {len(checked.steps)} steps: too little is in "
                "focus. A step that was missed there shows only in how unlike the frames are."
            )
        within = int(np.isnan(checked.stillness.loss[1:-1]).sum())
        others, them = ("another", "it") if within == 1 else (f"{within} others", "them")
        more = f", nor {others}: too little in {them} is in focus" if within else ""
        said.append(f"The first and the last frame are not judged for shake{more}.")
    if not facts.judges_contrast:
        said.append("Without the numbers of a plan, sharpness is judged frame against frame, not in millimetres.")
    plain = sum(one.covered is None for one in covered)
    if covered and plain >= max(len(covered) / 100, 1):
        said.append(f"{100 * plain / len(covered):.0f} % of the places have no texture to tell by.")
    near, far = open_ends(checked) if checked.fit is not None else (0.0, 0.0)
    for share, side in ((near, "nearest"), (far, "farthest")):
        if share > OPEN_END:
            said.append(f"The subject goes on past the {side} frame at {100 * share:.0f} % of the places.")
    burnt = max(checked.clipped.values(), default=0.0)
    if burnt > 0.01:
        said.append(f"{100 * burnt:.0f} % of a frame is burnt out: nothing is judged there.")
    return said
