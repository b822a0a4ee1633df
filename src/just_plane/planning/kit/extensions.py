"""Ways to hold a gap open between lens and camera: sets of tubes and bellows, and how long each makes it."""

from dataclasses import dataclass
from functools import cached_property
from typing import Any, NamedTuple

import numpy as np

from just_plane.contract.shot import Placed

BETWEEN, SHUT, OUT = -1, 0, 1
"""To which end bellows are drawn; tubes have none."""
DRAWS = 9
"""Of bellows, tried where the closest or the widest is looked for."""


class Gaps(NamedTuple):
    """Gaps that extensions hold open, shortest first."""

    indices: np.ndarray
    """Of the extension: (N,)."""
    ends: np.ndarray
    """To which bellows are drawn: (N,)."""
    lengths: np.ndarray
    """(N, 1) mm."""


@dataclass(frozen=True)
class Extensions:
    """Ways to hold a gap open, shared by many groups: sets of tubes, shortest first, then bellows."""

    tubes: tuple[tuple[Placed, ...], ...]
    lengths: tuple[float, ...]
    """Of the sets of tubes, mm."""
    bellows: tuple[tuple[Placed, ...], ...] = ()

    def __len__(self):
        return len(self.tubes) + len(self.bellows)

    def pieces(self, index):
        """The pieces of one of them."""
        return self.tubes[index] if index < len(self.tubes) else self.bellows[index - len(self.tubes)]

    @cached_property
    def counts(self):
        """How many pieces each is made of: (N,) array."""
        return np.array([len(pieces) for pieces in (*self.tubes, *self.bellows)], dtype=int)

    def length(self, index):
        """How far one of them holds the gap open, mm; bellows at their shortest."""
        if index < len(self.tubes):
            return self.lengths[index]
        return _gear(self.bellows[index - len(self.tubes)][0]).shortest_mm

    @cached_property
    def span(self):
        """Shortest and longest gap that they can hold, mm."""
        ends = [*self.lengths, *(_gear(piece).longest_mm for (piece,) in self.bellows)]
        starts = [*self.lengths, *(_gear(piece).shortest_mm for (piece,) in self.bellows)]
        return min(starts), max(ends)

    @cached_property
    def draws(self):
        """Shortest and longest draw of each bellows: (B, 2) array, mm."""
        ends = [(_gear(piece).shortest_mm, _gear(piece).longest_mm) for (piece,) in self.bellows]
        return np.array(ends, dtype=float).reshape(-1, 2)

    @cached_property
    def at_their_ends(self):
        """Sets of tubes, and each bellows shut and drawn out: Gaps."""
        drawn = [((SHUT, shut), (OUT, out)) for shut, out in self.draws.tolist()]
        return self._gaps(drawn)

    @cached_property
    def at_many_draws(self):
        """Sets of tubes, and each bellows at several draws: Gaps."""
        drawn = [[(BETWEEN, draw) for draw in np.linspace(shut, out, DRAWS).tolist()] for shut, out in self.draws]
        return self._gaps(drawn)

    def _gaps(self, drawn):
        rows = [(length, index, BETWEEN) for index, length in enumerate(self.lengths)]
        for place, settings in enumerate(drawn):
            rows += [(draw, len(self.lengths) + place, end) for end, draw in settings]
        rows.sort(key=lambda row: row[0])
        lengths, indices, ends = zip(*rows, strict=True) if rows else ((), (), ())
        return Gaps(np.array(indices, dtype=int), np.array(ends, dtype=int), np.array(lengths, dtype=float)[:, None])

    @cached_property
    def held_open(self):
        """Those that do hold a gap open: the first is no tube at all."""
        return Extensions(self.tubes[1:], self.lengths[1:], self.bellows)


NOTHING_BETWEEN = Extensions(((),), (0.0,))


def _gear(placed) -> Any:
    """The gear of a piece of which the kind is known."""
    return placed.gear
