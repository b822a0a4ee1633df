"""Contrast of the smallest detail for every stop, over the subject's depth and as much again around it."""

import numpy as np

from just_plane.contract.plan import ThroughFocus
from just_plane.core.units import MM_PER_NM, UM_PER_MM
from just_plane.core.ways import View
from just_plane.planning.plan import plan_shot

SAMPLES = 161


def through_focus(shot, from_mm, to_mm):
    """The map, or None where the plan has no aperture section (its findings say why).

    Parameters
    ----------
    shot : Shot
    from_mm, to_mm : float   Ends of the map, mm behind the nearest point, from < to.
    """
    plan = plan_shot(shot)
    if plan.aperture is None:
        return None
    circle = plan.sharpness.circle_um / UM_PER_MM
    stops = plan.aperture.stops
    view = View(
        plan.reach.magnification,
        plan.reach.entrance_pupil_mm,
        circle,
        plan.depth_mm,
        shot.sharp.wavelength_nm * MM_PER_NM,
    )
    effective = np.array([stop.effective_f_number for stop in stops])
    # Points at or behind the entrance pupil cannot be in the picture: there the row keeps its last value.
    nearest = -0.999 * view.pupil_distance
    offsets = np.maximum(np.linspace(from_mm, to_mm, SAMPLES) - plan.focus_behind_nearest_mm, nearest)
    contrast = view.contrast_at(offsets[None, :], effective[:, None])
    return ThroughFocus(
        f_numbers=[stop.f_number for stop in stops],
        from_mm=from_mm,
        step_mm=(to_mm - from_mm) / (SAMPLES - 1),
        contrast_percent=np.rint(contrast * 100).astype(int).tolist(),
    )
