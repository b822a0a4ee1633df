"""What of the subject is sharp in some frame: at places that were asked about, and along the depth."""

import math
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from just_plane.core.contrast import contrast
from just_plane.core.frames.check.places import NOT_LAID, in_front

JUST = 1.02
"""Frames whose sharp parts only just meet leave no gap: places are known no better."""


class Covered(NamedTuple):
    """One place."""

    covered: bool | None
    """None: there is no texture to tell by."""
    contrast: float | None
    """Of the finest detail there, in the best frame; None where it cannot be told."""
    frame: int | None
    """The frame that holds it best."""
    depth: float | None
    """Of the subject there, in steps from the first frame."""


class Gap(NamedTuple):
    """Depth that is sharp in no frame, in steps from the first frame."""

    start: float
    end: float
    before: int | None
    """The frame on its near side; None: none was taken that near."""
    after: int | None
    """The frame on its far side; None: none was taken that far."""


def covered_at(places, checked, facts, times):
    """Whether places are sharp in a frame that may be used.

    Parameters
    ----------
    places : (N, 2) array   x, y in px of the full reference frame.
    checked : Checked
    facts : StackFacts
    times : int             Full pixels to one of the picture that was measured, each way.

    Returns
    -------
    list of Covered
    """
    if checked.fit is None:
        return [Covered(None, None, None, None) for _ in places]
    grid = checked.grid
    usable = [frame for frame in checked.order if frame not in checked.left_out]
    stands = np.array([checked.places[frame] for frame in usable])
    small = (np.asarray(places, float) - (times - 1) / 2) / times
    depths = np.where(_within(small, grid), checked.fit.depths[grid.tile_at(small)], np.nan)
    answers = []
    for depth in depths:
        if not np.isfinite(depth) or not len(usable):
            answers.append(Covered(None, None, None, None))
            continue
        best = int(np.abs(stands - depth).argmin())
        away = abs(float(stands[best] - depth))
        sharpness = _contrast(away, facts)
        covered = away <= facts.reach_steps * JUST if sharpness is None else sharpness >= facts.threshold
        answers.append(Covered(bool(covered), sharpness, usable[best], float(depth)))
    return answers


def _within(places, grid):
    """Which places lie in the frame at all."""
    x, y = places[:, 0] + 0.5, places[:, 1] + 0.5
    return (x >= 0) & (x <= grid.width) & (y >= 0) & (y <= grid.height)


def _contrast(steps_away, facts):
    if not facts.judges_contrast:
        return None
    blur = facts.blur(steps_away * facts.step)
    return float(contrast(1 / facts.circle, facts.effective_f_number, blur, facts.wavelength))


def gaps(checked, facts):
    """Depth that no usable frame holds, from the first that was planned to the last, spare ones aside.

    Where frames in front could not be laid on the rest it is not known where these stand: only gaps between are told.

    Parameters
    ----------
    checked : Checked
    facts : StackFacts

    Returns
    -------
    list of Gap     Near to far.
    """
    usable = [frame for frame in checked.order if frame not in checked.left_out and frame in checked.places]
    usable.sort(key=lambda frame: checked.places[frame])
    if not usable:
        return []
    reach = facts.reach_steps
    first, last = checked.places[usable[0]], checked.places[usable[-1]]
    nearest, farthest = _wanted(facts)
    unknown = in_front(checked.order, checked.left_out, NOT_LAID)
    found = []
    if not unknown and first - nearest > reach * JUST:
        found.append(Gap(nearest, first - reach, None, usable[0]))
    for before, after in pairwise(usable):
        start, end = checked.places[before], checked.places[after]
        if end - start > 2 * reach * JUST:
            found.append(Gap(start + reach, end - reach, before, after))
    if not unknown and farthest - last > reach * JUST:
        found.append(Gap(last + reach, farthest, usable[-1], None))
    return found


def _wanted(facts):
    """From where to where frames must hold the subject, in steps from the first planned; inf where that is not said."""
    if facts.step is None:
        return math.inf, -math.inf
    nearest = math.inf if facts.kind == "hand" else facts.spare_before
    return nearest, -math.inf if facts.frames is None else facts.frames - 1 - facts.spare_after


def open_ends(checked):
    """Share of the places that are sharpest in the first frame, or in the last, and would be sharper still past it.

    Parameters
    ----------
    checked : Checked

    Returns
    -------
    (float, float)   Near and far side, of the places that can be judged; 0 where none can.
    """
    depths = checked.fit.depths[np.isfinite(checked.fit.depths)] if checked.fit is not None else np.array([])
    if not len(depths):
        return 0.0, 0.0
    first, last = (checked.places[checked.order[k]] for k in (0, -1))
    return float(np.mean(depths < first - 0.5)), float(np.mean(depths > last + 0.5))
