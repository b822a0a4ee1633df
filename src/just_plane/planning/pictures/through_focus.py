"""Contrast of the smallest detail for every stop, over the subject's depth and as much again around it."""

import numpy as np

from just_plane.contract.plan import ThroughFocus
from just_plane.planning.setup.setup import NoSetup, make_setup

SAMPLES = 161


def through_focus(shot, from_mm, to_mm):
    """The map.

    Parameters
    ----------
    shot : Shot
    from_mm, to_mm : float   Ends of the map, mm behind the nearest point, from < to.

    Returns
    -------
    ThroughFocus or None     None where the shot cannot be set up (the findings of its plan say why).
    """
    setup = make_setup(shot)
    if isinstance(setup, NoSetup):
        return None
    view = setup.view
    # Points at or behind the entrance pupil cannot be in the picture: there the row keeps its last value.
    nearest = -0.999 * view.pupil_distance
    offsets = np.maximum(np.linspace(from_mm, to_mm, SAMPLES) - setup.focus, nearest)
    contrast = view.contrast_at(offsets[None, :], setup.stops.effective_f_numbers[:, None])
    return ThroughFocus(
        f_numbers=setup.stops.f_numbers.tolist(),
        from_mm=from_mm,
        step_mm=(to_mm - from_mm) / (SAMPLES - 1),
        contrast_percent=np.rint(contrast * 100).astype(int).tolist(),
    )
