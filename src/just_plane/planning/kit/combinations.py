"""Every sensible row of a kit's pieces, in groups that differ only by how long the extension is.

Bounded, and said so in ``BOUNDS``: without bounds a shelf of forty pieces has more rows than anyone could try.
"""

import math
from dataclasses import dataclass
from itertools import combinations

from just_plane.contract.shot import Placed
from just_plane.planning.kit.extensions import NOTHING_BETWEEN, Extensions
from just_plane.planning.rig.objectives import WORTH_TRYING

ZOOM_STEP = 1.26
"""Zooms are tried at focal lengths so far apart, as a ratio; the best few are then set exactly."""
MOST_TUBES_AT_ONCE = 3
MOST_TUBES = 8
ADDED_GLASS = ("close_up", "converter")
BOUNDS = (
    "Tried: each lens, and each zoom at its ends and between; with up to three tubes or the bellows; with one "
    "converter, the extension before or behind it; with one close-up lens that fits the thread; turned round on tubes "
    "or bellows; two lenses face to face; objectives, from a third to 1.6 times what is engraved, on a tube lens, on "
    "tubes or on bellows. Not tried: two converters, two close-up lenses, tubes and bellows together, a converter "
    "behind a turned lens."
)


@dataclass(frozen=True, slots=True, eq=False)
class Group:
    """Rows alike but for their extension; told from others by being itself."""

    front: tuple[Placed, ...]
    lens: Placed
    before: tuple[Placed, ...]
    """Behind the lens and before the extension."""
    behind: tuple[Placed, ...]
    """Behind the extension."""
    extensions: Extensions

    @property
    def pieces(self):
        """Pieces of every row, the extension left out."""
        return len(self.front) + 1 + len(self.before) + len(self.behind)

    @property
    def added_glass(self):
        """How many of them are glass that the lens was not made with; extensions hold none."""
        return added_glass((*self.front, *self.before, *self.behind))

    def row(self, index):
        """The pieces of one row, subject to sensor."""
        return [*self.front, self.lens, *self.before, *self.extensions.pieces(index), *self.behind]


def added_glass(row):
    """How many pieces of a row are glass that the lens was not made with (sequence of Placed): int."""
    return sum(placed.gear.kind in ADDED_GLASS for placed in row)


def groups(gear):
    """Every group of rows from a list of gear."""
    by_kind: dict[str, list] = {}
    for piece in gear:
        by_kind.setdefault(piece.kind, []).append(piece)
    lenses = _lens_settings(by_kind)
    gaps = _extensions(by_kind.get("tube", []), by_kind.get("bellows", []))
    converters = [_placed(piece) for piece in by_kind.get("converter", [])]
    # A close-up lens fits a thread, whichever lens has it.
    fits = {thread: _close_ups(thread, by_kind) for thread in {lens.gear.thread_mm for lens in lenses}}
    found = []
    for lens in lenses:
        for front in ((), *fits[lens.gear.thread_mm]):
            found.append(Group(front, lens, (), (), gaps))
            for converter in converters:
                found.append(Group(front, lens, (), (converter,), gaps))
                found.append(Group(front, lens, (converter,), (), gaps.held_open))
        for rings in _rings(lens.gear, by_kind, "reversing_ring", "thread_mm"):
            found.append(Group((), _placed(lens.gear, True, lens.at_focal_length_mm), rings, (), gaps))
    found += _coupled(lenses, by_kind)
    found += _objectives(lenses, by_kind, gaps)
    return [group for group in found if group.extensions.tubes or group.extensions.bellows]


def _placed(gear, turned=False, at=None):
    # Made without checking again: every part was checked when the kit was read.
    return Placed.model_construct(gear=gear, reversed=turned, at_focal_length_mm=at, f_number=None)


def _lens_settings(by_kind):
    lenses = [_placed(lens) for lens in by_kind.get("lens", [])]
    for zoom in by_kind.get("zoom", []):
        short, long = zoom.short.focal_length_mm, zoom.long.focal_length_mm
        steps = max(math.ceil(math.log(max(long / short, 1.0)) / math.log(ZOOM_STEP)), 1)
        marks = (float(round(short * (long / short) ** (step / steps))) for step in range(1, steps))
        lenses += [_placed(zoom, at=at) for at in (short, *(at for at in marks if short < at < long), long)]
    return lenses


def _extensions(tubes, bellows):
    """Sets of tubes, each length once, with the fewest pieces that make it; none at all first; then each bellows."""
    shortest = sorted(tubes, key=lambda tube: tube.length_mm)[:MOST_TUBES]
    by_length: dict[float, tuple] = {0.0: ()}
    for count in range(1, MOST_TUBES_AT_ONCE + 1):
        for pieces in combinations(shortest, count):
            total = round(sum(tube.length_mm for tube in pieces), 3)
            by_length.setdefault(total, tuple(_placed(tube) for tube in reversed(pieces)))
    lengths = sorted(by_length)
    return Extensions(
        tuple(by_length[length] for length in lengths), tuple(lengths), tuple((_placed(piece),) for piece in bellows)
    )


def _close_ups(thread_mm, by_kind):
    """Close-up lenses that fit a thread, by themselves or on one step ring."""
    found = []
    for close_up in by_kind.get("close_up", []):
        steps = _stepped(thread_mm, close_up.thread_mm, by_kind)
        if steps is not None:
            found.append((_placed(close_up), *steps))
    return found


def _stepped(lens_thread, wanted, by_kind):
    """The step ring between two threads as a tuple, empty when none is needed; None when there is no such ring."""
    if lens_thread is None or wanted is None or abs(lens_thread - wanted) < 0.01:
        return ()
    for ring in by_kind.get("step_ring", []):
        if abs(ring.lens_thread_mm - lens_thread) < 0.01 and abs(ring.front_thread_mm - wanted) < 0.01:
            return (_placed(ring),)
    return None


def _rings(lens, by_kind, kind, thread):
    """Rings of a kind that hold a lens, each with its step ring before it."""
    found = []
    for ring in by_kind.get(kind, []):
        steps = _stepped(lens.thread_mm, getattr(ring, thread), by_kind)
        if steps is not None:
            found.append((*steps, _placed(ring)))
    return found


def _coupled(lenses, by_kind):
    """Two lenses face to face, the shorter one in front."""
    found = []
    for ring in _told_apart(by_kind.get("coupling_ring", [])):
        fronts = [
            (_focal_length(front), front.gear, (_placed(front.gear, True, front.at_focal_length_mm), *steps))
            for front in lenses
            if (steps := _stepped(front.gear.thread_mm, ring.front_thread_mm, by_kind)) is not None
        ]
        held = _placed(ring)
        for rear in lenses:
            if rear.gear.thread_mm is not None and abs(ring.lens_thread_mm - rear.gear.thread_mm) > 0.01:
                continue
            longest = _focal_length(rear)
            found += [
                Group((*turned, held), rear, (), (), NOTHING_BETWEEN)
                for focal_length, gear, turned in fronts
                if gear is not rear.gear and focal_length < longest
            ]
    return found


def _told_apart(rings):
    """Rings that differ in what they do: of several alike the first."""
    return list({(r.lens_thread_mm, r.front_thread_mm, r.thickness_mm): r for r in reversed(rings)}.values())


def _objectives(lenses, by_kind, gaps):
    found = []
    for objective in by_kind.get("objective", []):
        if objective.correction == "finite":
            found.append(Group((), _placed(objective), (), (), gaps.held_open))
            continue
        low, high = (share * objective.reference_focal_length_mm for share in WORTH_TRYING)
        found += [
            Group((_placed(objective),), lens, (), (), NOTHING_BETWEEN)
            for lens in lenses
            if low <= _focal_length(lens) <= high
        ]
    return found


def _focal_length(placed):
    return placed.gear.focal_length_mm if placed.at_focal_length_mm is None else placed.at_focal_length_mm
