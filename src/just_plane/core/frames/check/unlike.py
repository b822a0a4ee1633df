"""How unlike frames are in what is sharp where: what tells which belongs beside which, before they are put in order."""

from itertools import pairwise
from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.order import distances, found_order


class Unlike(NamedTuple):
    """How unlike frames are, each to each."""

    places: dict
    """Frame to its row."""
    between: np.ndarray
    """(K, K), as from :func:`distances`."""

    def of(self, first, second):
        """Of two frames.

        Parameters
        ----------
        first, second : int

        Returns
        -------
        float
        """
        return self.between[self.places[first], self.places[second]]

    def or_less(self, frames, between):
        """Of each two frames the less of what is known here and of what is known otherwise.

        Parameters
        ----------
        frames : iterable of int   Some of these.
        between : (K, K) array     How unlike they are, in the same measure.

        Returns
        -------
        Unlike                     Of those frames.
        """
        rows = [self.places[frame] for frame in frames]
        less = np.minimum(self.between[np.ix_(rows, rows)], between)
        return Unlike({frame: row for row, frame in enumerate(frames)}, less)

    def likest(self, frame, others):
        """The one of others that a frame is likest to.

        Parameters
        ----------
        frame : int
        others : list of int

        Returns
        -------
        int
        """
        return min(others, key=lambda other: self.of(frame, other))

    def places_off(self, frame, beside, order):
        """How far in an order the frame that one is likest to is from the one that it would stand beside.

        Parameters
        ----------
        frame, beside : int
        order : list of int

        Returns
        -------
        int
        """
        return abs(order.index(self.likest(frame, order)) - order.index(beside))

    def along(self, order):
        """Sum over all neighbours.

        Parameters
        ----------
        order : list of int

        Returns
        -------
        float
        """
        return sum(self.of(*pair) for pair in pairwise(order))

    def in_order(self, run):
        """The frames of a run in the order of focus, near the given one.

        Parameters
        ----------
        run : list of int

        Returns
        -------
        list of int
        """
        places = [self.places[frame] for frame in run]
        return [run[k] for k in found_order(self.between[np.ix_(places, places)])]


def unlike_of(follower, frames):
    """Compare frames by their own tiles, as they lie: before they are laid on each other.

    Parameters
    ----------
    follower : Follower     Holds them.
    frames : list of int

    Returns
    -------
    Unlike
    """
    seen = (follower.frames[frame].measured.energy for frame in frames)
    tiles = [np.stack([cv2.blur(band, (3, 3)) for band in energy]) for energy in seen]
    return Unlike(
        {frame: row for row, frame in enumerate(frames)},
        distances(np.stack(tiles).reshape(len(frames), len(tiles[0]), -1)),
    )
