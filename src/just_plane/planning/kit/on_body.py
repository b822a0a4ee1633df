"""The rows of a kit on a body, assembled once for every search: they do not depend on what is looked for."""

import math
from bisect import bisect_left
from dataclasses import dataclass, replace
from functools import cached_property
from typing import NamedTuple

import numpy as np

from just_plane.contract.shot import FramingClosest
from just_plane.core.errors import OpticsError
from just_plane.core.imaging import Imaging
from just_plane.core.kept import Kept
from just_plane.core.pieces import Tube
from just_plane.core.reach import share_of_throw, sizes_over_throw
from just_plane.planning.kit.bounds import SizeBounds
from just_plane.planning.kit.combinations import Group, groups
from just_plane.planning.rig.chain import arrange
from just_plane.planning.rig.kinds import LENS_KINDS
from just_plane.planning.rig.outline import front_to_sensor
from just_plane.planning.rig.rigging import RigAsked, assemble
from just_plane.planning.words.findings import RefusedError
from just_plane.planning.words.numbers import Wording

DRAWS = 9
"""Of bellows, tried where the closest or the widest is looked for."""
KITS_KEPT = 2


class OverThrow(NamedTuple):
    """Rows of a group that give a picture, shortest first."""

    indices: list
    """Of the group's extensions."""
    lengths: np.ndarray
    """(N, 1) mm."""
    sizes: np.ndarray
    """(N, samples) magnifications over the throw of the ring, infinity first."""


class Nearest(NamedTuple):
    """Rows of a group, shortest first, each set as near to a size as it comes."""

    indices: list
    lengths: np.ndarray
    """(N, 1) mm."""
    shares: np.ndarray
    """Of the throw of the ring, 0 infinity: (N,)."""
    reached: np.ndarray
    """Magnifications: (N,)."""


@dataclass(frozen=True)
class OnBody:
    """A group of rows on a body. What is asked of it is worked out once, when it is first asked."""

    body: object
    group: Group
    lenses: SizeBounds
    """Shared by the groups of a kit."""

    @property
    def pieces(self):
        """Pieces of every row, the extension left out."""
        return self.group.pieces

    @property
    def extensions(self):
        """Ways to hold the gap open."""
        return self.group.extensions

    @cached_property
    def bounds(self):
        """Smallest and largest magnification to expect: (float, float)."""
        return self.lenses.of(self.group)

    @cached_property
    def _assembled(self):
        """The row, its lens and its rig; None when no such row can be."""
        asked = RigAsked(self.body, None, self.group.row(0), FramingClosest(by="closest"))
        try:
            row = arrange(asked.rig)
            return row, *assemble(asked, row, Wording())
        except RefusedError:
            return None

    @property
    def lens(self):
        """LensNumbers of a group that can be assembled."""
        return self._assembled[1]

    @property
    def rig(self):
        """The core's Rig of it, with the first extension."""
        return self._assembled[2]

    def with_extension(self, lengths):
        """The rigs with the gap so long ((N, 1) mm): one Rig that stands for all."""
        at, elements = self._at, self.rig.elements
        after = at + len(self.extensions.pieces(0))
        return replace(self.rig, elements=(*elements[:at], Tube(lengths), *elements[after:]))

    def fronts(self, lengths, shares):
        """Sensor to the front of the lens, mm, with the gap so long and the ring at such a share of its throw."""
        return self._fixed + lengths + self.lens.growth * shares

    @cached_property
    def _fixed(self):
        row, lens, rig = self._assembled
        return front_to_sensor(self.body, row, lens, rig) - self.extensions.length(0)

    @cached_property
    def _at(self):
        """Where among the rig's elements the extension stands."""
        front = sum(placed.gear.kind in ("close_up", *LENS_KINDS) for placed in self.group.front)
        return front + 1 + len(self.group.before)

    def nearest(self, wanted):
        """Every row that gives a picture set as near to a size as it comes, shortest first: Nearest.

        Tubes are turned to it by the ring; bellows are drawn to it as far as they go, and the ring does the rest.
        """
        set_so = self._tubes_at(wanted) + [
            bellows
            for place in range(len(self.extensions.bellows))
            if (bellows := self._bellows_at(place, wanted)) is not None
        ]
        set_so.sort(key=lambda row: row[1])
        indices, *columns = zip(*set_so, strict=True) if set_so else ((), (), (), ())
        lengths, shares, reached = (np.array(column, dtype=float) for column in columns)
        return Nearest(list(indices), lengths[:, None], shares, reached)

    def _tubes_at(self, wanted):
        if self._by_tubes is None:
            return []
        indices, lengths, sizes = self._by_tubes
        shares, reached = share_of_throw(sizes, wanted)
        return list(zip(indices, lengths[:, 0].tolist(), shares.tolist(), reached.tolist(), strict=True))

    def _bellows_at(self, place, wanted):
        index = len(self.extensions.lengths) + place
        gear = self.extensions.bellows[place][0].gear
        draw = self._draw_for(wanted)
        if gear.shortest_mm < draw < gear.longest_mm:
            return index, draw, 0.0, wanted
        end = self._bellows_ends[place][int(draw >= gear.longest_mm)]
        if end is None:
            return None
        shares, reached = share_of_throw(end.sizes, wanted)
        return index, float(end.lengths[0, 0]), float(shares[0]), float(reached[0])

    def _draw_for(self, wanted):
        """The draw at which a size is reached with the ring at its far end, where it grows evenly with the draw, mm."""
        if self._size_by_draw is None:
            return math.inf
        longest, most, less = self._size_by_draw
        return longest - (most - wanted) / (most - less) * 0.1 * longest

    @cached_property
    def _size_by_draw(self):
        """The longest draw, and sizes at it and at nine tenths of it; None where there is no picture at both."""
        longest = max(piece.gear.longest_mm for (piece,) in self.extensions.bellows)
        try:
            far = self.with_extension(np.array([[longest], [longest * 0.9]])).focused(0.0).magnification()
        except OpticsError:
            return None
        return longest, *(float(value) for value in np.ravel(far))

    @cached_property
    def _bellows_ends(self):
        """Of each bellows shut and drawn out: (OverThrow or None, OverThrow or None)."""
        return [
            tuple(self._over_throw([0], np.array([[draw]])) for draw in (piece.gear.shortest_mm, piece.gear.longest_mm))
            for (piece,) in self.extensions.bellows
        ]

    @cached_property
    def _by_tubes(self):
        lengths = list(self.extensions.lengths)
        return self._over_throw(*_sorted(list(range(len(lengths))), lengths)) if lengths else None

    @cached_property
    def for_ends(self):
        """Tubes, and bellows at several draws, where an end is looked for: OverThrow, or None."""
        extensions = self.extensions
        lengths, indices = list(extensions.lengths), list(range(len(extensions.lengths)))
        for place, (piece,) in enumerate(extensions.bellows):
            lengths += np.linspace(piece.gear.shortest_mm, piece.gear.longest_mm, DRAWS).tolist()
            indices += [len(extensions.lengths) + place] * DRAWS
        return self._over_throw(*_sorted(indices, lengths))

    @cached_property
    def rooms_for_ends(self):
        """Working distances of those over the throw: (N, samples) mm."""
        _, lengths, sizes = self.for_ends
        rig = self.with_extension(lengths)
        imaging = rig.focused(rig.ring(sizes.shape[1])[None, :]).imaging()
        throw = Imaging._make(np.broadcast_to(each, sizes.shape) for each in imaging)
        return throw.subject_to_sensor - self.fronts(lengths, np.linspace(0.0, 1.0, sizes.shape[1])[None, :])

    def _over_throw(self, indices, lengths):
        """Those of some lengths, shortest first, that give a picture: OverThrow; None where none does."""
        if self._assembled is None:
            return None
        try:
            return OverThrow(indices, lengths, sizes_over_throw(self.with_extension(lengths), len(lengths)))
        except OpticsError:
            # Too little extension gives no picture; more of it does.
            alone = [float(length) for length in lengths[:, 0]]
            first = bisect_left(alone, True, key=lambda length: _has_image(self.with_extension(length)))
        if first == len(lengths):
            return None
        lengths = lengths[first:]
        try:
            return OverThrow(indices[first:], lengths, sizes_over_throw(self.with_extension(lengths), len(lengths)))
        except OpticsError:
            return None


def _sorted(indices, lengths):
    """Both by length, shortest first: (list, (N, 1) array)."""
    order = sorted(range(len(lengths)), key=lengths.__getitem__)
    return [indices[each] for each in order], np.array([lengths[each] for each in order])[:, None]


def _has_image(rig):
    try:
        rig.focused(0.0).magnification()
    except OpticsError:
        return False
    return True


def _rows(body, gear):
    lenses = SizeBounds()
    return tuple(OnBody(body, group, lenses) for group in groups(gear))


rows_on = Kept(_rows, KITS_KEPT)
"""Every group of rows of a list of gear on a body (contract Body, list of gear): tuple of OnBody."""
