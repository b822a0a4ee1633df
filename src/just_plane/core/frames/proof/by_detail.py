"""A proof by detail: of every size of detail the frame that holds most of it, place by place.

Whole numbers throughout, and of equals the earlier frame: then neither the order in which parts of a picture are
merged nor the machine can change a byte. See docs/derivations/proof.md.
"""

from typing import NamedTuple

import cv2
import numpy as np

SCALE = 8192
"""Whole numbers to 1.0: a Laplacian of either sign fits into 16 bits."""
LEVELS = 4
FADES_AT = 2.0
"""Frames from the depth of a place at which a frame's slow tones count nothing there any more."""
NO_ENERGY = -1.0


class Levels(NamedTuple):
    """A part of a frame by size of detail."""

    detail: list
    """LEVELS arrays of (h, w, 3) int16, the finest first."""
    energy: list
    """(h, w) float32 of each."""
    base: np.ndarray
    """(h', w', 3) int16: the slow tones that are left."""


class Window(NamedTuple):
    """Which frames may win where, of a strip at a whole number of times fewer pixels each way."""

    times: int
    low: np.ndarray
    high: np.ndarray
    """(h, w) int16: the lowest and the highest frame."""
    depth: np.ndarray
    """(h', w') float32: depth of the strip in frames at its coarsest level."""


def levels_of(picture):
    """Take a picture apart.

    Parameters
    ----------
    picture : (H, W, 3) int16 array   0 to SCALE, encoded, blue-green-red as OpenCV keeps them.

    Returns
    -------
    Levels
    """
    details, energies, finer = [], [], picture
    for _ in range(LEVELS):
        coarser = cv2.pyrDown(finer)
        detail = cv2.subtract(finer, cv2.pyrUp(coarser, dstsize=finer.shape[1::-1]))
        luma = cv2.transform(detail, _LUMA)
        details.append(detail)
        energies.append(cv2.blur(cv2.multiply(luma, luma, dtype=cv2.CV_32F), (5, 5)))
        finer = coarser
    return Levels(details, energies, finer)


class DetailMerge:
    """Takes parts of frames in, laid on the reference, in the order of focus; nothing grows with their number.

    Parameters
    ----------
    shape : (int, int)       Rows, columns.
    window : Window or None  Lets only frames near the depth of a place win there; None lets any frame win.
    """

    def __init__(self, shape, window=None):
        sizes = [shape]
        for _ in range(LEVELS):
            sizes.append(((sizes[-1][0] + 1) // 2, (sizes[-1][1] + 1) // 2))
        self._sizes = sizes
        self._detail = [np.zeros((*size, 3), np.int16) for size in sizes[:-1]]
        self._energy = [np.full(size, NO_ENERGY, np.float32) for size in sizes[:-1]]
        self._base = np.zeros((*sizes[-1], 3), np.int64)
        self._base_weight = np.zeros(sizes[-1], np.int64)
        self._windows = None if window is None else _windows(window, sizes[:-1])
        self._depth = None if window is None else window.depth

    def wanted(self, frame):
        """Where a frame may have a part.

        Parameters
        ----------
        frame : int     Its number in the order of focus.

        Returns
        -------
        (h, w) bool array   By 16 px each way.
        """
        if self._windows is None or self._depth is None:
            return np.ones(self._sizes[-1], bool)
        low, high = self._windows[-1].low, self._windows[-1].high  # the union of all finer ones
        near = np.abs(self._depth - np.float32(frame)) < FADES_AT
        return np.asarray(near | _any_of_four((low <= frame) & (frame <= high)))

    def take(self, frame, levels, part):
        """Take a part of a frame in.

        Parameters
        ----------
        frame : int         Its number in the order of focus; later frames come later.
        levels : Levels     Of what the part looks at.
        part : Part
        """
        for level in range(LEVELS):
            whole, piece = part.places(level)
            energy, best = levels.energy[level][piece], self._energy[level][whole]
            wins = cv2.compare(energy, best, cv2.CMP_GT)
            if self._windows is not None:
                wins = cv2.bitwise_and(wins, self._windows[level].allow(frame, whole, wins.shape))
            cv2.copyTo(energy, wins, best)
            cv2.copyTo(levels.detail[level][piece], wins, self._detail[level][whole])
        whole, piece = part.places(LEVELS)
        weight = self._weight(frame, levels, whole, piece)
        self._base[whole] += weight[..., np.newaxis] * levels.base[piece].astype(np.int64)
        self._base_weight[whole] += weight

    def _weight(self, frame, levels, whole, piece):
        if self._depth is None:
            # Means of two by two, what is missing at the edge repeated: the same wherever a run begins.
            energy = levels.energy[-1]
            even = np.pad(energy, ((0, energy.shape[0] % 2), (0, energy.shape[1] % 2)), "edge")
            halves = even.reshape(even.shape[0] // 2, 2, even.shape[1] // 2, 2).mean(axis=(1, 3), dtype=np.float64)
            strength = halves[piece]
            return np.rint(np.minimum(strength**2 / 1e3, 1e12) + 1).astype(np.int64)
        away = self._depth[whole] - np.float32(frame)
        bell = np.exp(-(away.astype(np.float64) ** 2) / 2) - np.exp(-(FADES_AT**2) / 2)
        return np.rint(np.maximum(bell, 0) * 2**20).astype(np.int64)

    def picture(self):
        """The proof.

        Returns
        -------
        (H, W, 3) float32 array   0 to 1, encoded.
        """
        answer: np.ndarray = (self._base / np.maximum(self._base_weight, 1)[..., np.newaxis]).astype(np.float32)
        for detail in reversed(self._detail):
            answer = cv2.pyrUp(answer, dstsize=detail.shape[1::-1])
            np.add(answer, detail, out=answer)  # in its place: this is when most memory is needed
        answer /= np.float32(SCALE)
        return np.clip(answer, 0, 1, out=answer)


class _Allowed(NamedTuple):
    """Lowest and highest frame of one level, kept at ``times`` fewer pixels each way."""

    times: int
    low: np.ndarray
    high: np.ndarray

    def allow(self, frame, places, shape):
        """Where a frame may win.

        Parameters
        ----------
        frame : int
        places : (slice, slice)   Rows and columns of the level.
        shape : (int, int)        That they have.

        Returns
        -------
        (h, w) uint8 array        255 where it may.
        """
        rows, columns = (slice(side.start // self.times, -(-side.stop // self.times)) for side in places)
        low, high = self.low[rows, columns], self.high[rows, columns]
        inside = ((low <= frame) & (frame <= high)).view(np.uint8) * np.uint8(255)
        if self.times > 1:
            inside = inside.repeat(self.times, axis=0).repeat(self.times, axis=1)
        return np.ascontiguousarray(inside[: shape[0], : shape[1]])


_LUMA = np.array([[0.114, 0.587, 0.299]], np.float32)
"""Blue, green, red, as OpenCV keeps them."""


def _any_of_four(values):
    even = np.pad(values, [(0, side % 2) for side in values.shape])
    return np.asarray(even.reshape(even.shape[0] // 2, 2, even.shape[1] // 2, 2).any(axis=(1, 3)))


def _windows(window, sizes):
    """What is allowed at every level: of two by two the lowest and the highest."""
    times, low, high = window.times, window.low, window.high
    levels = []
    for size in sizes:
        if times == 1 and low.shape != size:
            low, high = _halved(low, size, np.minimum), _halved(high, size, np.maximum)
        levels.append(_Allowed(times, low, high))
        times = max(times // 2, 1)
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
    ((H, W) array, (H, W) array)   int16: lowest and highest frame. At every place at least one.
    """
    size = 2 * max(round(reach_px), 1) + 1
    around = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (size, size))
    low, high = cv2.erode(depth, around) - 1, cv2.dilate(depth, around) + 1
    return np.ceil(low).astype(np.int16), np.floor(high).astype(np.int16)


def strip_window(depth, low, high, times, top, bottom):
    """The window of a strip.

    Parameters
    ----------
    depth : (h, w) float32 array      Of the whole picture, at ``times`` fewer pixels each way.
    low, high : (h, w) int16 arrays   As :func:`depth_window` gives them.
    times : int                       1, 2, 4 or 8.
    top, bottom : int                 Rows of the strip, px of the full picture; ``top`` a multiple of 16.

    Returns
    -------
    Window
    """
    rows = slice(top // times, -(-bottom // times))
    part = depth[rows]
    coarse = 16 // times
    pad = ((0, -part.shape[0] % coarse), (0, -part.shape[1] % coarse))
    padded = np.pad(part, pad, "edge")
    shape = (padded.shape[0] // coarse, coarse, padded.shape[1] // coarse, coarse)
    return Window(times, low[rows], high[rows], padded.reshape(shape).mean(axis=(1, 3), dtype=np.float32))
