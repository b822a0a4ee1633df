"""How far the focus ring carries the lens that tilts."""

import numpy as np

RING_SLACK = 0.002
"""Share of the largest size by which a ring may seem to end too soon: sizes on paper are round numbers."""


def ring_reaches(setup, image_distances):
    """Whether the focus ring can be turned so that the lens stands at some distances from the sensor.

    Parameters
    ----------
    setup : Setup
    image_distances : float or (N,) array   Of the tilting lens, mm.

    Returns
    -------
    bool                                    True where no ring ends: bellows are drawn, or there is none to turn.
    """
    made, lens = setup.rigged, setup.plane.lens
    if made.over_throw is None or made.rig.bellows is not None:
        return True
    own = np.asarray(image_distances) / lens.focal_length - 1
    sizes = np.asarray(made.over_throw.magnification) / lens.scale_behind
    slack = RING_SLACK * float(np.max(sizes))
    return bool(np.min(own) >= float(np.min(sizes)) - slack and np.max(own) <= float(np.max(sizes)) + slack)
