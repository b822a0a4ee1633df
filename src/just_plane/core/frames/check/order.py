"""In which order frames were focused, by what is sharp in each: the shortest path through all of them.

Three bands together: with fine detail alone all frames far from each other look equally far, and the path is cut.
"""

import numpy as np

from just_plane.core.frames.check.tiles import COARSE, COARSEST, CURVE

BANDS = (CURVE, COARSE, COARSEST)
LEAST_GAIN = 0.02
"""Of the length of the path; a change that saves less is none: the given order wins."""
OF_A_STEP = 0.6
"""Of the usual distance between neighbours: in a long stack a change that saves so much is one, too."""
WINDOW = 10
"""Frames are moved and changed so many places at most."""
PLAINLY = 2.0
"""Usual distances between neighbours: an order that has nothing to do with the given one must save so much. A step that
was skipped is as far as all frames that are far from each other: halves must not be exchanged for it."""


def distances(energies):
    """How unlike frames are in what is sharp where.

    Parameters
    ----------
    energies : (K, 4, N) array   By frame, band and tile; NaN outside the frame.

    Returns
    -------
    (K, K) array                 0 on the diagonal.
    """
    with np.errstate(all="ignore"):
        shares = np.sqrt(energies / np.nanmax(energies, axis=0))[:, list(BANDS)]
    seen = np.isfinite(shares).all(axis=(0, 1))
    shares = shares[:, :, seen]
    if not shares.shape[2]:
        return np.zeros((len(energies), len(energies)))
    return np.stack([np.abs(shares - one).mean(axis=2).sum(axis=1) for one in shares])


def found_order(between):
    """The order of focus, near the given one.

    Parameters
    ----------
    between : (K, K) array   As from :func:`distances`.

    Returns
    -------
    list of int              Frames in order; the given order unless another is plainly shorter.
    """
    given = list(range(len(between)))
    if len(given) < 4:
        return given
    near = _improved(between, given)
    mixed = _from_pieces(between)
    if mixed == near:
        return near
    mixed = _improved(between, mixed)
    return mixed if _length(between, mixed) < _length(between, near) - PLAINLY * _step(between, near) else near


def _improved(between, order):
    while True:
        length, step = _length(between, order), _step(between, order)
        least = max(min(LEAST_GAIN * length, OF_A_STEP * step), 0.3 * step)
        best, shortest = None, length - least
        for candidate in _changed(order):
            longer = _length(between, candidate)
            if longer < shortest:
                best, shortest = candidate, longer
        if best is None:
            return order
        order = best


def _length(between, order):
    places = np.asarray(order)
    return float(between[places[:-1], places[1:]].sum())


def _step(between, order):
    return float(np.median(between[order[:-1], order[1:]]))


def _from_pieces(between):
    """The order that comes of joining what is nearest first, whatever the given one: for frames that were mixed."""
    count = len(between)
    pieces = {frame: [frame] for frame in range(count)}  # by the frames at their ends
    first, second = np.triu_indices(count, 1)
    for pair in np.argsort(between[first, second], kind="stable"):
        one, other = pieces.get(int(first[pair])), pieces.get(int(second[pair]))
        if one is None or other is None or one is other:
            continue
        one = one if one[-1] == first[pair] else one[::-1]
        other = other if other[0] == second[pair] else other[::-1]
        for end in (one[0], one[-1], other[0], other[-1]):
            pieces.pop(end, None)
        joined = one + other
        pieces[joined[0]] = pieces[joined[-1]] = joined
    (order,) = {id(piece): piece for piece in pieces.values()}.values()
    return order if np.dot(order, np.arange(count)) >= np.dot(order[::-1], np.arange(count)) else order[::-1]


def _changed(order):
    """One frame moved, two exchanged, a run turned.

    A run at an end is never turned: that changes one distance only, and a step skipped there is distance enough.
    """
    count = len(order)
    for i in range(count):
        for j in range(max(0, i - WINDOW), min(count, i + WINDOW + 1)):
            if i == j:
                continue
            rest = order[:i] + order[i + 1 :]
            yield [*rest[:j], order[i], *rest[j:]]
            if i < j:
                swapped = list(order)
                swapped[i], swapped[j] = swapped[j], swapped[i]
                yield swapped
                if i > 0 and j < count - 1:
                    yield order[:i] + order[i : j + 1][::-1] + order[j + 1 :]
