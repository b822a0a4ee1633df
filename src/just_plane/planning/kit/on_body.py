"""The rows of a kit on a body, assembled once for every search: they do not depend on what is looked for."""

import math
from bisect import bisect_left
from dataclasses import replace
from functools import cached_property, lru_cache, partial
from typing import NamedTuple

import numpy as np

from just_plane.contract.shot import FramingClosest
from just_plane.core.errors import OpticsError
from just_plane.core.imaging import Imaging
from just_plane.core.kept import Kept
from just_plane.core.pieces import Tube
from just_plane.core.reach import share_of_throw, sizes_over_throw
from just_plane.planning.kit.bounds import outlook
from just_plane.planning.kit.combinations import groups
from just_plane.planning.kit.extensions import BETWEEN, OUT, SHUT, Gaps
from just_plane.planning.rig.chain import arrange
from just_plane.planning.rig.kinds import LENS_KINDS
from just_plane.planning.rig.objectives import objective_in, room
from just_plane.planning.rig.outline import front_to_sensor
from just_plane.planning.rig.rigging import RigAsked, assemble
from just_plane.planning.words.findings import RefusedError
from just_plane.planning.words.numbers import Wording

KITS_KEPT, GROUPS_KEPT = 2, 1500
"""More than one search tries; sizes of their rows over the throw are some 10 MB."""


class OverThrow(NamedTuple):
    """Rows of a group that give a picture, shortest first."""

    gaps: Gaps
    sizes: np.ndarray
    """(N, samples) magnifications over the throw of the ring, infinity first."""


class Nearest(NamedTuple):
    """Rows of a group, shortest first, each set as near to a size as it comes."""

    indices: np.ndarray
    """Of the extension: (N,)."""
    lengths: np.ndarray
    """(N, 1) mm."""
    shares: np.ndarray
    """Of the throw of the ring, 0 infinity: (N,)."""
    reached: np.ndarray
    """Magnifications: (N,)."""


class OnBody:
    """A group of rows on a body, assembled; what does not depend on what is looked for is worked out once.

    Parameters
    ----------
    body : contract Body
    group : Group
    """

    def __init__(self, body, group):
        self.group = group
        self.extensions = group.extensions
        self.objective = objective_in((*group.front, group.lens))
        asked = RigAsked(body, None, group.row(0), FramingClosest(by="closest"))
        try:
            row = arrange(asked.rig)
            self.lens, self.rig = assemble(asked, row, Wording())
        except RefusedError:
            # No such row can be.
            self.lens = self.rig = None
            return
        # Where among the rig's elements the extension stands.
        at = sum(placed.gear.kind in ("close_up", *LENS_KINDS) for placed in group.front) + 1 + len(group.before)
        after = at + len(group.extensions.pieces(0))
        self._around = self.rig.elements[:at], self.rig.elements[after:]
        self._fixed = front_to_sensor(body, row, self.lens, self.rig) - group.extensions.length(0)

    def with_extension(self, lengths):
        """The rigs with the gap so long ((N, 1) mm): one Rig that stands for all."""
        ahead, behind = self._around
        return replace(self.rig, elements=(*ahead, Tube(lengths), *behind))

    def fronts(self, lengths, shares):
        """Sensor to the front of the lens, mm, with the gap so long and the ring at such a share of its throw."""
        return self._fixed + lengths + self.lens.growth * shares

    def rooms(self, imaging, fronts):
        """Working distances, mm, of an Imaging and of where the front of the lens then is, mm from the sensor."""
        if self.objective is None:
            return imaging.subject_to_sensor - fronts
        return room(self.objective, imaging.subject_to_first_lens)

    def nearest(self, wanted):
        """Every row that gives a picture set as near to a size as it comes, shortest first: Nearest.

        Tubes are turned to it by the ring; bellows are drawn to it as far as they go, and the ring does the rest.
        """
        draw, tubes = self._draw_for(wanted), len(self.extensions.lengths)
        # Bellows may be drawn between their ends; where they are not, the ring goes on at one of them.
        draws = self.extensions.draws.tolist()
        ends = [OUT if draw >= out else SHUT if draw <= shut else BETWEEN for shut, out in draws]
        drawn = np.array([tubes + place for place, end in enumerate(ends) if end == BETWEEN], dtype=int)
        parts = [(drawn, *(np.full(len(drawn), value) for value in (draw, 0.0, wanted)))]
        over = self._at_ends
        set_to = np.array([BETWEEN] * tubes + ends)
        if over is not None and (used := np.flatnonzero(set_to[over.gaps.indices] == over.gaps.ends)).size:
            at = over.gaps.indices[used], over.gaps.lengths[used, 0]
            parts.append((*at, *share_of_throw(over.sizes[used], wanted)))
        indices, *columns = (np.concatenate(column) for column in zip(*parts, strict=True))
        order = np.argsort(columns[0], kind="stable")
        lengths, shares, reached = (column[order] for column in columns)
        return Nearest(indices[order], lengths[:, None], shares, reached)

    @cached_property
    def _at_ends(self):
        return self._over_throw(self.extensions.at_their_ends)

    def _draw_for(self, wanted):
        """The draw at which a size is reached with the ring at its far end, where it grows evenly with the draw, mm."""
        if self._size_by_draw is None:
            return math.inf
        longest, most, less = self._size_by_draw
        return longest - (most - wanted) / (most - less) * 0.1 * longest

    @cached_property
    def _size_by_draw(self):
        """The longest draw, and sizes at it and at nine tenths of it; None where there is no picture at both."""
        if self.rig is None or not self.extensions.bellows:
            return None
        longest = float(self.extensions.draws.max())
        try:
            far = self.with_extension(np.array([[longest], [longest * 0.9]])).focused(0.0).magnification()
        except OpticsError:
            return None
        return longest, *(float(value) for value in np.ravel(far))

    @cached_property
    def for_ends(self):
        """Tubes, and bellows at several draws, where an end is looked for: OverThrow, or None."""
        return self._over_throw(self.extensions.at_many_draws)

    @cached_property
    def rooms_for_ends(self):
        """Working distances of those over the throw: (N, samples) mm."""
        lengths, sizes = self.for_ends.gaps.lengths, self.for_ends.sizes
        rig = self.with_extension(lengths)
        imaging = rig.focused(rig.ring(sizes.shape[1])[None, :]).imaging()
        throw = Imaging._make(np.broadcast_to(each, sizes.shape) for each in imaging)
        return self.rooms(throw, self.fronts(lengths, np.linspace(0.0, 1.0, sizes.shape[1])[None, :]))

    def _over_throw(self, gaps):
        """Those of some gaps that give a picture: OverThrow; None where none does."""
        if self.rig is None:
            return None
        try:
            return OverThrow(gaps, self._sizes(gaps.lengths))
        except OpticsError:
            # Too little extension gives no picture; more of it does.
            alone = gaps.lengths[:, 0].tolist()
            first = bisect_left(alone, True, key=lambda length: _has_image(self.with_extension(length)))
        gaps = Gaps(*(column[first:] for column in gaps))
        try:
            return OverThrow(gaps, self._sizes(gaps.lengths)) if len(gaps.lengths) else None
        except OpticsError:
            return None

    def _sizes(self, lengths):
        return sizes_over_throw(self.with_extension(lengths), len(lengths))


def _has_image(rig):
    try:
        rig.focused(0.0).magnification()
    except OpticsError:
        return False
    return True


class KitOnBody:
    """The rows of a list of gear on a body, each group assembled when it is first looked at, and the last ones kept.

    Parameters
    ----------
    body : contract Body
    gear : list of gear
    """

    def __init__(self, body, gear):
        self.groups = groups(gear)
        self.outlook = outlook(self.groups)
        self._assembled = lru_cache(GROUPS_KEPT)(partial(OnBody, body))

    def assembled(self, group):
        """One of ``groups`` on the body: OnBody, the same one as long as it is kept."""
        return self._assembled(group)


_kept = Kept(KitOnBody, KITS_KEPT)


def rows_on(body, gear):
    """Every group of rows of a list of gear on a body.

    Parameters
    ----------
    body : contract Body
    gear : list of gear

    Returns
    -------
    KitOnBody                The same one for the same body and gear.
    """
    return _kept(body, gear)
