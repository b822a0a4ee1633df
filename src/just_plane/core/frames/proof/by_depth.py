"""A proof by depth: every place is taken from the frame that its depth names, or from two, softly."""

import cv2
import numpy as np

from just_plane.core.frames.proof.by_detail import SCALE

ROWS = 64
"""Rows that are worked on at once."""
SOFT = 0.5
"""Frames over which one gives way to the next. A whole frame would soften detail."""


class DepthMerge:
    """Takes frames in, laid on the reference, in the order of focus; nothing grows with their number.

    Smooth surfaces come out best this way; where near parts cross far ones their edges show the fog around them.
    """

    def __init__(self, depth):
        self._depth = depth
        self._lowest, self._highest = float(depth.min()), float(depth.max())
        self._sum = np.zeros((*depth.shape, 3), np.float32)
        self._weight = np.zeros(depth.shape, np.float32)
        self.frames = 0

    def add(self, picture):
        """Take the next frame in.

        Parameters
        ----------
        picture : (H, W, 3) int16 array   0 to 8192, encoded.
        """
        reach = 0.5 + SOFT / 2
        if self._lowest - reach < self.frames < self._highest + reach:
            for top in range(0, self._depth.shape[0], ROWS):
                self._add_rows(picture, slice(top, top + ROWS))
        self.frames += 1

    def _add_rows(self, picture, rows):
        """A band of rows, and of it only the columns that this frame has a part in."""
        away = np.abs(self._depth[rows] - np.float32(self.frames))
        columns = np.flatnonzero((away < 0.5 + SOFT / 2).any(axis=0))
        if not len(columns):
            return
        part = (rows, slice(columns[0], columns[-1] + 1))
        weight = np.clip(0.5 + (0.5 - away[:, part[1]]) / SOFT, 0, 1).astype(np.float32)
        self._sum[part] += cv2.multiply(picture[part], cv2.merge([weight] * 3), dtype=cv2.CV_32F)
        self._weight[part] += weight

    def picture(self):
        """The proof.

        Returns
        -------
        (H, W, 3) float32 array   0 to 1, encoded.
        """
        whole = cv2.merge([np.maximum(self._weight, 1e-6) * SCALE] * 3)
        return np.clip(cv2.divide(self._sum, whole), 0, 1)
