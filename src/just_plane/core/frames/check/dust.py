"""Dust on the sensor: a spot that is dark at the same place of every frame, whatever is in focus there."""

from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.bands import smoothed
from just_plane.core.frames.check.tiles import CURVE

DARK = -0.025
"""ln of light, weighted toward frames that are out of focus there."""
STILL_THERE = 0.35
"""Of that darkness, in every frame but one."""
OUTSTANDING = 6.0
"""Times the spread of the same measure around: what the blurred subject itself leaves there."""
AROUND = 24
"""Px over which that spread is taken."""
NO_DARKER = 2.0
"""Times that darkness: a spot of the subject is darker by more where it is in focus; dust is as dark everywhere."""
WIDEST = 1600
"""Px across; larger pictures are watched at fewer."""
BORDER = 8
"""Px at the edge of the frame where detail cannot be told from what lies outside."""
LEAST_PX, MOST_PX = 8, 250
LONGEST = 2.0
"""As wide as high within this ratio."""
ALONE = 0.5
"""Nothing so dark, of the spot itself, on the ring around it."""
JUMP = 4.0
"""Steps: beside such a jump of depth the edge itself is dark in every frame."""
LEAST_FRAMES = 8
LEAST_BLUR_CIRCLES = 6.0
"""How far out of focus a place must once have been: nearer, the subject keeps spots of its own."""


class Spot(NamedTuple):
    """A spot on the sensor, px of the picture that is measured."""

    x: float
    y: float
    radius: float
    darkness: float
    """Share of the light taken away."""


class Watch:
    """Dark spots as they stay through the frames; five planes, however many frames come."""

    def __init__(self, shape):
        self.shape = shape
        self._times = max(round(shape[1] / WIDEST), 1)
        shape = tuple(side // self._times for side in shape)
        self._weights = np.zeros(shape, np.float32)
        self._sum = np.zeros(shape, np.float32)
        self._highest = np.full(shape, -np.inf, np.float32)
        self._second = np.full(shape, -np.inf, np.float32)
        self._lowest = np.full(shape, np.inf, np.float32)
        self.frames = 0

    def add(self, grey, measured):
        """Take one frame in.

        Parameters
        ----------
        grey : (H, W) float32 array   0 to 1.
        measured : Measured           Its numbers.
        """
        if self._times > 1:
            grey = cv2.resize(grey, self._weights.shape[::-1], interpolation=cv2.INTER_AREA)
        log = cv2.log(np.maximum(grey, 0.004))
        spots = smoothed(log, 1.5) - smoothed(log, 4.0)
        energy = measured.energy[CURVE]
        weight = cv2.resize(1 / (energy + 1e-6) ** 2, grey.shape[::-1], interpolation=cv2.INTER_LINEAR)
        self._weights += weight
        self._sum += weight * spots
        np.maximum(self._second, np.minimum(self._highest, spots), out=self._second)
        np.maximum(self._highest, spots, out=self._highest)
        np.minimum(self._lowest, spots, out=self._lowest)
        self.frames += 1

    def absorb(self, other):
        """Take in what another watch saw of later frames.

        Parameters
        ----------
        other : Watch   Of frames of the same shape; its arrays are read, not kept.
        """
        self._weights += other._weights
        self._sum += other._sum
        second = np.minimum(self._highest, other._highest)
        np.maximum(self._second, np.maximum(other._second, second), out=self._second)
        np.maximum(self._highest, other._highest, out=self._highest)
        np.minimum(self._lowest, other._lowest, out=self._lowest)
        self.frames += other.frames

    def planes(self):
        """What it saw, to be kept.

        Returns
        -------
        (5, h, w) float32 array
        """
        return np.stack([self._weights, self._sum, self._highest, self._second, self._lowest])

    @classmethod
    def of_planes(cls, shape, planes, frames):
        """A watch that saw what another kept.

        Parameters
        ----------
        shape : (int, int)               Of the frames.
        planes : (5, h, w) float array   As :meth:`planes` gave them.
        frames : int                     How many it saw.

        Returns
        -------
        Watch
        """
        watch = cls(shape)
        watch._weights, watch._sum, watch._highest, watch._second, watch._lowest = planes.astype(np.float32)
        watch.frames = frames
        return watch

    def found(self, depth_at, ends, step_blur_circles):
        """Spots that are dust.

        Parameters
        ----------
        depth_at : function         (N, 2) places in px to depths in steps, NaN where not known.
        ends : (float, float)       Where the first and the last frame stand, in steps.
        step_blur_circles : float   Blur that a step adds, in circles of confusion.

        Returns
        -------
        list of Spot or None  None when too few frames came to tell.
        """
        if self.frames < LEAST_FRAMES:
            return None
        mean = self._sum / np.maximum(self._weights, 1e-30)
        spread = np.sqrt(smoothed(np.minimum(np.abs(mean), 4 * np.median(np.abs(mean))) ** 2, AROUND))
        dark = mean < np.minimum(DARK, -OUTSTANDING * spread)
        dark[self._second > STILL_THERE * mean] = False
        dark[smoothed(self._lowest, 1.0) < NO_DARKER * smoothed(mean, 1.0)] = False
        dark[:BORDER], dark[-BORDER:], dark[:, :BORDER], dark[:, -BORDER:] = False, False, False, False
        count, labels, stats, centres = cv2.connectedComponentsWithStats(dark.astype(np.uint8), connectivity=8)
        times = self._times

        def at(places):
            return depth_at(times * places + (times - 1) / 2)

        spots = [_spot(index, labels, stats, centres, mean, at) for index in range(1, count)]
        return [
            Spot(times * spot.x + (times - 1) / 2, times * spot.y + (times - 1) / 2, times * spot.radius, spot.darkness)
            for spot in spots
            if spot is not None and _was_far_out(spot, at, ends, step_blur_circles)
        ]


def _was_far_out(spot, depth_at, ends, step_blur_circles):
    depth = float(depth_at(np.array([[spot.x, spot.y]]))[0])
    farthest = max(abs(depth - end) for end in ends)
    return not np.isfinite(depth) or farthest * step_blur_circles >= LEAST_BLUR_CIRCLES


def _spot(index, labels, stats, centres, mean, depth_at):
    area = int(stats[index, cv2.CC_STAT_AREA])
    wide, high = int(stats[index, cv2.CC_STAT_WIDTH]), int(stats[index, cv2.CC_STAT_HEIGHT])
    if not LEAST_PX <= area <= MOST_PX or max(wide, high) > LONGEST * min(wide, high):
        return None
    x, y = (float(value) for value in centres[index])
    radius = (area / np.pi) ** 0.5
    darkest = float(mean[labels == index].min())
    ring = _ring(mean.shape, x, y, radius + 4, radius + 8)
    if not len(ring[0]) or mean[ring].min() < ALONE * darkest:
        return None
    around = _ring(mean.shape, x, y, radius + 5, radius + 10)
    depths = depth_at(np.stack([around[1], around[0]], axis=-1).astype(float))
    depths = depths[np.isfinite(depths)]
    if len(depths) and np.ptp(depths) > JUMP:
        return None
    return Spot(x, y, float(radius), float(1 - np.exp(darkest)))


def _ring(shape, x, y, inner, outer):
    top, bottom = max(int(y - outer), 0), min(int(y + outer) + 2, shape[0])
    left, right = max(int(x - outer), 0), min(int(x + outer) + 2, shape[1])
    rows, columns = np.mgrid[top:bottom, left:right]
    far = np.hypot(columns - x, rows - y)
    chosen = (far >= inner) & (far <= outer)
    return rows[chosen], columns[chosen]
