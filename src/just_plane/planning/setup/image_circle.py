"""The image circle against what tilt and shift ask of it."""

from just_plane.core.plane.shifting import circle_displacement, circle_radius


def lit_radius(rigged, lens):
    """Radius of the lit circle on the sensor, mm; None when it is not known.

    Parameters
    ----------
    rigged : Rigged
    lens : TiltingLens   Of it.
    """
    known = getattr(rigged.row.gear(rigged.row.lens), "image_circle_mm", None)
    return None if known is None else circle_radius(known, lens.magnification) * lens.scale_behind


def displacement(lens, setting, magnification, shift):
    """Of the circle's middle from the sensor's, by tilt and by the shift wanted together.

    Parameters
    ----------
    lens : TiltingLens
    setting : TiltSetting
    magnification : float         Of the whole rig.
    shift : contract ShiftWanted

    Returns
    -------
    (float, float)                x and y, mm.
    """
    swung = circle_displacement(setting.image_distance, setting)
    scale = lens.scale_behind
    return swung[0] * scale + magnification * shift.right_mm, swung[1] * scale + magnification * shift.up_mm
