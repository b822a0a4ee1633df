"""How far a turn of a rail goes, by the frames of a stack that was checked: a trial that was not meant as one."""

from just_plane.contract.trial import StepsFound, TrialAsked, TrialResult

COARSE = (
    "By how the view grew from frame to frame, so it rests on where the plan has the entrance pupil, {distance:.0f} mm "
    "from the plane of focus: 1 % there is 1 % here. A stack on a slanted surface tells it more exactly."
)


def step_trial(report, stack, name):
    """What is kept of a step that was measured.

    Parameters
    ----------
    report : CheckReport   With a step measured.
    stack : contract Stack Of the shot; its rail's knob is known.
    name : str             The rail.

    Returns
    -------
    (TrialAsked, TrialResult)
    """
    measured, plan = report.step_measured, report.plan
    turns = plan.step_mm / stack.rail_mm_per_turn
    per_turn, doubt = measured.step_mm / turns, measured.doubt_mm / turns
    asked = TrialAsked(
        kind="steps",
        folder=report.folder,
        name=name[:120],
        kit_id=stack.rail_kit_id,
        magnification=plan.magnification,
        pixel_pitch_mm=plan.pixel_pitch_mm,
        step_mm=plan.step_mm,
        per_step=turns,
        unit="turn",
    )
    result = TrialResult(
        kind="steps",
        refused=False,
        sentence=f"{name}: {per_turn:.4g} mm a turn, give or take {1000 * doubt:.2g} µm, by {measured.pairs + 1} "
        f"frames of {report.name}.",
        warnings=[COARSE.format(distance=plan.entrance_pupil_distance_mm)],
        frames=[],
        used=measured.pairs + 1,
        steps=StepsFound(
            step_mm=measured.step_mm,
            doubt_mm=measured.doubt_mm,
            per_unit_mm=round(per_turn, 8),
            unit="turn",
            fine=False,
            rows_agree=measured.agree,
        ),
    )
    return asked, result


def same_frames(asked, other):
    """Whether two trials are of the same frames and the same piece (TrialAsked, TrialAsked): bool.

    The shot may have taken the new figure since: what a turn was then is not what it is now.
    """
    return (asked.kind, asked.kit_id, asked.folder) == (other.kind, other.kit_id, other.folder)
