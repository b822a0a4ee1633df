"""Runs of a folder that are one stack: frames whose numbers went round, or that were given in pieces.

As they come, frames are laid on the last ones only; where a stack was cut in two and the second half was given first,
its last frame shows nothing that the first of the other half does. Halves are laid on each other where they meet.
"""

from itertools import pairwise
from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.order import distances, found_order

MOST = 6
"""Runs that are tried; a folder of more is none of pieces."""


NEAR_BY = 2
"""Places from the frame beside which a run would stand to the one that its end is likest to: the first frame of a stack
that was taken again is likest to the first. A single frame may hold nothing but noise to be like."""


def join_runs(follower, load, main):
    """Take whole runs into the main one that go on where it ends.

    Parameters
    ----------
    follower : Follower   What it knows of those frames is brought up to date.
    load : function       Number of a frame to its (H, W) float32 picture.
    main : list of int    The run that holds most frames, in the order they came.

    Returns
    -------
    (list of int, list of int)   The run with the others at their places; of all of them those out of order.
    """
    runs = [run for run in follower.runs() if len(run) > 1 and run != main]
    if not runs or len(runs) > MOST:
        return list(main), []
    unlike = _unlike(follower, [main, *runs])
    order, *runs = (unlike.in_order(run) for run in (main, *runs))
    left = len(runs) + 1
    while len(runs) < left:  # what one run has brought, another may go on from
        left = len(runs)
        runs = [run for run in runs if not _joined(follower, load, run, order, unlike)]
    if order == unlike.in_order(main):
        return list(main), []
    return order, _out_of_order(order)


def bridge_runs(follower, load, main):
    """Take runs into the main one whose frames share nothing sharp with the frames beside them, but coarse detail.

    So it is with the frames past a gap of several steps, and with those in which next to nothing is in focus.

    Parameters
    ----------
    follower : Follower   What it knows of those frames is brought up to date.
    load : function       Number of a frame to its (H, W) float32 picture.
    main : list of int    The run, in the order they came but for those that came later.

    Returns
    -------
    list of int           With the others where they came.
    """
    order = list(main)
    runs = [run for run in follower.runs() if not {*run} & {*main}]
    if not runs or len(runs) > MOST:
        return order
    unlike = _unlike(follower, [order, *runs])
    left = len(runs) + 1
    while len(runs) < left:
        left = len(runs)
        runs = [run for run in runs if not _bridged(follower, load, run, order, unlike)]
    return order


def _bridged(follower, load, run, order, unlike):
    """Whether a run fits the frames that came just before and after it; if so, it is put there."""
    before = max((frame for frame in order if frame < run[0]), default=None)
    after = min((frame for frame in order if frame > run[0]), default=None)
    if after is not None and after < run[-1]:
        return False
    for beside, end in ((before, run[0]), (after, run[-1])):
        if beside is None or (len(run) > 1 and unlike.places_off(end, beside, order) > NEAR_BY):
            continue
        if follower.lay_on(beside, load(beside), end, load(end), with_its_run=True, coarsely=True):
            at = order.index(beside) + (beside == before)
            order[at:at] = run
            return True
    return False


class Unlike(NamedTuple):
    """How unlike frames are in what is sharp where, by their own tiles: before they are laid on each other."""

    numbers: list
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
        return self.between[self.numbers.index(first), self.numbers.index(second)]

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
        places = [self.numbers.index(frame) for frame in run]
        return [run[k] for k in found_order(self.between[np.ix_(places, places)])]


def _unlike(follower, runs):
    numbers = [frame for run in runs for frame in run]
    seen = (follower.frames[frame].measured.energy for frame in numbers)
    tiles = [np.stack([cv2.blur(band, (3, 3)) for band in energy]) for energy in seen]
    return Unlike(numbers, distances(np.stack(tiles).reshape(len(numbers), len(tiles[0]), -1)))


def _joined(follower, load, run, order, unlike):
    """Whether a run goes on where those in the order end; if so, it is put there."""
    end, next_to_it = min((run[:2], run[:-3:-1]), key=lambda way: unlike.of(way[0], unlike.likest(way[0], order)))
    beside = unlike.likest(end, order)
    # Where it leads away from there it goes on; one that shows the same depth again, or fits between, is like others.
    if unlike.likest(next_to_it, order) != beside:
        return False
    if not follower.lay_on(beside, load(beside), end, load(end), with_its_run=True):
        return False
    at = order.index(beside)
    order[:] = min(([*order[:k], *way, *order[k:]] for k in (at, at + 1) for way in (run, run[::-1])), key=unlike.along)
    return True


def _out_of_order(order):
    """The fewest frames without which the rest count up."""
    longest: list = []
    for k, frame in enumerate(order):
        before = [longest[j] for j in range(k) if order[j] < frame]
        longest.append([*max(before, key=len, default=[]), frame])
    kept: list = max(longest, key=len, default=[])
    return [frame for frame in order if frame not in kept]
