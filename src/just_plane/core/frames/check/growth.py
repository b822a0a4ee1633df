"""Steps by how much the view grows from frame to frame: as the camera draws near by a rail, or a ring makes it breathe.

What is sharp in a frame tells its place only where there is something to be sharp; the whole view tells how much it
grew wherever frames can be laid on each other at all. A step that was skipped shows as twice the growth of those
beside it, in subjects of two depths, too, and says how many steps it was.
"""

import numpy as np

from just_plane.core.frames.check.pairs import BESIDE, beside

LEAST_BESIDE = 3
"""Pairs to compare with that there must be."""
STEADY = 0.1
"""Standard deviation of the growth of pairs, as a share of it, up to which it tells steps: half a step is five."""
ROUGHLY_STEADY = 0.3
"""The same, up to which it tells how many steps there are between two frames that lie far apart."""
WHOLE = 0.3
"""Steps off a whole number up to which growth is believed; what lies between two says nothing."""
FARTHEST = 8.0
"""Steps between two frames up to which growth tells how many: of more, a few hundredths of it are a step."""
FAR = 2.2
"""Steps found by what is sharp from which there may be any number: past that nothing is in focus in both frames. How
many is then the nearest whole number by growth, which is off by a tenth where frames are so unlike."""
NORMAL_SD = 1.4826
"""Standard deviation of a bell curve over the median distance from its middle."""


def steps_by_growth(scales, dark, by_sharpness=None):
    """Steps between neighbours, each against the pairs beside it.

    Parameters
    ----------
    scales : (P,) array       Size of each frame against the one before; 1 where the view does not grow.
    dark : (P + 1,) bool      Frames in which little can be seen: those beside them are compared with others only.
    by_sharpness : (P,) array Steps found by what is sharp, NaN where they are not; None: nothing is known of them.

    Returns
    -------
    (P,) array                In steps as planned; NaN where growth does not tell them: it is not steady, as where the
                              entrance pupil is far away, or this pair is off any whole number of steps.
    """
    grown = np.full(len(scales), np.nan)
    clear = ~(dark[:-1] | dark[1:]) & np.isfinite(scales)
    if clear.sum() < 2 * BESIDE:
        return grown
    grown[clear] = np.log(scales[clear])
    usual = np.array([_usual(grown, pair) for pair in range(len(grown))])
    with np.errstate(all="ignore"):
        steps = np.where(usual * np.nanmedian(grown) > 0, np.log(scales) / usual, np.nan)
    told = np.isfinite(steps) & clear
    unsteady = NORMAL_SD * np.median(np.abs(steps[told] - 1)) if told.sum() >= 2 * BESIDE else np.inf
    whole = _whole(steps, dark) if unsteady <= STEADY else np.full(len(grown), np.nan)
    if by_sharpness is not None and unsteady <= ROUGHLY_STEADY:
        far = told & (np.nan_to_num(by_sharpness) >= FAR) & (steps > FAR) & (steps < FARTHEST + WHOLE)
        whole[far] = np.round(steps[far])
    return whole


def _whole(steps, dark):
    """Only steps that are near a whole number; beside a dark frame only if both sides of it are, together, too.

    What is laid too near the one is too far from the other: the sum is as sure as any step. At an end there is none.
    """
    kept = np.where(_is_whole(steps, WHOLE), steps, np.nan)
    for frame in np.flatnonzero(dark):
        pairs = [pair for pair in (frame - 1, frame) if 0 <= pair < len(steps)]
        if len(pairs) < 2 or not _is_whole(kept[pairs].sum(), WHOLE):
            kept[pairs] = np.nan
    return kept


def _is_whole(steps, within):
    with np.errstate(invalid="ignore"):
        return (np.abs(steps - np.round(steps)) <= within) & (steps < FARTHEST + within)


def _usual(grown, pair):
    """Median growth of the pairs beside one."""
    around = beside(grown, pair)
    return float(np.median(around)) if len(around) >= LEAST_BESIDE else np.nan
