"""Every row of a group tried together: what each would give, closely enough to rank them."""

from bisect import bisect_left
from dataclasses import dataclass, replace

import numpy as np

from just_plane.core.errors import OpticsError
from just_plane.core.imaging import Imaging
from just_plane.core.pieces import Tube
from just_plane.core.reach import share_of_throw, sizes_over_throw
from just_plane.planning.rig.chain import arrange
from just_plane.planning.rig.kinds import LENS_KINDS
from just_plane.planning.rig.outline import front_to_sensor
from just_plane.planning.rig.rigging import assemble
from just_plane.planning.words.findings import RefusedError
from just_plane.planning.words.numbers import Wording

NEARLY = 0.12
"""Sizes this far from the one asked are shown, and said not to fit."""
LIGHT_AT = 8.0
"""Marked stop at which light lost is compared, where the lens has it."""


@dataclass(frozen=True, slots=True)
class Candidate:
    """A row with what it would give, before it is worked out exactly."""

    row: list
    off: float
    """How far its size is from the one asked, as a share."""
    room: float
    lost: float
    """Stops."""

    @property
    def pieces(self):
        return len(self.row)

    def is_short_of(self, room):
        return self.room < room * (1 - 1e-6)


def candidates_of(base, group, wanted):
    """Candidates of one group, all its extensions at once."""
    tubes = len(group.extensions.tubes)
    found = _try_some(base, group, range(tubes), wanted) if tubes else []
    for index in range(tubes, len(group.extensions)):
        found += _try_bellows(base, group, index, wanted)
    return found


def _try_some(base, group, indices, wanted):
    """Candidates of the rows whose extension is tubes, shortest first, settled together."""
    assembled = _assembled(replace(base, rig=group.row(indices[0])))
    if assembled is None:
        return []
    row, lens, rig = assembled
    lengths = np.array(group.extensions.lengths)[:, None]
    fixed = front_to_sensor(base.body, row, lens, rig) - float(lengths[0, 0])

    def with_tubes(extension):
        return replace(rig, elements=_with_extension(rig, group, indices[0], extension))

    first = 0
    try:
        sizes = sizes_over_throw(with_tubes(lengths), len(indices))
    except OpticsError:
        # Too little extension gives no picture; more of it does.
        first = bisect_left(range(len(indices)), True, key=lambda at: _has_image(with_tubes(float(lengths[at, 0]))))
        if first == len(indices):
            return []
        sizes = sizes_over_throw(with_tubes(lengths[first:]), len(indices) - first)
    shares, reached = share_of_throw(sizes, wanted)
    near = np.flatnonzero(np.abs(reached / wanted - 1) < NEARLY)
    if not len(near):
        return []
    lengths, shares = lengths[first + near], shares[near]
    imaging = with_tubes(lengths).focused(shares[:, None] * rig.closest_setting).imaging()
    imaging = _each(imaging, len(near))
    fronts = fixed + lengths[:, 0] + lens.growth * shares
    return _candidates(group, [indices[first + at] for at in near], imaging, fronts, lens, wanted)


def _each(imaging, rigs):
    """Every value as an array of one entry a rig."""
    return Imaging._make(
        value[:, 0]
        if isinstance(value, np.ndarray) and value.ndim == 2 and len(value) == rigs
        else np.full(rigs, float(np.ravel(value)[0]))
        for value in imaging
    )


def _has_image(rig):
    try:
        rig.focused(0.0).magnification()
    except OpticsError:
        return False
    return True


def _with_extension(rig, group, index, lengths):
    """The rig's elements with the tubes of one extension in one, of many lengths."""
    in_front = sum(placed.gear.kind in ("close_up", *LENS_KINDS) for placed in group.front)
    at = in_front + 1 + len(group.before)
    after = at + len(group.extensions.pieces(index))
    return (*rig.elements[:at], Tube(lengths), *rig.elements[after:])


def _try_bellows(base, group, index, wanted):
    assembled = _assembled(replace(base, rig=group.row(index)))
    if assembled is None:
        return []
    row, lens, rig = assembled
    try:
        drawn = _drawn(rig, wanted)
        imaging = drawn.imaging() if drawn is not None else None
    except OpticsError:
        return []
    if imaging is None:
        return []
    front = front_to_sensor(base.body, row, lens, drawn)
    return _candidates(group, [index], _each(imaging, 1), np.array([front]), lens, wanted)


def _drawn(rig, wanted):
    """The rig with its bellows drawn for a size, and the ring's help where they end; None where it cannot come near."""
    shortest, longest = rig.bellows.shortest, rig.bellows.longest
    far = rig.focused(0.0)
    at_longest = far.drawn(longest).magnification()
    if at_longest < wanted:
        closest = rig.focused(rig.closest_setting).drawn(longest).magnification()
        if closest < wanted * (1 - NEARLY):
            return None
        return rig.at_magnification(min(wanted, closest))
    # The size grows evenly with the draw; the shorter half may give no picture, so the longer one has the line.
    half = (shortest + longest) / 2
    at_half = far.drawn(half).magnification()
    draw = longest - (at_longest - wanted) / (at_longest - at_half) * (longest - half)
    if draw < shortest - NEARLY * (longest - shortest):
        return None
    return far.drawn(min(max(draw, shortest), longest))


def _assembled(asked):
    """The row, its lens and its rig; None when no such row can be."""
    try:
        row = arrange(asked.rig)
        return row, *assemble(asked, row, Wording())
    except RefusedError:
        return None


def _candidates(group, indices, imaging, fronts, lens, wanted):
    sizes = imaging.magnification
    stands_off = next(
        (p.gear.working_distance_mm for p in (*group.front, group.lens) if p.gear.kind == "objective"), None
    )
    rooms = imaging.subject_to_sensor - fronts if stands_off is None else np.full(len(indices), stands_off)
    marked = min(max(LIGHT_AT, lens.widest), lens.narrowest)
    off = np.abs(sizes / wanted - 1)
    good = np.flatnonzero((off < NEARLY) & (rooms > 0))
    if not len(good):
        return []
    lost = 2 * np.log2(np.maximum(imaging.effective_f_number(marked), 1e-9) / marked)
    return [Candidate(group.row(indices[i]), float(off[i]), float(rooms[i]), float(lost[i])) for i in good]
