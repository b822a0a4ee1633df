"""Which frame holds each place sharp, pixel by pixel, in one pass over frames laid on the reference.

Nothing grows with the number of frames: the best, what was before and after it, and the lowest are all that is kept.
See docs/derivations/proof.md.
"""

from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.bands import band, smoothed

SURE, GUESSED = 6.0, 1 / 3
"""Confidence is (best / lowest / 6 - 1/3), from 0 to 1."""

LEAST = 1e-8
"""Detail weaker than a ten-thousandth of the light is none, however quiet the picture."""


class FocusMap(NamedTuple):
    """By pixel of the reduced reference."""

    depth: np.ndarray
    """(H, W) float32, counted in frames merged, 0 the first; fractions between them."""
    confidence: np.ndarray
    """(H, W) float32, 0 to 1."""
    luma: np.ndarray
    """(H, W) float32 of the frame that is best there."""


class FocusPass:
    """Takes frames in, laid on the reference, in the order of focus; :meth:`map` answers at any time."""

    def __init__(self, shape, circle_px):
        self._circle = circle_px
        self._best = np.full(shape, -1.0, np.float32)
        self._lowest = np.full(shape, np.inf, np.float32)
        self._at = np.zeros(shape, np.int16)
        self._before = np.zeros(shape, np.float32)
        self._after = np.zeros(shape, np.float32)
        self._last = np.zeros(shape, np.float32)
        self._luma = np.zeros(shape, np.float32)
        self.frames = 0

    def add(self, grey):
        """Take the next frame in.

        Parameters
        ----------
        grey : (H, W) float32 array   0 to 1, laid on the reference.
        """
        focus = self._focus(grey)
        just_passed = (self._at == self.frames - 1).view(np.uint8)
        cv2.copyTo(focus, just_passed, self._after)
        better = cv2.compare(focus, self._best, cv2.CMP_GT)
        cv2.copyTo(self._last, better, self._before)
        self._after[:] = cv2.bitwise_and(self._after, self._after, mask=cv2.bitwise_not(better))
        cv2.copyTo(focus, better, self._best)
        cv2.copyTo(grey, better, self._luma)
        self._at[better > 0] = self.frames
        cv2.min(self._lowest, focus, self._lowest)
        self._last = focus
        self.frames += 1

    def _focus(self, grey):
        fine = 0.175 * self._circle
        detail = cv2.addWeighted(band(grey, fine, 1.6 * fine), 1.0, band(grey, 2 * fine, 3.2 * fine), 0.5, 0.0)
        mean = _slow(grey, 2 * self._circle) + np.float32(0.01)
        return cv2.divide(smoothed(cv2.multiply(detail, detail), self._circle), cv2.multiply(mean, mean))

    def map(self):
        """What the frames so far tell.

        Returns
        -------
        FocusMap
        """
        floor = 0.95 * self._lowest - 0.02 * self._best
        left, middle, right = (
            np.log(np.maximum(value - floor, 1e-12)) for value in (self._before, self._best, self._after)
        )
        bend = left - 2 * middle + right
        with np.errstate(divide="ignore", invalid="ignore"):
            offset = np.where(bend < -1e-6, 0.5 * (left - right) / bend, 0.0)
            confidence = np.clip(self._best / np.maximum(self._lowest, LEAST) / SURE - GUESSED, 0, 1)
        inside = (self._at > 0) & (self._at < self.frames - 1)
        depth = self._at + np.where(inside, np.clip(offset, -0.5, 0.5), 0.0)
        return FocusMap(depth.astype(np.float32), np.nan_to_num(confidence).astype(np.float32), self._luma)


def _slow(grey, sigma):
    """Light as it changes slowly; at a quarter of the pixels each way where that tells the same."""
    if sigma < 3 or min(grey.shape) < 64:
        return smoothed(grey, sigma)
    size = tuple(max(side // 4, 1) for side in grey.shape[1::-1])
    small = cv2.resize(grey, size, interpolation=cv2.INTER_AREA)
    return cv2.resize(smoothed(small, sigma / 4), grey.shape[1::-1], interpolation=cv2.INTER_LINEAR)


def filled(found, circle_px):
    """Depth with lone pixels mended and plain places filled from around; where it is sure it stays as found.

    Parameters
    ----------
    found : FocusMap
    circle_px : float       Circle of confusion, px.

    Returns
    -------
    (H, W) float32 array    In frames.

    Notes
    -----
    Smoothing everywhere would cost two decibels where depth jumps. Plain places follow what is around them and looks
    like them (a guided filter, weighted by confidence), from near to far.
    """
    median = cv2.medianBlur(found.depth, 5)
    depth = np.where(np.abs(found.depth - median) > 1, median, found.depth)
    unsure = found.confidence < 0.5
    if not unsure.any():
        return depth
    answer, weight = depth.copy(), found.confidence**2 + 1e-6
    known = weight.copy()
    for circles in (2, 8, 24):
        radius = max(round(circles * circle_px), 2)
        guess, sure = _guided(depth, found.luma, weight, radius)
        use = unsure & (known < 0.25) & (sure > 0.02)
        answer[use] = guess[use]
        known[use] = 0.25
        if not (unsure & (known < 0.25)).any():
            break
    return answer.astype(np.float32)


def _guided(values, guide, weight, radius, epsilon=0.002):
    """Weighted guided filter, and the mean weight it rests on."""
    size = (2 * radius + 1, 2 * radius + 1)

    def mean(picture):
        return cv2.boxFilter(picture, -1, size)

    total = mean(weight)
    guide_mean, value_mean = mean(weight * guide) / total, mean(weight * values) / total
    spread = mean(weight * guide * guide) / total - guide_mean**2
    both = mean(weight * guide * values) / total - guide_mean * value_mean
    slope = both / (np.maximum(spread, 0) + epsilon)
    offset = value_mean - slope * guide_mean
    return mean(weight * slope) / total * guide + mean(weight * offset) / total, total
