"""From a way to the moves of a run: which mark to set for each frame."""

from just_plane.contract.run import RunPlan, RunStep
from just_plane.core.knob import TAKE_UP

ROUND_MM = 6
"""Decimals of a mark: a nanometre."""


def run_plan(shot, plan, way, rows, first_mark_mm=None):
    """What a run of a way is made of.

    Parameters
    ----------
    shot : Shot
    plan : Plan
    way : WayAnswer
    rows : list of StepRow        Of that way, in shooting order.
    first_mark_mm : float, None   Where the rail stands for the first frame; wins over marks that follow from points.

    Returns
    -------
    RunPlan
    """
    grows = -1 if shot.plane.rail_counts == "away" else 1
    onward = grows if len(rows) < 2 or rows[-1].move_from_first_mm >= 0 else -grows
    play = shot.stack.rail_play_mm
    steps = []
    for row in rows:
        mark = row.rail_mark_mm if first_mark_mm is None else first_mark_mm + grows * row.move_from_first_mm
        known = mark is not None and way.kind == "rail"
        steps.append(
            RunStep(
                frame=row.frame - 1,
                focus_mm=row.focus_behind_nearest_mm,
                move_mm=row.move_from_last_mm,
                mark_mm=round(mark, ROUND_MM) if known else None,
                sharp_from_mm=row.sharp_from_mm,
                sharp_to_mm=row.sharp_to_mm,
                knob_divisions=row.knob_divisions,
                from_mm=round(mark - onward * TAKE_UP * play, ROUND_MM) if known and play else None,
            )
        )
    return RunPlan(
        way=way.id,
        title=way.title,
        kind=way.kind,
        steps=steps,
        shutter_words=plan.light.shutter_words if plan.light else "",
        f_number=way.f_number,
        iso=shot.light.iso,
        settle_s=shot.stack.settle_s if way.kind == "rail" else None,
        time_s=way.time_s,
        hold_still_s=shot.subject.hold_still_s,
        mark_grows=grows,
        shutter_s=plan.light.shutter_s if plan.light else None,
        divisions=shot.stack.rail_divisions,
        depth_mm=plan.depth_mm,
    )


def added_steps(plan, focuses_mm):
    """Frames that were not planned, to close a gap: near to far, so that the play of the screw is taken up once.

    Parameters
    ----------
    plan : RunPlan          With the steps so far.
    focuses_mm : list       Behind the nearest point.

    Returns
    -------
    list of RunStep
    """
    first = plan.steps[0]
    half = (first.sharp_to_mm - first.sharp_from_mm) / 2
    steps: list[RunStep] = []
    for focus in sorted(focuses_mm):
        before = steps[-1] if steps else plan.steps[-1]
        moved = plan.mark_grows * (focus - first.focus_mm)
        steps.append(
            RunStep(
                frame=len(plan.steps) + len(steps),
                focus_mm=focus,
                move_mm=focus - before.focus_mm,
                mark_mm=None if first.mark_mm is None else round(first.mark_mm + moved, ROUND_MM),
                sharp_from_mm=focus - half,
                sharp_to_mm=focus + half,
                added=True,
            )
        )
    return steps
