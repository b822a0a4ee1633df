"""Hands that hold the camera: how far they sway along the lens."""

LEANING_SWAY_MM = 0.4
"""Along the lens, standard deviation, of hands that lean on something: assumed where none was tried."""


def sway_of(shot):
    """How far the hands of a shot sway along the lens.

    Parameters
    ----------
    shot : Shot

    Returns
    -------
    (float, bool)   Standard deviation, mm, and whether it is assumed.
    """
    own = shot.steadiness.hand_sways_mm
    return (LEANING_SWAY_MM, True) if own is None else (own, False)
