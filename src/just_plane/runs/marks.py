"""What the rail must read for a step, and which way readings run."""


def reading_of(step):
    """Reading of the rail for a step: its mark, or where it is focused where no mark is known.

    Parameters
    ----------
    step : RunStep

    Returns
    -------
    float   mm.
    """
    return step.mark_mm if step.mark_mm is not None else step.focus_mm


def direction(plan):
    """The way readings run from the first frame on: 1 or -1.

    Parameters
    ----------
    plan : RunPlan

    Returns
    -------
    int
    """
    if len(plan.steps) < 2:
        return 1
    return 1 if reading_of(plan.steps[1]) >= reading_of(plan.steps[0]) else -1
