"""What an entry keeps of a shot, of its run, and of the check of its frames."""

from datetime import datetime

from just_plane.contract.log import LogDone, LogOut, LogSet
from just_plane.planning.plan import plan_shot


def set_of(shot, run_plan):
    """What was set.

    Parameters
    ----------
    shot : Shot          As the run was made from it.
    run_plan : RunPlan

    Returns
    -------
    LogSet
    """
    plan = plan_shot(shot)
    way = next((each for each in plan.ways if each.id == run_plan.way), None)
    names = [placed.gear.name or placed.gear.kind for placed in shot.rig]
    return LogSet(
        shot_name=shot.name,
        subject=shot.subject.what,
        rig=[*names, shot.body.name or "body"],
        magnification=round(plan.reach.magnification, 6) if plan.reach else None,
        f_number=run_plan.f_number,
        works_as=way.effective_f_number if way else None,
        shutter_words=run_plan.shutter_words,
        iso=run_plan.iso,
        way=run_plan.title,
        kind=run_plan.kind,
        depth_mm=plan.depth_mm,
        step_mm=way.stack.step_mm if way and way.stack else None,
        frames_planned=sum(not step.added for step in run_plan.steps),
        time_planned_s=run_plan.time_s,
        gear_cost=plan.gear_cost,
        gear_cost_unknown=plan.gear_cost_unknown,
    )


def done_of(stand, started_at, last_at):
    """What was done.

    Parameters
    ----------
    stand : Stand
    started_at : str          ISO 8601.
    last_at : str or None     Of the last event.

    Returns
    -------
    LogDone
    """
    seconds = 0.0
    if last_at:
        seconds = (datetime.fromisoformat(last_at) - datetime.fromisoformat(started_at)).total_seconds()
    return LogDone(
        state=stand.state,
        frames_taken=sum(times > 0 for times in stand.times_taken),
        taken_again=sum(max(times - 1, 0) for times in stand.times_taken),
        left_out=len(stand.skipped),
        added=sum(step.added for step in stand.plan.steps),
        time_s=max(round(seconds, 1), 0.0),
        folder=stand.folder,
        first_file=next((name for name in stand.files if name), None),
    )


def out_of(job_id, report):
    """What came out.

    Parameters
    ----------
    job_id : str
    report : CheckReport

    Returns
    -------
    LogOut
    """
    return LogOut(
        job_id=job_id,
        may_come_down=report.verdict.may_come_down,
        answer=report.verdict.answer,
        findings=[finding.message for finding in report.findings],
        frames_used=sum(frame.used for frame in report.frames),
        frames=len(report.frames),
        proofs=[picture.method for picture in report.pictures],
    )
