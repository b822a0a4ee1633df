"""A frame as the others foretell it: each place as the frame that is sharpest there shows it, out of focus as far as
this frame is there. What it shows beyond that is none of the subject: dust, a highlight, a part that moved.

See docs/derivations/findings.md.
"""

from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.bands import band
from just_plane.core.frames.check.tiles import GAMMA
from just_plane.core.peaks import peak_offset

DARKEST = 0.004
"""Encoded light under which nothing is told from black."""
LEAST_DISC = 1.2
"""px across; a smaller disc of defocus is none."""
MOST_DISC = 24.0
"""px across; larger discs are laid at half the pixels, and half of those."""
FINER = 1.25
"""From one disc that is tried to the next; between two, blurred pictures are mixed."""
TRIED = 1.1 ** np.arange(-4, 5)
"""How far a step may blur against what the plan says."""
PARTS, PART_PX = 4, 200
"""Parts of a frame by which that is judged: those with most detail."""
DETAIL = (1.5, 4.0)
"""Band in which it is judged, px."""
MOST_BEYOND = 0.05
"""More than this at one place counts no more: it is nothing that a better blur would mend."""


class Window(NamedTuple):
    """A part of a frame, px."""

    left: int
    top: int
    width: int
    height: int

    def of(self, picture):
        """What a picture shows there.

        Parameters
        ----------
        picture : (H, W) array

        Returns
        -------
        (height, width) array
        """
        return picture[self.top : self.top + self.height, self.left : self.left + self.width]


class Sharpest:
    """Frames of a stack, and which of them is sharpest where; few of them do, if they stand evenly in depth."""

    def __init__(self, pictures, places, depth, between):
        """Keep what is known.

        Parameters
        ----------
        pictures : dict              Frame to (H, W) float32 array, 0 to 1, encoded.
        places : dict                Frame to the depth where it is sharp, steps.
        depth : (H, W) float array   Of the subject, steps, as one frame (the reference) shows it.
        between : function           Two frames to the (2, 3) similarity between them; None is the reference.
        """
        self.pictures = pictures
        self.places = places
        self._depth = np.asarray(depth, np.float32)
        self._between = between

    def of(self, frame, window=None):
        """What one of the frames should show.

        Parameters
        ----------
        frame : int               One of the pictures.
        window : Window or None   Only this part of it.

        Returns
        -------
        Foretold
        """
        height, width = self._depth.shape
        window = window or Window(0, 0, width, height)
        depth = _laid(self._depth, self._between(None, frame), window)
        others = list(self.pictures)
        away = np.stack([np.abs(depth - self.places[other]) for other in others])
        nearest = np.argmin(away, axis=0)
        light = np.zeros_like(depth)
        for place, other in enumerate(others):
            here = (nearest == place).view(np.uint8)
            if here.any():
                cv2.copyTo(_laid(self.pictures[other], self._between(other, frame), window), here, light)
        light = cv2.pow(np.maximum(light, DARKEST), GAMMA)
        return Foretold(
            depth=depth,
            away=np.abs(depth - np.float32(self.places[frame])),
            own=away.min(axis=0),
            light=light,
            seen=window.of(self.pictures[frame]),
        )


class Foretold(NamedTuple):
    """A frame, and what others say of it; (h, w) float32 arrays."""

    depth: np.ndarray
    """Of what it shows, steps."""
    away: np.ndarray
    """How far from its plane of focus that lies, steps."""
    own: np.ndarray
    """How far from the plane of focus of the frame that foretells it, steps."""
    light: np.ndarray
    """What that frame shows, linear."""
    seen: np.ndarray
    """The frame itself, encoded."""

    def beyond(self, step_px):
        """What the frame shows against what it should.

        Parameters
        ----------
        step_px : float             Blur that one step adds, px.

        Returns
        -------
        (h, w) float32 array        ln of the encoded light over what was foretold.
        """
        # A disc on a disc is nearly the disc that spreads as far as both together.
        more = cv2.sqrt(np.maximum(self.away**2 - self.own**2, 0))
        shown = _out_of_focus(self.light, np.float32(step_px) * more)
        told = cv2.log(np.maximum(shown, DARKEST**GAMMA)) / GAMMA
        return cv2.log(np.maximum(self.seen, DARKEST)) - told

    def step_px(self, planned):
        """What a step blurs in truth: as far as leaves least of the frame's detail unexplained.

        Parameters
        ----------
        planned : float   By the plan, px.

        Returns
        -------
        float             px; within 1.46 times of the plan either way.
        """
        parts = self._most_detailed()
        explained = [-sum(part._left(planned * times) for part in parts) for times in TRIED]
        best = int(np.argmax(explained))
        return planned * float(TRIED[best] * 1.1 ** peak_offset(explained, best))

    def _left(self, step_px):
        return float(np.mean(np.minimum(np.abs(band(self.beyond(step_px), *DETAIL)), MOST_BEYOND)))

    def _most_detailed(self):
        """The parts of the frame in which what is foretold holds most detail."""
        height, width = self.light.shape
        windows = [
            Window(left, top, min(PART_PX, width), min(PART_PX, height))
            for top in range(0, max(height - PART_PX, 0) + 1, PART_PX // 2)
            for left in range(0, max(width - PART_PX, 0) + 1, PART_PX // 2)
        ]
        detail = np.abs(band(cv2.log(self.light), *DETAIL))
        windows.sort(key=lambda window: -float(window.of(detail).mean()))
        return [Foretold(*(window.of(plane) for plane in self)) for window in windows[:PARTS]]


def _laid(picture, similarity, window):
    similarity = np.array(similarity, float)
    similarity[:, 2] -= (window.left, window.top)
    size = (window.width, window.height)
    return cv2.warpAffine(picture, similarity, size, flags=cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)


def _out_of_focus(light, blur):
    """Every place blurred by a disc of its own: a mixture of the two discs nearest in size."""
    least = max(float(blur.min()), LEAST_DISC)
    sizes = least * FINER ** np.arange(np.ceil(np.log(max(float(blur.max()) / least, 1.0)) / np.log(FINER)) + 1)
    sizes = np.concatenate([[0.0], sizes]) if blur.min() < LEAST_DISC else sizes
    which = np.interp(blur, sizes, np.arange(len(sizes))).astype(np.float32)
    shown = np.zeros_like(light)
    for place, size in enumerate(sizes):
        share = np.maximum(1 - np.abs(which - place), 0)
        if share.any():
            shown += share * _by_disc(light, float(size))
    return shown


def _by_disc(light, size):
    if size < LEAST_DISC:
        return light
    if size > MOST_DISC and min(light.shape) > 4 * MOST_DISC:
        half = cv2.resize(light, (light.shape[1] // 2, light.shape[0] // 2), interpolation=cv2.INTER_AREA)
        return cv2.resize(_by_disc(half, size / 2), light.shape[::-1], interpolation=cv2.INTER_CUBIC)
    reach = int(np.ceil(size / 2)) + 1
    y, x = np.mgrid[-reach : reach + 1, -reach : reach + 1]
    disc = np.clip(size / 2 + 0.5 - np.hypot(x, y), 0, 1).astype(np.float32)
    return cv2.filter2D(light, -1, disc / disc.sum(), borderType=cv2.BORDER_REFLECT_101)
