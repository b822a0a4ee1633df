"""Which depth each frame holds: a bell curve of energy over the frames at every tile, one width for all of them.

Depth counts in steps as planned: frame k stands at k when all went well. Places of frames are given; every tile then
is a straight line (its depth, its height), every frame tells how much of its detail it lost, and how wide a step really
was is asked of the tiles on both sides of it. See docs/derivations/depth_from_focus.md.
"""

from typing import NamedTuple

import numpy as np

from just_plane.core.peaks import peak_offset

REACH = 2.5
"""Samples within so many steps of the highest count, and the two frames on either side of it however far they stand:
past it the bell has tails that are none of it."""
LOWEST_SHARE = 0.2
"""Of the peak; under it, too."""
LEAST_PEAK = 4.0
"""Times the floor of the tile; under it there is no texture to judge by."""
ROUNDS = 5
NEAR = 1.2
"""What a frame lost rests on tiles that peak within so many steps of it."""
LEAST_TILES = 12
"""With fewer a frame or a step cannot be judged."""
USUAL_WIDTH = 1.35
"""Of the bell, in steps, where no tile tells: at the band of the curve, by the blur of two frames a depth."""
STEP_APART = 0.25
STEPS = np.arange(0.0, 4.01, STEP_APART)
"""Steps that are tried between two frames, in steps as planned."""


class FocusFit(NamedTuple):
    """What frames and tiles say about each other; K frames, N tiles."""

    places: np.ndarray
    """(K,) where each frame stood, in steps, as given."""
    losses: np.ndarray
    """(K,) ln of the energy that the frame has over what its place explains; 0 where not known."""
    depths: np.ndarray
    """(N,) depth of each tile, in steps; NaN where it cannot be told."""
    tops: np.ndarray
    """(N,) ln of the energy that the tile would have at its own depth, less the floor."""
    width: float
    """Of the bell, steps."""
    floors: np.ndarray
    """(N,) energy that is noise alone."""
    textured: np.ndarray
    """(N,) bool: the tile can be judged."""


def through_frames(values, share):
    """A share of the way up through the frames, at every tile.

    Parameters
    ----------
    values : (K, N) array   NaN where a frame has none; at least one of each tile is known.
    share : float           0 the lowest, 1 the highest.

    Returns
    -------
    (N,) array

    Notes
    -----
    As ``numpy.nanquantile``, which looks at every tile by itself and takes a hundred times as long.
    """
    ordered = np.sort(values, axis=0)  # what is not known comes last
    place = (np.isfinite(values).sum(axis=0) - 1) * share
    below = np.floor(place).astype(int)
    above = np.minimum(below + 1, len(values) - 1)
    low = np.take_along_axis(ordered, below[np.newaxis], 0)[0]
    high = np.take_along_axis(ordered, above[np.newaxis], 0)[0]
    rest = place - below
    return np.where(rest > 0, low + (high - low) * rest, low)


def noise_floors(energies):
    """Energy of noise alone, tile by tile.

    Parameters
    ----------
    energies : (K, N) array   Of one band; NaN outside the frame.

    Returns
    -------
    (N,) array                The 8th percentile over the frames: every tile is far out of focus somewhere. Of fewer
                              than eight frames the median of the quietest tenth of all tiles.
    """
    seen = np.isfinite(energies).any(axis=0)
    floors = np.full(energies.shape[1], np.nan)
    if len(energies) >= 8:
        floors[seen] = through_frames(energies[:, seen], 0.08)
        return floors
    else:
        lowest = np.nanmin(np.where(np.isfinite(energies), energies, np.inf), axis=0)
        quiet = lowest[np.isfinite(lowest)]
        if not len(quiet):
            return np.full(energies.shape[1], np.nan)
        return np.full(energies.shape[1], np.median(quiet[quiet <= np.percentile(quiet, 10)]))


def fit_focus(energies, places, usable=None):
    """Find how deep tiles lie, and what frames lost.

    Parameters
    ----------
    energies : (K, N) array       Of the band of the curve; NaN outside the frame.
    places : (K,) array           Where frames stood, in steps.
    usable : (K,) bool array      Frames to go by; all when None.

    Returns
    -------
    FocusFit
    """
    y, samples, floors, textured, _ = _curves(energies, places, usable)
    width = bell_width(y, samples, places)
    losses = np.zeros(len(energies))
    for _ in range(ROUNDS):
        depths, tops, leverage = _tiles(y, samples, places, losses, width)
        losses = _losses(y, samples, places, losses, depths, tops, leverage, width)
    depths, tops, _ = _tiles(y, samples, places, losses, width)
    textured = textured & (samples.sum(axis=0) >= 2)
    return FocusFit(places, losses, np.where(textured, depths, np.nan), tops, width, floors, textured)


def found_steps(energies, usable=None):
    """How wide the step between neighbours was, by the tiles that lie there.

    Parameters
    ----------
    energies : (K, N) array       Of the band of the curve; NaN outside the frame.
    usable : (K,) bool array      Frames to go by; all when None. A step reaches from one such frame to the next.

    Returns
    -------
    (K - 1,) array                In steps as planned; that before frame k + 1. NaN where fewer than twelve tiles tell.

    Notes
    -----
    For every width that a step could have, tiles near it are drawn anew; the width under which their bells fit best
    is the step. The typical tile decides, so that tiles that see two depths do not.
    """
    count = len(energies)
    chosen = np.flatnonzero(np.ones(count, bool) if usable is None else usable)
    places = np.arange(len(chosen), dtype=float)
    y, samples, _, _, peaks = _curves(energies[chosen], places, None)
    width = bell_width(y, samples, places)
    answer = np.full(count - 1, np.nan)
    for after in range(1, len(chosen)):
        near = (peaks >= after - 2) & (peaks <= after + 1) & (samples.sum(axis=0) >= 3)
        if near.sum() < LEAST_TILES:
            continue
        freedom = np.maximum(samples[:, near].sum(axis=0) - 2, 1)
        misfits = []
        for step in STEPS:
            shifted = places + np.where(places >= after, step - 1, 0)
            misfits.append(_misfit(y[:, near], samples[:, near], shifted, width, freedom))
        answer[chosen[after] - 1] = _lowest(np.array(misfits))
    return answer


def _misfit(y, samples, places, width, freedom):
    depths, tops, _ = _tiles(y, samples, places, np.zeros(len(places)), width)
    model = tops - (places[:, np.newaxis] - depths) ** 2 / (2 * width**2)
    return float(np.median((((y - model) * samples) ** 2).sum(axis=0) / freedom))


def _lowest(misfits):
    """The step of the least misfit, between those tried where it is not at an end."""
    at = int(misfits.argmin())
    return float(STEPS[at] + STEP_APART * peak_offset(-misfits, at))


def _curves(energies, places, usable):
    """ln of the clean energy where it counts, where that is, the floors, which tiles can be judged, their peaks."""
    usable = np.ones(len(energies), bool) if usable is None else usable
    kept = np.where(usable[:, np.newaxis], energies, np.nan)
    numbers = np.arange(len(energies))
    floors = noise_floors(kept)
    peaks, highest = _peaks(kept)
    with np.errstate(invalid="ignore"):
        textured = (highest > LEAST_PEAK * floors) & (np.isfinite(kept).sum(axis=0) >= min(4, len(energies)))
        clean = kept - floors
        samples = (
            ((np.abs(places[:, np.newaxis] - places[peaks]) <= REACH) | (np.abs(numbers[:, np.newaxis] - peaks) <= 2))
            & (clean > LOWEST_SHARE * (highest - floors))
            & (kept > 2 * floors)
            & textured
        )
    y = np.where(samples, np.log(np.where(samples, np.maximum(clean, 1e-30), 1.0)), 0.0)
    return y, samples, floors, textured, peaks


def _peaks(energies):
    filled = np.where(np.isfinite(energies), energies, -1.0)
    return filled.argmax(axis=0), filled.max(axis=0)


def bell_width(y, samples, places):
    """The one width of the bells of all tiles.

    Parameters
    ----------
    y : (K, N) array              ln of energy, less the floor.
    samples : (K, N) bool array   Which of them count.
    places : (K,) array           Where frames stood, in steps.

    Returns
    -------
    float   Standard deviation in steps: the median over parabolas through four samples or more.
    """
    k = places[:, np.newaxis] * np.ones(y.shape[1])
    count = samples.sum(axis=0)
    enough = count >= 4
    if enough.sum() < 8:
        return USUAL_WIDTH
    weight = samples[:, enough].astype(float)
    x, values = k[:, enough], y[:, enough]
    middle = (weight * x).sum(0) / weight.sum(0)
    x = x - middle
    moments = [(weight * x**p).sum(0) for p in range(5)]
    sides = [(weight * values * x**p).sum(0) for p in range(3)]
    matrix = np.moveaxis(np.array([[moments[i + j] for j in range(3)] for i in range(3)]), -1, 0)
    side = np.array(sides).T[..., np.newaxis]
    curvature = np.linalg.solve(matrix + 1e-9 * np.eye(3), side)[:, 2, 0]
    good = curvature < -0.02
    if good.sum() < 8:
        return USUAL_WIDTH
    return float(np.median(np.sqrt(-0.5 / curvature[good])))


def _tiles(y, samples, places, losses, width):
    """With the width fixed every tile is a straight line in the places of the frames: its depth and its height."""
    weight = samples.astype(float)
    z = places[:, np.newaxis]
    value = y - losses[:, np.newaxis] + z**2 / (2 * width**2)
    total = np.maximum(weight.sum(0), 1e-9)
    mean_z, mean_v = (weight * z).sum(0) / total, (weight * value).sum(0) / total
    spread = np.maximum((weight * (z - mean_z) ** 2).sum(0), 1e-9)
    slope = (weight * (z - mean_z) * (value - mean_v)).sum(0) / spread
    depths = slope * width**2
    tops = mean_v - slope * mean_z + depths**2 / (2 * width**2)
    leverage = weight * (1 / total + (z - mean_z) ** 2 / spread)
    return depths, tops, leverage


def _losses(y, samples, places, losses, depths, tops, leverage, width):
    """What each frame lost by the tiles near it, each measured against a bell drawn without that frame."""
    model = tops - (places[:, np.newaxis] - depths) ** 2 / (2 * width**2) + losses[:, np.newaxis]
    left_out = (y - model) / np.maximum(1 - leverage, 0.15)
    found = losses.copy()
    for k in range(len(places)):
        near = samples[k] & (np.abs(places[k] - depths) <= NEAR) & (leverage[k] < 0.9)
        found[k] = losses[k] + 0.5 * float(np.median(left_out[k, near])) if near.sum() >= LEAST_TILES else np.nan
    if not np.isfinite(found).any():
        return losses
    return np.where(np.isnan(found), 0.0, found - np.nanmedian(found))
