"""The numbers of a stack that checking its frames needs, from the shot that it was planned by."""

from just_plane.contract.stack_numbers import NamedPlace, StackNumbers
from just_plane.planning.plan import plan_shot
from just_plane.planning.ways.step_table import spares_of


def stack_numbers(shot, units="mm"):
    """The stack of a shot in numbers: the way decided on when it is one, else the best ranked stack by rail or ring.

    Parameters
    ----------
    shot : Shot
    units : str        ``mm`` or ``in``; only for sentences.

    Returns
    -------
    StackNumbers       What cannot be worked out is null.
    """
    return numbers_of(shot, plan_shot(shot, units), units)


def numbers_of(shot, plan, units="mm"):
    """The same, from a plan that is there already.

    Parameters
    ----------
    shot : Shot
    plan : Plan        Of that shot.
    units : str

    Returns
    -------
    StackNumbers
    """
    points = [
        NamedPlace(name=point.name, from_left=point.from_left, from_top=point.from_top)
        for point in shot.plane.points
        if point.wanted == "sharp"
    ]
    common = {
        "wavelength_nm": shot.sharp.wavelength_nm,
        "contrast_threshold": shot.sharp.contrast_threshold,
        "points": points,
        "depth_mm": plan.depth_mm or None,
        "units": units,
    }
    way = stack_way(plan, shot.chosen_way)
    if plan.reach is None or plan.sharpness is None or way is None:
        return StackNumbers(**common)
    before, after = spares_of(way)
    depths = sorted(far - near for near, far in way.bands_mm)
    return StackNumbers(
        kind="ring" if way.kind == "ring" else ("hand" if shot.steadiness.held == "hand" else "rail"),
        magnification=plan.reach.magnification,
        effective_f_number=way.effective_f_number,
        sensor_width_mm=plan.reach.sensor_width_mm,
        c_mm=plan.sharpness.circle_um / 1000,
        depth_of_field_mm=depths[len(depths) // 2] if depths and min(depths) > 0 else None,
        step_mm=way.stack.step_mm,
        planned_frames=way.stack.frames,
        spare_before=before,
        spare_after=after,
        entrance_pupil_distance_mm=plan.reach.entrance_pupil_mm,
        first_mm=way.stack.first_mm,
        **common,
    )


def stack_way(plan, chosen):
    """The stack that is meant: the way decided on when it is one, else the best ranked.

    Parameters
    ----------
    plan : Plan
    chosen : str or None   Way decided on.

    Returns
    -------
    WayAnswer or None
    """
    stacks = [way for way in plan.ways if way.stack is not None and way.kind != "one_frame"]
    decided = [way for way in stacks if way.id == chosen]
    return min(decided or stacks, key=lambda way: way.rank, default=None)
