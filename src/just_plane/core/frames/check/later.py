"""Frames that were taken later and belong between earlier ones: a step that was missed, a frame that was dark.

As they come, frames are laid on the last one only; such a frame shows nothing sharp that the last one does. It is laid
on the earlier frames in which the same is sharp.
"""

import cv2
import numpy as np

from just_plane.core.frames.check.order import BANDS

MOST = 12
"""Frames that are tried; of more nobody took them to mend a stack."""
CANDIDATES = 3
"""Earlier frames that one is tried on, the likest first."""


def place_later_frames(follower, load, main):
    """Take frames of other runs into the main one where they fit an earlier frame of it.

    Parameters
    ----------
    follower : Follower   What it knows of those frames is brought up to date.
    load : function       Number of a frame to its (H, W) float32 picture.
    main : list of int    The run that holds most frames, in the order they came.

    Returns
    -------
    (list of int, list of int)   The run with them beside the frames that they fit; those that were taken in.
    """
    order, taken = list(main), list[int]()
    strays = sorted(frame for run in follower.runs() for frame in run if frame not in main)
    if len(strays) > MOST:
        return order, taken
    for frame in strays:
        likest = sorted(main, key=lambda other: _unlike(follower, frame, other))[:CANDIDATES]
        for before in likest:
            if follower.lay_on(before, load(before), frame, load(frame)):
                order.insert(_side(follower, order, before, frame), frame)
                taken.append(frame)
                break
    return order, taken


def _side(follower, order, beside, frame):
    """The place before or after another frame: there where what is on that side is nearer than the other frame is."""
    at = order.index(beside)
    ahead, behind = (
        sum(_unlike(follower, frame, other) - _unlike(follower, beside, other) for other in others)
        for others in (order[max(at - 1, 0) : at], order[at + 1 : at + 2])
    )
    return at if ahead < behind else at + 1


def _unlike(follower, first, second):
    """How unlike two frames are in what is sharp where, as they lie: from their tiles, so without looking at them."""
    shares = []
    for band in BANDS:
        both = np.stack([_wide(follower.frames[frame].measured.energy[band]) for frame in (first, second)])
        shares.append(np.sqrt(both / np.maximum(both.max(axis=0), 1e-12)))
    return float(sum(np.abs(one[0] - one[1]).mean() for one in shares))


def _wide(energy):
    return cv2.blur(energy, (3, 3))
