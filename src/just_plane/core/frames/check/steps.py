"""Steps between neighbours: by what is sharp in each, or by how much the view grew; around frames that came later."""

from itertools import pairwise
from typing import NamedTuple

import numpy as np

from just_plane.core.frames.check.growth import steps_by_growth


class Steps(NamedTuple):
    """Steps between neighbours in the order of focus, in steps as planned: entry p is from place p to p + 1."""

    found: np.ndarray
    """(P,) NaN where they cannot be told."""
    by_growth: np.ndarray
    """(P,) bool, where it was the view that told them: one that is found is sure, and whole but for a third."""

    def but_at(self, pairs):
        """The same, with some of them not believed by growth.

        Parameters
        ----------
        pairs : iterable of int

        Returns
        -------
        Steps
        """
        return self._replace(by_growth=self.by_growth & ~np.isin(np.arange(len(self.found)), [*pairs]))


def steps_between(by_sharpness, scales, dark):
    """Steps by how much the view grew where that tells them, by what is sharp elsewhere.

    Parameters
    ----------
    by_sharpness : (P,) array   As from :func:`steps_of_order`.
    scales : (P,) array         Size of each frame against the one before.
    dark : (P + 1,) bool        Frames in which little can be seen.

    Returns
    -------
    Steps
    """
    grown = steps_by_growth(scales, dark, by_sharpness)
    told = np.isfinite(grown)
    return Steps(np.where(told, grown, by_sharpness), told)


def steps_of_order(order, judged, found):
    """Steps between neighbours of the order from steps between those judged.

    Parameters
    ----------
    order : list of int       All frames, in the order of focus.
    judged : list of int      Those of them that could be judged.
    found : (J - 1,) array    Steps between those, as found; NaN where they cannot be told.

    Returns
    -------
    (K - 1,) array            NaN also beside a frame that was not judged.
    """
    steps = np.full(len(order) - 1, np.nan)
    at = {frame: place for place, frame in enumerate(order)}
    for p, step in enumerate(found):
        first, last = at[judged[p]], at[judged[p + 1]]
        if last - first == 1:
            steps[first] = step
    return steps


def steps_around_later(order, judged, found, later):
    """Steps between frames of the order where one that came later stands between two that did not.

    As found: it may stand in a gap, or where a frame was that cannot be judged, or beside one that is well. Only whole
    steps are believed from the frame before it to the frame after it.

    Parameters
    ----------
    order, judged : list of int   As for :func:`steps_of_order`.
    found : (J - 1,) array        As there.
    later : list of int           Frames that came later.

    Returns
    -------
    dict                          Place of the pair to its steps.
    """
    found = dict(zip(judged[1:], found, strict=True))
    told: dict = {}
    solid = [p for p, frame in enumerate(order) if frame not in later and frame in judged]
    for first, last in pairwise(solid):
        if not set(order[first:last]) & set(later):
            continue
        steps = {p: found.get(order[p + 1], 0.0) for p in range(first, last)}
        for p in range(first, last - 1):
            if order[p + 1] not in judged and order[p + 2] in later:  # taken in its stead: they stand at one place
                steps[p], steps[p + 1] = steps[p + 1], 0.0
        whole = sum(steps.values())
        if np.isfinite(whole) and whole > 0:
            told |= {p: step * max(round(whole), 1) / whole for p, step in steps.items()}
    return told
