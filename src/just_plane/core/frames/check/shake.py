"""A frame that was shaken: detail is lost that its place does not explain, and lost along one direction.

Never by absolute sharpness, which follows the subject: each tile is compared with itself in the frames beside.
"""

from itertools import pairwise
from typing import NamedTuple

import numpy as np

from just_plane.core.frames.check.focus_fit import NEAR, noise_floors
from just_plane.core.frames.check.tiles import CURVE, FINE

LEAST_TILES = 15
"""With fewer tiles near its place a frame is not judged."""
LEAST_CLEAN = 3.0
"""Times the noise: fine detail under it is no measure of anything."""
BESIDE, LEAST_BESIDE = 3, 3
"""Frames on either side to compare with; how many of those must themselves be judged."""


ALONE = 0.08
"""ln by which a shaken frame is worse than both beside it."""
OF_ONE_LINE = 0.18
"""Of how much detail of one direction a smear must have taken for the fine detail that is lost, were there as much of
each: half of what it must where the subject has little that runs across the smear, a good deal more than chance."""
PLAIN_ONE_WAY = 0.15
"""Nothing but shake makes detail run one way so much more than in the frames beside."""


class Stillness(NamedTuple):
    """By frame, against the frames beside it; NaN where it cannot be judged."""

    loss: np.ndarray
    """(K,) ln of energy in the band of the curve, beyond what the place explains."""
    fine_loss: np.ndarray
    """(K,) ln of fine energy over that of the curve."""
    one_way: np.ndarray
    """(K,) by how much detail runs in one direction more than it does beside."""

    @property
    def shaken(self):
        """Frames that were shaken.

        Returns
        -------
        (K,) bool array
        """
        with np.errstate(invalid="ignore"):
            lost = self.loss + self.fine_loss
            fine = (self.loss < -0.10) & (self.fine_loss < -0.20) & (self.one_way > OF_ONE_LINE * _smeared(lost))
            coarse = (self.loss < -0.25) & (self.one_way > 0.20)
        return (fine | coarse) & _lowest(lost)

    @property
    def plainly_shaken(self):
        """Those that nothing else explains, whatever is not yet known of the steps.

        Returns
        -------
        (K,) bool array
        """
        with np.errstate(invalid="ignore"):
            return self.shaken & (self.one_way > PLAIN_ONE_WAY)


def _smeared(lost):
    """How much more detail runs one way, of detail that ran all ways alike, when a smear along one line took so much.

    Of energies (1, 1) along and across (f, 1) are left: ln((f + 1) / 2) is lost, (1 - f) / (1 + f) runs one way.
    """
    left = np.clip(2 * np.exp(lost) - 1, 0, 1)
    return (1 - left) / (1 + left)


def _lowest(values):
    """Frames that are worse by a margin than those just before and after: one press of the shutter, not the subject.

    The first and the last have one beside them only, and half of what is sharp in them is in no other: not told.
    """
    beside = np.stack([np.append(-np.inf, values[:-1]), np.append(values[1:], -np.inf)])
    worse = values < np.where(np.isnan(beside), np.inf, beside) - ALONE
    return worse.all(axis=0)


def stillness(energies, slopes, fit):
    """Judge every frame.

    Parameters
    ----------
    energies : (K, 4, N) array   By frame, band and tile; NaN outside the frame.
    slopes : (K, 3, N) array     gx², gy², gx gy by frame and tile.
    fit : FocusFit               Of the same frames.

    Returns
    -------
    Stillness
    """
    far = np.abs(fit.places[:, np.newaxis] - fit.depths)
    near = far <= NEAR
    with np.errstate(all="ignore"):
        floors = np.stack([noise_floors(energies[:, band]) for band in range(energies.shape[1])])
        clean = np.maximum(energies - floors, 1e-12)
        fineness = np.log(clean[:, FINE] / clean[:, CURVE])
        near &= clean[:, FINE] > LEAST_CLEAN * floors[FINE]
        both = slopes[:, 0] + slopes[:, 1]
        lean = np.stack([(slopes[:, 0] - slopes[:, 1]) / both, 2 * slopes[:, 2] / both])
    usual = _usual_curve(fineness, far, near)
    judged = near.sum(axis=1) >= LEAST_TILES
    fine = _against_itself(fineness - usual, near)
    leans = np.stack([_against_itself(part, near) for part in lean])
    loss = np.where(judged, fit.losses, np.nan)
    fine = np.where(judged, fine, np.nan)
    leans = np.where(judged, leans, np.nan)
    return Stillness(_beside(loss), _beside(fine), np.hypot(_beside(leans[0]), _beside(leans[1])))


def _usual_curve(fineness, far, near):
    """How fine detail gives way with distance from focus, as most tiles do: a parabola in the distance."""
    values, distances = fineness[near], far[near]
    good = np.isfinite(values)
    if good.sum() < 30:
        return np.zeros_like(fineness)
    edges = np.linspace(0, NEAR, 7)
    middles, heights = [], []
    for low, high in pairwise(edges):
        inside = good & (distances >= low) & (distances < high)
        if inside.sum() >= 5:
            middles.append((low + high) / 2)
            heights.append(float(np.median(values[inside])))
    return np.interp(np.nan_to_num(far, nan=0.0), middles, heights) if middles else np.zeros_like(fineness)


def _against_itself(values, near):
    """Median over the tiles near a frame of what each is there less what it is in the other frames near it."""
    kept = np.where(near & np.isfinite(values), values, np.nan)
    count = np.isfinite(kept).sum(axis=0)
    total = np.nansum(kept, axis=0)
    with np.errstate(all="ignore"):
        others = (total - kept) / (count - 1)
        rows = np.where(count > 1, kept - others, np.nan)
    return np.array([np.median(row[np.isfinite(row)]) if np.isfinite(row).any() else np.nan for row in rows])


def _beside(values):
    """Each value less the median of the judged frames beside it; NaN where too few are."""
    answer = np.full(len(values), np.nan)
    for k, value in enumerate(values):
        beside = [j for j in range(k - BESIDE, k + BESIDE + 1) if j != k and 0 <= j < len(values)]
        others = [values[j] for j in beside if np.isfinite(values[j])]
        if np.isfinite(value) and len(others) >= LEAST_BESIDE:
            answer[k] = value - float(np.median(others))
    return answer
