"""How soft the background is."""

from just_plane.core.domain import non_negative, positive


def background_blur(magnification, pupil_distance, effective_f_number, behind):
    """Blur diameter on the sensor, mm, of a background behind the plane of focus.

    Parameters
    ----------
    magnification : float or array        > 0.
    pupil_distance : float or array       Plane of focus to entrance pupil, mm, > 0.
    effective_f_number : float or array   > 0.
    behind : float or array               Plane of focus to background, mm, >= 0.

    Returns
    -------
    float or array   mm. m^2 u b / (N_e (u + b)), which is (f/N) m b / (u + b) for a lens alone; it ends at (f/N) m
                     however far the background.
    """
    positive("magnification", magnification)
    positive("pupil_distance", pupil_distance, "mm")
    positive("effective_f_number", effective_f_number)
    non_negative("behind", behind, "mm")
    return magnification**2 / effective_f_number * pupil_distance * behind / (pupil_distance + behind)
