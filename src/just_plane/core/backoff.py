"""Standing back and cropping: the same trade as stopping down, with its price in pixels and its gain in room."""

import numpy as np

from just_plane.core.domain import non_negative, positive


def equal_effective_f_number(factor, effective_f_number):
    """Effective f-number that would give the same picture from the first place: q N_e.

    Backed off by q and cropped to the same frame, magnification is m/q and the acceptable blur c/q. Depth of field
    2 b N_e/m^2 and diffraction against blur, lambda N_e/c, are then those of q N_e at m with c.

    Parameters
    ----------
    factor : float or array               q, > 0.
    effective_f_number : float or array   Where the camera stands now, > 0.

    Returns
    -------
    float or array

    References
    ----------
    docs/derivations/back_off.md
    """
    positive("factor", factor)
    positive("effective_f_number", effective_f_number)
    return factor * effective_f_number


def blur_at_ends(depth, magnification, pupil_distance, effective_f_number):
    """Blur on the sensor, mm, of the nearest and the farthest point when focus is placed so that both are alike.

    Parameters
    ----------
    depth : float                         mm, >= 0.
    magnification : float or array        At the plane of focus, > 0.
    pupil_distance : float or array       Plane of focus to entrance pupil, mm, > 0.
    effective_f_number : float or array   > 0.

    Returns
    -------
    float or array   mm. Exact for thin elements: m^2 u/N_e f/(u - f), with the focus f behind the nearest point where
                     :func:`just_plane.core.depth.best_focus` puts it.
    """
    non_negative("depth", depth, "mm")
    positive("magnification", magnification)
    positive("pupil_distance", pupil_distance, "mm")
    positive("effective_f_number", effective_f_number)
    u = pupil_distance
    focus = depth * u / (u + depth + np.hypot(u, depth))
    return magnification**2 * u / effective_f_number * focus / (u - focus)
