"""A stack of files merged: one pass for where each place is sharp, one for the pictures, each frame unpacked once.

Strip by strip (core/frames/proof/strips): a share of the strips is work for one process, and what comes out of it is
the same whichever process does it and however many there are.
"""

import copy
from concurrent.futures import ThreadPoolExecutor
from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.similarity import chained, enlarged
from just_plane.core.frames.proof.brush import needs_brush
from just_plane.core.frames.proof.by_depth import DepthMerge
from just_plane.core.frames.proof.by_detail import SCALE, DetailMerge, depth_window, levels_of, strip_window
from just_plane.core.frames.proof.focus_map import FocusMap, FocusPass, filled
from just_plane.core.frames.proof.strips import parts, shares, strips
from just_plane.pictures.frames import as_float, read_colour, read_grey

METHODS = ("depth", "pyramid", "windowed")
WINDOW_CIRCLES = {"hand": 3.0}
WINDOW_USUAL = 1.5
"""Circles of confusion around a place of which the depths may win there."""
GAMMA = 2.2
SHARPER_WARP_PX = 8_000_000
"""Frames of fewer pixels are laid by cubic interpolation: it costs little there, and keeps the finest detail."""
TOP = 65535


class Guide(NamedTuple):
    """Depth as merges go by it, at fewer pixels."""

    depth: np.ndarray
    """(h, w) float32, filled, in frames used."""
    times: int
    low: np.ndarray | None
    high: np.ndarray | None
    """(h, w) int16: which frames may win; None where no method asks."""


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
        self.reduction = facts.reduction(report.width_px)
        self.circle_px = facts.circle_px(self.reduction)
        self.used = [frame for frame in report.order if report.frames[frame].used]
        self.size = tuple(round(side) for side in report.size)
        left, top = report.origin
        crop = np.array([[1.0, 0.0, -left], [0.0, 1.0, -top]])
        self._laid = {frame: chained(np.array(report.frames[frame].to_reference), crop) for frame in self.used}

    @property
    def _focus_strips(self):
        width, height = (side // self.reduction for side in self.size)
        margin = -(-(8 * self.circle_px + 8) // 16) * 16
        return strips(height, width, int(margin))

    @property
    def _strips(self):
        return strips(self.size[1], self.size[0])

    def shares(self, workers, *, focus=False):
        """How the work can be divided.

        Parameters
        ----------
        workers : int
        focus : bool    Of :meth:`focus`; else of :meth:`pictures`.

        Returns
        -------
        list of (int, int)
        """
        return shares(len(self._focus_strips if focus else self._strips), workers)

    def rows(self, share):
        """Rows of the pictures that a share of the strips makes.

        Parameters
        ----------
        share : (int, int)

        Returns
        -------
        slice
        """
        mine = self._strips[slice(*share)]
        return slice(mine[0].first, mine[-1].last)

    def slabs(self, frames, shared):
        """How the stack falls into slabs.

        Parameters
        ----------
        frames : int    Of a slab, at least 2.
        shared : int    With the slab before, fewer than that.

        Returns
        -------
        list of list of int   Frames of each, in the order of focus.
        """
        firsts = range(0, max(len(self.used) - shared, 1), frames - shared)
        return [self.used[first : first + frames] for first in firsts]

    def only(self, frames):
        """The merger of some of the frames, laid as all are.

        Parameters
        ----------
        frames : list of int

        Returns
        -------
        Merger
        """
        merger = copy.copy(self)
        merger.used = list(frames)
        return merger

    def focus(self, share=None, progress=None):
        """Where each place is sharp, at reduced size.

        Parameters
        ----------
        share : (int, int) or None    Strips; None: all.
        progress : function or None   Called with (frames done, frames in all, name).

        Returns
        -------
        FocusMap                      Of the rows of those strips.
        """
        mine = self._focus_strips[slice(*share)] if share else self._focus_strips
        passes = [FocusPass(strip.shape, self.circle_px) for strip in mine]
        for frame, grey in self._ahead(self._grey, progress):
            laid = enlarged(self._laid[frame], 1 / self.reduction)
            for strip, one in zip(mine, passes, strict=True):
                seen = _warped(grey, laid, (0, strip.top, strip.width, strip.bottom), cv2.INTER_LINEAR)
                one.add(np.clip(seen * np.float32(self._gain(frame)), 0, 1))
        maps: list = []
        while passes:
            strip, one = mine[len(maps)], passes.pop(0)
            maps.append(FocusMap(*(plane[strip.made].copy() for plane in one.map())))
        return FocusMap(*(np.concatenate(planes) for planes in zip(*maps, strict=True)))

    def depth(self, found):
        """Depth with its plain places filled.

        Parameters
        ----------
        found : FocusMap      Of the whole picture.

        Returns
        -------
        (h, w) float32 array  In frames used.
        """
        return np.clip(filled(found, self.circle_px), 0, len(self.used) - 1).astype(np.float32)

    def brush(self, depth):
        """Where no merge will do, and which method suits: Brush."""
        return needs_brush(depth, self._facts.step_blur_px(self.reduction))

    def pictures(self, methods, depth, into, share=None, progress=None):
        """Proofs by several methods in one pass.

        Parameters
        ----------
        methods : sequence of str        Of METHODS.
        depth : (h, w) float32 array     Of the whole picture, as :meth:`depth` fills it; None: "pyramid" alone.
        into : function                  Method and shape to a function that takes its rows, from the top, a few at a
                                         time: uint16, 0 to 65535, blue-green-red, encoded.
        share : (int, int) or None       Strips; None: all.
        progress : function or None
        """
        mine = self._strips[slice(*share)] if share else self._strips
        guide = self._guide(methods, depth)
        merges = [self._merges(strip, methods, guide) for strip in mine]
        sharp = cv2.INTER_CUBIC if self.size[0] * self.size[1] < SHARPER_WARP_PX else cv2.INTER_LINEAR
        places = {frame: place for place, frame in enumerate(self.used)}
        for frame, picture in self._ahead(self._colour, progress):
            for strip, made in zip(mine, merges, strict=True):
                wanted = np.logical_or.reduce([merge.wanted(places[frame]) for merge in made.values()])
                for part in parts(wanted, strip, self.size[1]):
                    box = (part.left, strip.top + part.top, part.right, strip.top + part.bottom)
                    seen = _whole(_warped(picture, self._laid[frame], box, sharp), self._gain(frame))
                    _take(made, places[frame], seen, part)
            del picture
        shape = (mine[-1].last - mine[0].first, self.size[0], 3)
        for method in methods:
            take = into(method, shape)
            for strip, made in zip(mine, merges, strict=True):
                rows = made.pop(method).picture()[strip.made]
                rows *= np.float32(TOP)
                take(np.rint(rows, out=rows).astype(np.uint16))

    def _guide(self, methods, depth):
        if depth is None:
            return None
        low = high = None
        if "windowed" in methods:
            circles = WINDOW_CIRCLES.get(self._facts.kind, WINDOW_USUAL)
            low, high = depth_window(depth, circles * self.circle_px)
        return Guide(depth, self.reduction, low, high)

    def _merges(self, strip, methods, guide):
        made: dict = {}
        for method in methods:
            if method == "depth":
                made[method] = DepthMerge(enlarged_rows(guide.depth, guide.times, slice(strip.top, strip.bottom)))
            elif method == "pyramid":
                made[method] = DetailMerge(strip.shape)
            else:
                window = strip_window(guide.depth, guide.low, guide.high, guide.times, strip.top, strip.bottom)
                made[method] = DetailMerge(strip.shape, window)
        return made

    def _gain(self, frame):
        ev = self._report.frames[frame].ev
        return 1.0 if ev is None else 2.0 ** (-ev / GAMMA)

    def _grey(self, frame):
        return as_float(read_grey(self._intake.facts[frame], self.reduction))

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
                del picture


def _take(merges, place, picture, part):
    levels = levels_of(picture) if merges.keys() & {"pyramid", "windowed"} else None
    for method, merge in merges.items():
        merge.take(place, picture if method == "depth" else levels, part)


def _warped(picture, similarity, box, how):
    """The part of a laid frame that a box (left, top, right, bottom) of the reference holds."""
    left, top, right, bottom = box
    backward = cv2.invertAffineTransform(similarity)
    backward[:, 2] += backward[:, 0] * left + backward[:, 1] * top
    return cv2.warpAffine(
        picture,
        backward,
        (right - left, bottom - top),
        flags=how | cv2.WARP_INVERSE_MAP,
        borderMode=cv2.BORDER_REPLICATE,
    )


def enlarged_rows(values, times, rows):
    """Some rows of a map at full size.

    Parameters
    ----------
    values : (h, w) array
    times : int             More pixels each way.
    rows : slice            Of the full size.

    Returns
    -------
    (H, W) array            The same as those rows of the whole map enlarged.
    """
    first, last = max(rows.start // times - 2, 0), -(-rows.stop // times) + 2
    part = values[first:last]
    size = (part.shape[1] * times, part.shape[0] * times)
    full = cv2.resize(part, size, interpolation=cv2.INTER_LINEAR)
    return full[rows.start - first * times :][: rows.stop - rows.start]


def _whole(picture, gain):
    """Encoded values as whole numbers to SCALE, at the reference's light."""
    if picture.dtype == np.uint8:
        table = np.clip(np.rint(np.arange(256) * (gain * SCALE / 255)), 0, SCALE).astype(np.int16)
        return cv2.LUT(picture, table)
    scaled = picture.astype(np.float32) * np.float32(gain * SCALE / TOP)
    return np.clip(np.rint(scaled), 0, SCALE).astype(np.int16)
