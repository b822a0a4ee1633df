"""Frames followed one after the other: each measured, laid on one before it, and let go.

What is kept grows by a few hundred numbers a tile a frame; pictures are held of the last frames only.
"""

from typing import NamedTuple

from just_plane.core.frames.check.dust import Watch
from just_plane.core.frames.check.moving import half_band, moved_part, times_fewer
from just_plane.core.frames.check.register import Laid, Ready, lay, ready
from just_plane.core.frames.check.similarity import IDENTITY, chained, inverse
from just_plane.core.frames.check.tiles import Measured, grid_for, light_between, measured

RECENT_RUNS = 3
"""A frame that does not lie on the last is tried on the last of so many runs before it gives up."""


class Followed(NamedTuple):
    """One frame, and how it lies on one before it."""

    measured: Measured
    run: int
    """Frames that lie on each other are a run."""
    before: int | None
    """The frame of the run that it was laid on; None for the first of a run."""
    laid: Laid | None
    light_ev: float
    """Against the frame it was laid on; NaN where that cannot be told."""
    moved: object
    """Moved or None."""


class _Held(NamedTuple):
    number: int
    ready: Ready
    halves: tuple


class Follower:
    """Takes frames in, in order; ``frames`` holds what is known of each."""

    def __init__(self, shape, facts, reduction):
        height, width = shape
        self.facts = facts
        self.reduction = reduction
        self.circle_px = facts.circle_px(reduction)
        self.grid = grid_for(width, height, self.circle_px, facts.step_blur_px(reduction))
        self.frames = {}
        self.watch = Watch(shape)
        self._last = {}

    def add(self, index, grey):
        """Take one frame in.

        Parameters
        ----------
        index : int                   Its number.
        grey : (H, W) float32 array   0 to 1, encoded.

        Returns
        -------
        Followed
        """
        numbers = measured(grey, self.grid)
        held = _Held(index, ready(grey, self.circle_px), half_band(grey, self.circle_px))
        self.watch.add(grey, numbers)
        for run in sorted(self._last, reverse=True)[:RECENT_RUNS]:
            before = self._last[run]
            laid = lay(before.ready, held.ready)
            if laid.similarity is not None:
                followed = self._followed(numbers, run, before, held, laid)
                break
        else:
            run = len(self._last)
            followed = Followed(numbers, run, None, None, float("nan"), None)
        self._last[run] = held
        self.frames[index] = followed
        return followed

    def _followed(self, numbers, run, before, held, laid):
        light = light_between(self.frames[before.number].measured, numbers, self.grid, laid.similarity)
        part = moved_part(before.halves, held.halves, laid.similarity, times_fewer(self.grid.width))
        return Followed(numbers, run, before.number, laid, light, part)

    def relaid(self, before, grey_before, this, grey_this):
        """Lay two frames on each other again that are neighbours after all.

        Parameters
        ----------
        before, this : int                              Their numbers.
        grey_before, grey_this : (H, W) float32 array   Their pictures.

        Returns
        -------
        Followed                                        Of ``this``.
        """
        first = _Held(before, ready(grey_before, self.circle_px), half_band(grey_before, self.circle_px))
        second = _Held(this, ready(grey_this, self.circle_px), half_band(grey_this, self.circle_px))
        laid = lay(first.ready, second.ready)
        if laid.similarity is None:
            laid = Laid(self.between(before, this), laid.likeness)
        known = self.frames[this]
        return self._followed(known.measured, known.run, first, second, laid)

    def main_run(self):
        """The run that holds most frames.

        Returns
        -------
        list of int   Its frames, in the order they came.
        """
        runs: dict = {}
        for index, followed in sorted(self.frames.items()):
            runs.setdefault(followed.run, []).append(index)
        return max(runs.values(), key=len) if runs else []

    def from_first(self, index):
        """Where a frame lies on the first of its run.

        Parameters
        ----------
        index : int

        Returns
        -------
        (2, 3) array   Places of the first frame of the run to places of this.
        """
        steps = []
        while self.frames[index].before is not None:
            steps.append(self.frames[index].laid.similarity)
            index = self.frames[index].before
        total = IDENTITY
        for step in reversed(steps):
            total = chained(total, step)
        return total

    def between(self, first, second):
        """Where one frame lies on another of its run.

        Parameters
        ----------
        first, second : int

        Returns
        -------
        (2, 3) array   Places of the first to places of the second.
        """
        return chained(inverse(self.from_first(first)), self.from_first(second))
