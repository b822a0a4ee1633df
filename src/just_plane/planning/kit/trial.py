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
    """Candidates of one group, all its extensions at once.

    Parameters
    ----------
    base : RigAsked        Body and framing; its row does not matter.
    group : Group
    wanted : float         Magnification.

    Returns
    -------
    list of Candidate
    """
    assembled = _assembled(replace(base, rig=group.row(0)))
    if assembled is None:
        return []
    row, lens, rig = assembled
    at = _place_of_extension(group)
    after = at + len(group.extensions.pieces(0))

    def with_extension(lengths):
        return replace(rig, elements=(*rig.elements[:at], Tube(lengths), *rig.elements[after:]))

    indices, lengths = _lengths(group, with_extension, wanted)
    lengths, sizes = _that_give_a_picture(with_extension, lengths)
    if not len(lengths):
        return []
    indices = indices[len(indices) - len(lengths) :]
    shares, reached = share_of_throw(sizes, wanted)
    near = np.flatnonzero(np.abs(reached / wanted - 1) < NEARLY)
    if not len(near):
        return []
    lengths, shares = lengths[near], shares[near]
    imaging = _each(with_extension(lengths).focused(shares[:, None] * rig.closest_setting).imaging(), len(near))
    fixed = front_to_sensor(base.body, row, lens, rig) - group.extensions.length(0)
    fronts = fixed + lengths[:, 0] + lens.growth * shares
    return _candidates(group, [indices[place] for place in near], imaging, fronts, lens, wanted)


def _lengths(group, with_extension, wanted):
    """Indices of the group's extensions, shortest first, and the length of each, mm: (list, (N, 1) array).

    Bellows are drawn for the size wanted, as far as they go; with the ring at infinity the size grows evenly with
    the draw.
    """
    extensions = group.extensions
    lengths = list(extensions.lengths)
    if extensions.bellows:
        ends = np.array([[piece.gear.shortest_mm, piece.gear.longest_mm] for (piece,) in extensions.bellows])
        longest = float(ends[:, 1].max())
        try:
            far = with_extension(np.array([[longest], [longest * 0.9]])).focused(0.0).magnification()
            most, less = (float(value) for value in np.ravel(far))
            draw = longest - (most - wanted) / (most - less) * 0.1 * longest
        except OpticsError:
            draw = longest
        lengths += np.clip(draw, ends[:, 0], ends[:, 1]).tolist()
    order = sorted(range(len(lengths)), key=lengths.__getitem__)
    return order, np.array([lengths[index] for index in order])[:, None]


def _that_give_a_picture(with_extension, lengths):
    """Those of some lengths, shortest first, that give a picture, and their sizes over the throw of the ring."""
    try:
        return lengths, sizes_over_throw(with_extension(lengths), len(lengths))
    except OpticsError:
        # Too little extension gives no picture; more of it does.
        alone = [float(length) for length in lengths[:, 0]]
        first = bisect_left(alone, True, key=lambda length: _has_image(with_extension(length)))
    if first == len(lengths):
        return lengths[:0], None
    try:
        return lengths[first:], sizes_over_throw(with_extension(lengths[first:]), len(lengths) - first)
    except OpticsError:
        return lengths[:0], None


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


def _place_of_extension(group):
    """Where among the rig's elements the extension stands."""
    return sum(placed.gear.kind in ("close_up", *LENS_KINDS) for placed in group.front) + 1 + len(group.before)


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
