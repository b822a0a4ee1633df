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
DRAWS = 9
"""Of bellows, tried where the closest or the widest is looked for."""
LIGHT_AT = 8.0
"""Marked stop at which light lost is compared, where the lens has it."""


@dataclass(frozen=True, slots=True)
class Candidate:
    """A row with what it would give, before it is worked out exactly."""

    row: list
    off: float
    """How far its size is from the one asked, as a share; where an end is looked for, less is nearer to it."""
    room: float
    lost: float
    """Stops."""
    size: float
    """Magnification."""

    @property
    def pieces(self):
        return len(self.row)

    def is_short_of(self, room):
        return self.room < room * (1 - 1e-6)


@dataclass(frozen=True, slots=True)
class Aim:
    """What is looked for: a size, or the end of what can be reached."""

    look_for: str
    """``frame``, ``closest`` or ``widest``."""
    wanted: float
    """Magnification, of a frame."""
    room: float
    """mm: at least, of the closest; at most, of the widest."""
    within: float = NEARLY
    """Share by which a size may lie beside the one wanted."""


def candidates_of(base, group, aim):
    """Candidates of one group, all its extensions at once.

    Parameters
    ----------
    base : RigAsked        Body and framing; its row does not matter.
    group : Group
    aim : Aim

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

    indices, lengths = _lengths(group, with_extension, aim)
    lengths, sizes = _that_give_a_picture(with_extension, lengths)
    if not len(lengths):
        return []
    indices = indices[len(indices) - len(lengths) :]
    fixed = front_to_sensor(base.body, row, lens, rig) - group.extensions.length(0)

    def fronts(lengths, shares):
        return fixed + lengths + lens.growth * shares

    if aim.look_for == "frame":
        shares, reached = share_of_throw(sizes, aim.wanted)
        near = np.flatnonzero(np.abs(reached / aim.wanted - 1) < aim.within)
    else:
        throw = _over_throw(with_extension(lengths), sizes.shape)
        rooms = throw.subject_to_sensor - fronts(lengths, np.linspace(0.0, 1.0, sizes.shape[1])[None, :])
        stands_off = _stands_off(group)
        shares, near = share_of_end(sizes, rooms if stands_off is None else np.full(sizes.shape, stands_off), aim)
    if not len(near):
        return []
    lengths, shares = lengths[near], shares[near]
    imaging = _each(with_extension(lengths).focused(_settings(rig, shares[:, None])).imaging(), len(near))
    return _candidates(group, [indices[place] for place in near], imaging, fronts(lengths[:, 0], shares), lens, aim)


def share_of_end(sizes, rooms, aim):
    """Where on its throw each rig comes closest with the room asked, or shows most without going farther back.

    Parameters
    ----------
    sizes, rooms : (rigs, samples) array   Magnification, and working distance in mm.
    aim : Aim

    Returns
    -------
    shares : (rigs,) array                 0 infinity, 1 the near end.
    near : (K,) array                      Indices of the rigs that can at all.
    """
    closest = aim.look_for == "closest"
    # In dioptres, which change evenly along the throw and are none at infinity.
    near_by = np.where(rooms > 0, 1 / np.where(rooms > 0, rooms, 1.0), np.inf)
    asked = 1 / max(aim.room, 1e-9)
    fine = np.isfinite(near_by) & ((near_by <= asked) if closest else (near_by >= asked))
    value = np.where(fine, sizes if closest else -sizes, -np.inf)
    at, row = value.argmax(axis=1), np.arange(len(sizes))
    beyond = at + 1 if closest else at - 1
    inside = (beyond >= 0) & (beyond < sizes.shape[1])
    beyond = np.clip(beyond, 0, sizes.shape[1] - 1)
    here, there = near_by[row, at], near_by[row, beyond]
    # On to where the room is just what was asked, where the next sample is past it.
    crosses = inside & fine[row, at] & ~fine[row, beyond] & np.isfinite(there) & (here != there)
    apart = np.where(crosses, there, 1.0) - np.where(crosses, here, 0.0)
    part = np.where(crosses, (asked - np.where(crosses, here, 0.0)) / apart, 0.0)
    shares = (at + np.clip(part, 0.0, 1.0) * (beyond - at)) / max(sizes.shape[1] - 1, 1)
    return shares, np.flatnonzero(np.isfinite(value[row, at]))


def _over_throw(rig, shape):
    return Imaging._make(np.broadcast_to(each, shape) for each in rig.focused(rig.ring(shape[1])[None, :]).imaging())


def _settings(rig, shares):
    return rig.farthest_setting + shares * (rig.closest_setting - rig.farthest_setting)


def _stands_off(group):
    """The working distance engraved on an objective, mm; None without one."""
    return next((p.gear.working_distance_mm for p in (*group.front, group.lens) if p.gear.kind == "objective"), None)


def _lengths(group, with_extension, aim):
    """Indices of the group's extensions, shortest first, and the length of each, mm: (list, (N, 1) array).

    Bellows are drawn for the size wanted, as far as they go; with the ring at infinity the size grows evenly with
    the draw. Where an end is looked for they are tried at several draws.
    """
    extensions, wanted = group.extensions, aim.wanted
    lengths = list(extensions.lengths)
    if aim.look_for != "frame":
        indices = list(range(len(lengths)))
        for place, (piece,) in enumerate(extensions.bellows):
            lengths += np.linspace(piece.gear.shortest_mm, piece.gear.longest_mm, DRAWS).tolist()
            indices += [len(extensions.lengths) + place] * DRAWS
        order = sorted(range(len(lengths)), key=lengths.__getitem__)
        return [indices[each] for each in order], np.array([lengths[each] for each in order])[:, None]
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


def _candidates(group, indices, imaging, fronts, lens, aim):
    sizes, stands_off = imaging.magnification, _stands_off(group)
    rooms = imaging.subject_to_sensor - fronts if stands_off is None else np.full(len(indices), stands_off)
    marked = min(max(LIGHT_AT, lens.widest), lens.narrowest)
    if aim.look_for == "frame":
        off = np.abs(sizes / aim.wanted - 1)
        good = np.flatnonzero((off < aim.within) & (rooms > 0))
    else:
        off = 1 / sizes if aim.look_for == "closest" else sizes
        good = np.flatnonzero(rooms > 0)
    if not len(good):
        return []
    lost = 2 * np.log2(np.maximum(imaging.effective_f_number(marked), 1e-9) / marked)
    return [
        Candidate(group.row(indices[i]), float(off[i]), float(rooms[i]), float(lost[i]), float(sizes[i])) for i in good
    ]
