"""Many rigs at once, each set for a magnification: what a search through a shelf of gear needs.

A rig whose tubes are an array stands for as many rigs. The throw of the ring is sampled for all of them together and
the setting read off between samples.
"""

import numpy as np

from just_plane.core.domain import count, positive

SAMPLES = 17
"""Settings of the ring sampled: between them the size is within 5e-4 of a straight line for lenses that breathe."""


def sizes_over_throw(rig, rigs):
    """Magnifications over the throw of the ring, infinity first.

    Parameters
    ----------
    rig : Rig      Its tubes' lengths are arrays of shape (rigs, 1), or numbers.
    rigs : int     How many it stands for.

    Returns
    -------
    (rigs, SAMPLES) array, or (rigs, 1) where there is no ring to turn

    Raises
    ------
    NoImageError   One of the rigs gives no picture.
    """
    count("rigs", rigs)
    settings = rig.ring(SAMPLES)
    return np.broadcast_to(np.asarray(rig.focused(settings[None, :]).magnification(), float), (rigs, len(settings)))


def share_of_throw(sizes, magnification):
    """Where on its throw each rig comes nearest to a magnification.

    Parameters
    ----------
    sizes : (rigs, samples) array   From :func:`sizes_over_throw`.
    magnification : float           Wanted, > 0.

    Returns
    -------
    shares : (rigs,) array          0 the far end, 1 closest.
    reached : (rigs,) array         The magnification there.
    """
    positive("magnification", magnification)
    reached = np.clip(magnification, sizes.min(axis=1), sizes.max(axis=1))
    samples = sizes.shape[1]
    if samples == 1:
        return np.zeros(len(sizes)), reached
    # The first stretch of the throw that holds it: behind a close-up lens sizes may fall toward the near end.
    over = sizes - reached[:, None]
    before = np.argmax((over[:, :-1] * over[:, 1:]) <= 0, axis=1)
    row = np.arange(len(sizes))
    low, high = over[row, before], over[row, before + 1]
    part = np.where(high != low, -low / np.where(high != low, high - low, 1.0), 0.0)
    return (before + np.clip(part, 0.0, 1.0)) / (samples - 1), reached
