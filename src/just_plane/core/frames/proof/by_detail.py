"""A proof by detail: of every size of detail the frame that holds most of it, place by place.

Whole numbers throughout, and of equals the earlier frame: then neither the order in which parts of a stack are merged
nor the machine can change a byte.
"""

import cv2
import numpy as np

SCALE = 8192
"""Whole numbers to 1.0: a Laplacian of either sign fits into 16 bits."""
LEVELS = 4
PARTS = 16
"""Depth in a window is kept to a sixteenth of a frame."""


class DetailMerge:
    """Takes frames in, laid on the reference, in the order of focus; nothing grows with their number.

    Parameters
    ----------
    shape : (int, int)           Rows, columns.
    window : tuple or None       Lowest and highest frame that may win, each (H, W) float32; None lets any frame win.
    depth : (H, W) array, None   In frames; weighs the coarsest level where there is a window.
    """

    def __init__(self, shape, window=None, depth=None):
        self._shape = shape
        sizes = [shape]
        for _ in range(LEVELS):
            sizes.append(((sizes[-1][0] + 1) // 2, (sizes[-1][1] + 1) // 2))
        self._detail = [np.zeros((*size, 3), np.int16) for size in sizes[:-1]]
        self._energy = [np.full(size, -1.0, np.float32) for size in sizes[:-1]]
        self._away = [np.full(size, 32_767, np.int16) for size in sizes[:-1]] if window else None
        self._windows = _windows(window, sizes[:-1]) if window else None
        self._base_depth = None if depth is None else cv2.resize(depth, sizes[-1][::-1], interpolation=cv2.INTER_AREA)
        self._base = np.zeros((*sizes[-1], 3), np.int64)
        self._base_weight = np.zeros(sizes[-1], np.int64)
        self.frames = 0

    def add(self, picture):
        """Take the next frame in.

        Parameters
        ----------
        picture : (H, W, 3) int16 array   0 to 8192, encoded.
        """
        finer, energy = picture, np.zeros(self._shape, np.float32)
        for level in range(LEVELS):
            coarser = cv2.pyrDown(finer)
            detail = finer - cv2.pyrUp(coarser, dstsize=finer.shape[1::-1])
            energy = self._chosen(level, detail)
            finer = coarser
        self._add_base(finer, energy)
        self.frames += 1

    def _chosen(self, level, detail):
        luma = cv2.transform(detail, _LUMA)
        energy = cv2.blur(cv2.multiply(luma, luma, dtype=cv2.CV_32F), (5, 5))
        best = self._energy[level]
        if self._windows is None:
            wins = cv2.compare(energy, best, cv2.CMP_GT)
        else:
            low, high = self._windows[level]
            here = np.int16(self.frames * PARTS)
            away = np.maximum(np.maximum(low - here, here - high), np.int16(0))
            assert self._away is not None
            nearest = self._away[level]
            nearer, as_near = cv2.compare(away, nearest, cv2.CMP_LT), cv2.compare(away, nearest, cv2.CMP_EQ)
            wins = cv2.bitwise_or(nearer, cv2.bitwise_and(as_near, cv2.compare(energy, best, cv2.CMP_GT)))
            cv2.copyTo(away, wins, nearest)
        cv2.copyTo(energy, wins, best)
        cv2.copyTo(detail, wins, self._detail[level])
        return energy

    def _add_base(self, base, energy):
        size = base.shape[1::-1]
        if self._base_depth is None:
            strength = cv2.resize(energy, size, interpolation=cv2.INTER_AREA).astype(np.float64)
            weight = np.minimum(strength**2 / 1e3, 1e12) + 1
        else:
            weight = np.exp(-((self._base_depth - self.frames) ** 2) / 2) * 2**20 + 1
        whole = np.rint(weight).astype(np.int64)
        self._base += whole[..., np.newaxis] * base.astype(np.int64)
        self._base_weight += whole

    def picture(self):
        """The proof.

        Returns
        -------
        (H, W, 3) float32 array   0 to 1, encoded.
        """
        answer: np.ndarray = (self._base / np.maximum(self._base_weight, 1)[..., np.newaxis]).astype(np.float32)
        for detail in reversed(self._detail):
            answer = np.add(cv2.pyrUp(answer, dstsize=detail.shape[1::-1]), detail, dtype=np.float32)
        return np.clip(answer / SCALE, 0, 1)


_LUMA = np.array([[0.114, 0.587, 0.299]], np.float32)
"""Blue, green, red, as OpenCV keeps them."""


def _windows(window, sizes):
    """Lowest and highest allowed frame at every level: of two by two the lowest and the highest."""
    low, high = (np.clip(np.rint(edge * PARTS), -32_000, 32_000).astype(np.int16) for edge in window)
    levels = []
    for size in sizes:
        if size != low.shape:
            low, high = _halved(low, size, np.minimum), _halved(high, size, np.maximum)
        levels.append((low, high))
    return levels


def _halved(values, size, choose):
    padded = np.pad(values, ((0, 2 * size[0] - values.shape[0]), (0, 2 * size[1] - values.shape[1])), "edge")
    rows = choose(padded[::2], padded[1::2])
    return choose(rows[:, ::2], rows[:, 1::2])


def depth_window(depth, reach_px):
    """Frames that may win at a place: those of the depths within a reach of it, and one more on either side.

    Parameters
    ----------
    depth : (H, W) float32 array   In frames.
    reach_px : float               How far around, px.

    Returns
    -------
    ((H, W) array, (H, W) array)   Lowest and highest frame.
    """
    size = 2 * max(round(reach_px), 1) + 1
    around = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (size, size))
    return cv2.erode(depth, around) - 1, cv2.dilate(depth, around) + 1
