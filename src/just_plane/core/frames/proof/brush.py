"""Where no merge will do: a near part out of focus lays its fog over the far surface around it."""

from typing import NamedTuple

import cv2
import numpy as np

JUMP = 3.0
"""Frames: from there on depth jumps, it does not slope."""
CROSSES = 0.02
"""Share of the frame beside jumps from which near parts are said to cross far ones."""


class Brush(NamedTuple):
    """What a merge cannot mend."""

    mask: np.ndarray
    """(H, W) bool: places in the fog of a nearer part."""
    share: float
    """Of the frame."""
    method: str
    """The proof that suits this subject best by its depth: depth, windowed or pyramid."""


def needs_brush(depth, step_blur_px):
    """Find the places, and which method suits.

    Parameters
    ----------
    depth : (H, W) float32 array   In frames, filled.
    step_blur_px : float           Blur that one step adds, px of this map.

    Returns
    -------
    Brush

    Notes
    -----
    Beside a jump of n frames the near part is blurred by n steps where the far one is sharp: half of that blur reaches
    over the edge, on the far side. Widths are taken in five bands of n.
    """
    size = np.ones((5, 5), np.uint8)
    nearest, farthest = cv2.erode(depth, size), cv2.dilate(depth, size)
    jump = farthest - nearest
    mask = np.zeros(depth.shape, bool)
    for least, most in ((3, 5), (5, 8), (8, 12), (12, 20), (20, 1e9)):
        edge = (jump > max(least, JUMP)) & (jump <= most)
        if not edge.any():
            continue
        reach = max(round(min(least * 1.25, 40) * step_blur_px / 2), 1)
        around = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * reach + 1, 2 * reach + 1))
        fog = cv2.dilate(edge.astype(np.uint8), around) > 0
        near = cv2.erode(depth, around)
        mask |= fog & (depth > near + JUMP)
    share = float(mask.mean())
    edges = float((jump > JUMP).mean())
    method = "depth" if edges < CROSSES / 10 else ("windowed" if edges < 5 * CROSSES else "pyramid")
    return Brush(mask, share, method)
