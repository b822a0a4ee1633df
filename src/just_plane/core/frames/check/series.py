"""Frames followed one after the other: each measured, laid on one before it, and let go.

What is kept grows by a few hundred numbers a tile a frame; pictures are held of the last frames only.
"""

from typing import NamedTuple

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


class Glance(NamedTuple):
    """A frame prepared to be laid on others: pictures, so only of a few frames at a time."""

    number: int
    ready: Ready
    halves: tuple


class Pair(NamedTuple):
    """How a frame lies on another; a matter of these two alone."""

    laid: Laid
    light_ev: float
    moved: object
    """Moved or None."""


def the_other_way(followed, numbers, before):
    """A pair that was laid in the other direction.

    Parameters
    ----------
    followed : Followed   The one of the two that was laid on the other.
    numbers : Measured    Of the other.
    before : int          Number of the one.

    Returns
    -------
    Followed              Of the other.
    """
    laid = Laid(inverse(followed.laid.similarity), followed.laid.likeness)
    return followed._replace(measured=numbers, before=before, laid=laid, light_ev=-followed.light_ev)


def glance(number, grey, circle_px):
    """Prepare a frame.

    Parameters
    ----------
    number : int
    grey : (H, W) float32 array   0 to 1, encoded.
    circle_px : float             Circle of confusion in it, px.

    Returns
    -------
    Glance
    """
    return Glance(number, ready(grey, circle_px), half_band(grey, circle_px))


def paired(before, this, numbers_before, numbers, grid, laid=None, *, coarsely=False):
    """Lay a frame on one before it.

    Parameters
    ----------
    before, this : Glance
    numbers_before, numbers : Measured   Of the same frames.
    grid : Grid
    laid : Laid or None                  Where that is known already.
    coarsely : bool                      They may share nothing sharp.

    Returns
    -------
    Pair                                 Without a similarity where they do not fit each other.
    """
    laid = laid or lay(before.ready, this.ready, coarsely=coarsely)
    if laid.similarity is None:
        return Pair(laid, float("nan"), None)
    light = light_between(numbers_before, numbers, grid, laid.similarity)
    return Pair(laid, light, moved_part(before.halves, this.halves, laid.similarity, times_fewer(grid.width)))


class Follower:
    """Takes frames in, in order; ``frames`` holds what is known of each."""

    def __init__(self, shape, facts, reduction):
        height, width = shape
        self.facts = facts
        self.reduction = reduction
        self.circle_px = facts.circle_px(reduction)
        self.grid = grid_for(width, height, self.circle_px, facts.step_blur_px(reduction))
        self.frames = {}
        self.shape = shape
        self._aside = set()
        self._last = {}
        self._glances = {}

    def add(self, index, grey, *, coarsely=False):
        """Take one frame in.

        Parameters
        ----------
        index : int                   Its number.
        grey : (H, W) float32 array   0 to 1, encoded.
        coarsely : bool               It may share nothing sharp with the frames before it, which it follows for sure.

        Returns
        -------
        Followed
        """
        numbers = measured(grey, self.grid)
        self._glances[index] = glance(index, grey, self.circle_px)
        return self._taken(index, numbers, lambda before: self._paired(before, index, numbers, coarsely))

    def add_beside(self, index, grey, before, grey_before):
        """Take one frame in that does not follow the last, but belongs beside an earlier one.

        Parameters
        ----------
        index : int                         Its number.
        grey : (H, W) float32 array         0 to 1, encoded.
        before : int                        Number of the earlier frame.
        grey_before : (H, W) float32 array  Its picture.

        Returns
        -------
        Followed                            A run of its own where it does not fit.
        """
        run = len(self._last) + len(self.frames)  # of no other frame: nothing that comes is laid on it
        self.frames[index] = Followed(measured(grey, self.grid), run, None, None, float("nan"), None)
        self.lay_on(before, grey_before, index, grey)
        return self.frames[index]

    def join(self, index, numbers, pairs, load):
        """Take one frame in that was measured elsewhere.

        Parameters
        ----------
        index : int        Its number.
        numbers : Measured
        pairs : dict       Number of a frame before it to Pair, as far as known.
        load : function    Number of a frame to its (H, W) float32 picture, for pairs that are not known.

        Returns
        -------
        Followed           As if it had been added here.
        """

        def pair(before):
            if before in pairs:
                return pairs[before]
            for number in (before, index):
                if number not in self._glances:
                    self._glances[number] = glance(number, load(number), self.circle_px)
            return self._paired(before, index, numbers)

        return self._taken(index, numbers, pair)

    def _paired(self, before, this, numbers, coarsely=False):
        known = self.frames[before].measured
        return paired(self._glances[before], self._glances[this], known, numbers, self.grid, coarsely=coarsely)

    def _taken(self, index, numbers, pair_with):
        for run in sorted(self._last, reverse=True)[:RECENT_RUNS]:
            before = self._last[run]
            pair = pair_with(before)
            if pair.laid.similarity is not None:
                followed = Followed(numbers, run, before, pair.laid, pair.light_ev, pair.moved)
                break
        else:
            run = len(self._last)
            followed = Followed(numbers, run, None, None, float("nan"), None)
        self._last[run] = index
        self.frames[index] = followed
        self._glances = {number: kept for number, kept in self._glances.items() if number in self._last.values()}
        return followed

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
        followed = self._laid_on(before, grey_before, this, grey_this)
        if followed.laid.similarity is None:
            known = Laid(self.between(before, this), followed.laid.likeness)
            followed = self._laid_on(before, grey_before, this, grey_this, known)
        return followed

    def laid(self, before, grey_before, this, grey_this):
        """How a frame lies on one that it does not follow; nothing is kept of it.

        Parameters
        ----------
        before, this : int                              Their numbers.
        grey_before, grey_this : (H, W) float32 array   Their pictures.

        Returns
        -------
        Laid                                            Without a similarity where it does not fit.
        """
        return self._laid_on(before, grey_before, this, grey_this).laid

    def lay_on(self, before, grey_before, this, grey_this, *, with_its_run=False, coarsely=False):
        """Lay a frame on one that it does not follow; where it fits, it belongs to the run of that one.

        Parameters
        ----------
        before, this : int                              Their numbers.
        grey_before, grey_this : (H, W) float32 array   Their pictures.
        with_its_run : bool                             All frames of the run that it was in come with it.
        coarsely : bool                                 They may share nothing sharp.

        Returns
        -------
        bool                                            Whether it fits.
        """
        followed = self._laid_on(before, grey_before, this, grey_this, coarsely=coarsely)
        if followed.laid.similarity is None:
            return False
        if with_its_run:
            self._bring_run(this, followed.run)
            self._turn_chain(this, followed)
        else:
            self.frames[this] = followed
        return True

    def _bring_run(self, member, run):
        """Make all frames of a frame's run frames of another."""
        own = self.frames[member].run
        self.frames |= {frame: known._replace(run=run) for frame, known in self.frames.items() if known.run == own}

    def _turn_chain(self, this, followed):
        """What a frame was laid on, and that on, is laid on it now."""
        while self.frames[this].before is not None:
            known, self.frames[this] = self.frames[this], followed
            followed = the_other_way(known, self.frames[known.before].measured, this)
            this = known.before
        self.frames[this] = followed

    def _laid_on(self, before, grey_before, this, grey_this, laid=None, *, coarsely=False):
        """A frame on another of whatever run, as one of that run."""
        first, second = (glance(n, grey, self.circle_px) for n, grey in ((before, grey_before), (this, grey_this)))
        other, known = self.frames[before], self.frames[this].measured
        pair = paired(first, second, other.measured, known, self.grid, laid, coarsely=coarsely)
        return Followed(known, other.run, before, pair.laid, pair.light_ev, pair.moved)

    def set_aside(self, frames):
        """Do without frames: they are of no run any more.

        Parameters
        ----------
        frames : iterable of int
        """
        self._aside |= {*frames}

    def runs(self):
        """Frames that lie on each other.

        Returns
        -------
        list of list of int   In the order they came, each and all but those set aside.
        """
        runs: dict = {}
        for index, followed in sorted(self.frames.items()):
            if index not in self._aside:
                runs.setdefault(followed.run, []).append(index)
        return list(runs.values())

    def main_run(self):
        """The run that holds most frames.

        Returns
        -------
        list of int   Its frames, in the order they came.
        """
        return max(self.runs(), key=len, default=[])

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
