"""A stack of files merged: one pass for where each place is sharp, one for the pictures, each frame unpacked once."""

from concurrent.futures import ThreadPoolExecutor

import cv2
import numpy as np

from just_plane.core.frames.check.similarity import chained, enlarged
from just_plane.core.frames.proof.brush import needs_brush
from just_plane.core.frames.proof.by_depth import DepthMerge
from just_plane.core.frames.proof.by_detail import SCALE, DetailMerge, depth_window
from just_plane.core.frames.proof.focus_map import FocusPass, filled
from just_plane.pictures.frames import as_float, read_colour, read_grey

METHODS = ("depth", "pyramid", "windowed")
WINDOW_CIRCLES = {"hand": 3.0}
WINDOW_USUAL = 1.5
"""Circles of confusion around a place of which the depths may win there."""
GAMMA = 2.2
SHARPER_WARP_PX = 8_000_000
"""Frames of fewer pixels are laid by cubic interpolation: it costs little there, and keeps the finest detail."""


class Merger:
    """Merges the frames of a checked stack.

    Parameters
    ----------
    intake : Intake
    report : CheckReport    Says which frames are used, how they lie, and their light.
    facts : StackFacts
    """

    def __init__(self, intake, report, facts):
        self._intake, self._report, self._facts = intake, report, facts
        self._reduction = facts.reduction(report.width_px)
        self._circle_px = facts.circle_px(self._reduction)
        self.used = [frame for frame in report.order if report.frames[frame].used]
        left, top = report.origin
        crop = np.array([[1.0, 0.0, -left], [0.0, 1.0, -top]])
        self._laid = {frame: chained(np.array(report.frames[frame].to_reference), crop) for frame in self.used}

    def focus(self, progress=None):
        """Where each place is sharp, at reduced size.

        Parameters
        ----------
        progress : function or None   Called with (frames done, frames in all, name).

        Returns
        -------
        (FocusMap, (h, w) float32 array)   As found; filled, in frames used.
        """
        width, height = (side // self._reduction for side in self._report.size)
        passed = FocusPass((height, width), self._circle_px)
        for frame, grey in self._ahead(self._grey, progress):
            laid = cv2.warpAffine(
                grey,
                enlarged(self._laid[frame], 1 / self._reduction),
                (width, height),
                flags=cv2.INTER_LINEAR,
                borderMode=cv2.BORDER_REPLICATE,
            )
            passed.add(np.clip(laid * np.float32(self._gain(frame)), 0, 1))
        found = passed.map()
        return found, filled(found, self._circle_px)

    def brush(self, depth):
        """Where no merge will do, and which method suits: Brush."""
        return needs_brush(depth, self._facts.step_blur_px(self._reduction))

    def pictures(self, methods, depth, progress=None):
        """Proofs by several methods in one pass.

        Parameters
        ----------
        methods : sequence of str        Of METHODS.
        depth : (h, w) float32 array     As :meth:`focus` fills it.
        progress : function or None

        Returns
        -------
        dict   Method to (H, W, 3) float32 picture, 0 to 1, blue-green-red, encoded.
        """
        width, height = self._report.size
        full = cv2.resize(depth, (width, height), interpolation=cv2.INTER_LINEAR) if methods != ("pyramid",) else None
        merges: dict = {}
        for method in methods:
            if method == "depth":
                merges[method] = DepthMerge(full)
            elif method == "pyramid":
                merges[method] = DetailMerge((height, width))
            else:
                circles = WINDOW_CIRCLES.get(self._facts.kind, WINDOW_USUAL)
                window = depth_window(full, circles * self._circle_px * self._reduction)
                merges[method] = DetailMerge((height, width), window, full)
        sharp = cv2.INTER_CUBIC if width * height < SHARPER_WARP_PX else cv2.INTER_LINEAR
        for frame, picture in self._ahead(self._colour, progress):
            laid = cv2.warpAffine(
                picture, self._laid[frame], (width, height), flags=sharp, borderMode=cv2.BORDER_REPLICATE
            )
            whole = _whole(laid, self._gain(frame))
            for merge in merges.values():
                merge.add(whole)
        return {method: merge.picture() for method, merge in merges.items()}

    def _gain(self, frame):
        ev = self._report.frames[frame].ev
        return 1.0 if ev is None else 2.0 ** (-ev / GAMMA)

    def _grey(self, frame):
        return as_float(read_grey(self._intake.facts[frame], self._reduction))

    def _colour(self, frame):
        return read_colour(self._intake.facts[frame])

    def _ahead(self, read, progress):
        """Frames one after the other, the next one unpacked while the last is worked on."""
        with ThreadPoolExecutor(1) as ahead:
            coming = ahead.submit(read, self.used[0])
            for place, frame in enumerate(self.used):
                picture = coming.result()
                if place + 1 < len(self.used):
                    coming = ahead.submit(read, self.used[place + 1])
                if progress:
                    progress(place, len(self.used), self._intake.names[frame])
                yield frame, picture


def _whole(picture, gain):
    """Encoded values as whole numbers to SCALE, at the reference's light."""
    if picture.dtype == np.uint8:
        table = np.clip(np.rint(np.arange(256) * (gain * SCALE / 255)), 0, SCALE).astype(np.int16)
        return cv2.LUT(picture, table)
    top = 65535
    scaled = picture.astype(np.float32) * np.float32(gain * SCALE / top)
    return np.clip(np.rint(scaled), 0, SCALE).astype(np.int16)
