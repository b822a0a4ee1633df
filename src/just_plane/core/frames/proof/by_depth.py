"""A proof by depth: every place is taken from the frame that its depth names, or from two, softly."""

import cv2
import numpy as np

from just_plane.core.frames.proof.by_detail import SCALE
from just_plane.core.frames.proof.strips import UNIT

SOFT = 0.5
"""Frames over which one gives way to the next. A whole frame would soften detail."""
REACH = 0.5 + SOFT / 2
"""Frames from the depth of a place at which a frame has no part in it any more."""


class DepthMerge:
    """Takes parts of frames in, laid on the reference, in the order of focus; nothing grows with their number.

    Smooth surfaces come out best this way; where near parts cross far ones their edges show the fog around them.

    Parameters
    ----------
    depth : (H, W) float32 array   In frames, 0 the first of those that are taken in.

    Notes
    -----
    The weights of a place add up to 1 by themselves, so that the sum is all that is kept.
    """

    def __init__(self, depth):
        self._depth = depth
        self._sum = np.zeros((*depth.shape, 3), np.int16)
        padded = np.pad(depth, [(0, -side % UNIT) for side in depth.shape], "edge")
        blocks = padded.reshape(padded.shape[0] // UNIT, UNIT, padded.shape[1] // UNIT, UNIT)
        self._lowest, self._highest = blocks.min(axis=(1, 3)), blocks.max(axis=(1, 3))

    def wanted(self, frame):
        """Where a frame may have a part.

        Parameters
        ----------
        frame : int     Its number in the order of focus.

        Returns
        -------
        (h, w) bool array   By 16 px each way.
        """
        inside: np.ndarray = (self._lowest - REACH < frame) & (frame < self._highest + REACH)
        return inside

    def take(self, frame, picture, part):
        """Take a part of a frame in.

        Parameters
        ----------
        frame : int                       Its number in the order of focus.
        picture : (h, w, 3) int16 array   0 to 8192, encoded: what the part looks at.
        part : Part
        """
        whole, piece = part.places()
        away = np.abs(self._depth[whole] - np.float32(frame))
        weight = np.clip(0.5 + (0.5 - away) / SOFT, 0, 1)
        self._sum[whole] += cv2.multiply(picture[piece], cv2.merge([weight] * 3), dtype=cv2.CV_16S)

    def picture(self):
        """The proof.

        Returns
        -------
        (H, W, 3) float32 array   0 to 1, encoded.
        """
        return np.clip(self._sum.astype(np.float32) / np.float32(SCALE), 0, 1)
