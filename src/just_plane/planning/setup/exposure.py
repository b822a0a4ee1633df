"""Shutter times from what the meter said."""

from just_plane.core.exposure import Exposure, equal_shutter


def shutter(light, f_number, imaging):
    """Shutter time at a marked stop.

    Parameters
    ----------
    light : contract Light
    f_number : float or (N,) array   Marked, > 0.
    imaging : Imaging

    Returns
    -------
    float or (N,) array              s. A meter behind the lens has seen the light as it is at its stop; one in the
                                     hand has seen none of what is lost.
    """
    metered_at = light.metered_f_number
    if light.meter == "through_lens":
        metered_at = imaging.effective_f_number(metered_at)
    metered = Exposure(float(metered_at), light.metered_shutter_s, light.metered_iso)
    lighter = 2**light.compensation_stops
    return equal_shutter(metered, imaging.effective_f_number(f_number), light.iso) * lighter
