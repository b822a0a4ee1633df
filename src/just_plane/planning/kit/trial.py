"""Every row of a group tried together: what each would give, closely enough to rank them."""

from dataclasses import dataclass, fields

import numpy as np

from just_plane.core.imaging import Imaging
from just_plane.planning.rig.objectives import worth_trying

NEARLY = 0.12
"""Sizes this far from the one asked are shown, and said not to fit."""
NO_SIZE = 1e-12
"""Stands for no size at all, as at infinity, where one is divided by it."""
LIGHT_AT = 8.0
"""Marked stop at which light lost is compared, where the lens has it."""


@dataclass(frozen=True, slots=True)
class Candidate:
    """A row with what it would give, before it is worked out exactly."""

    row: list
    pieces: frozenset
    """What tells its pieces from those of another row."""
    off: float
    """How far its size is from the one asked, as a share; where an end is looked for, less is nearer to it."""
    room: float
    lost: float
    """Stops."""
    size: float
    """Magnification."""


@dataclass(frozen=True, slots=True)
class Tried:
    """Rows with what they would give, a column each: those of one group, or joined of many."""

    groups: list
    """Of each row (N of Group)."""
    indices: np.ndarray
    """Of its extension in its group: (N,)."""
    off: np.ndarray
    """As of a Candidate, as are the next three: (N,)."""
    room: np.ndarray
    lost: np.ndarray
    size: np.ndarray
    pieces: np.ndarray
    """How many a row is made of: (N,)."""
    added_glass: np.ndarray
    """How many of them are glass that the lens was not made with: (N,)."""

    def __len__(self):
        return len(self.groups)

    def candidate(self, index):
        """One of the rows: Candidate."""
        row = self.groups[index].row(self.indices[index])
        values = (float(column[index]) for column in (self.off, self.room, self.lost, self.size))
        return Candidate(row, frozenset(map(_piece, row)), *values)


def _piece(placed):
    return placed.gear.kit_id, placed.reversed, placed.at_focal_length_mm


def joined(parts):
    """Rows of many groups together, in their order.

    Parameters
    ----------
    parts : list of Tried   At least one.

    Returns
    -------
    Tried
    """
    groups = [group for part in parts for group in part.groups]
    columns = [field.name for field in fields(Tried)[1:]]
    return Tried(groups, **{name: np.concatenate([getattr(part, name) for part in parts]) for name in columns})


_WHOLE, _REAL = np.zeros(0, dtype=int), np.zeros(0)
NONE_TRIED = Tried([], _WHOLE, _REAL, _REAL, _REAL, _REAL, _WHOLE, _WHOLE)


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


def candidates_of(rows, aim):
    """What the rows of one group would give, all its extensions at once; those that are no candidates are left out.

    Parameters
    ----------
    rows : OnBody
    aim : Aim

    Returns
    -------
    Tried
    """
    if aim.look_for == "frame":
        indices, lengths, shares, reached = rows.nearest(aim.wanted)
        near = np.flatnonzero(np.abs(reached / aim.wanted - 1) < aim.within)
    else:
        found = rows.for_ends
        if found is None:
            return NONE_TRIED
        (indices, _, lengths), sizes = found
        shares, near = share_of_end(sizes, rows.rooms_for_ends, aim)
    if not len(near):
        return NONE_TRIED
    lengths, shares = lengths[near], shares[near]
    imaging = _each(rows.with_extension(lengths).focused(_settings(rows.rig, shares[:, None])).imaging(), len(near))
    return _candidates(rows, indices[near], imaging, rows.fronts(lengths[:, 0], shares), aim)


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


def _settings(rig, shares):
    return rig.farthest_setting + shares * (rig.closest_setting - rig.farthest_setting)


def _each(imaging, rigs):
    """Every value as an array of one entry a rig."""
    return Imaging._make(
        value[:, 0]
        if isinstance(value, np.ndarray) and value.ndim == 2 and len(value) == rigs
        else np.full(rigs, float(np.ravel(value)[0]))
        for value in imaging
    )


def _candidates(rows, indices, imaging, fronts, aim):
    group, lens = rows.group, rows.lens
    sizes, rooms = imaging.magnification, rows.rooms(imaging, fronts)
    marked = min(max(LIGHT_AT, lens.widest), lens.narrowest)
    if aim.look_for == "frame":
        off = np.abs(sizes / aim.wanted - 1)
        good = (off < aim.within) & (rooms > 0)
    else:
        off = 1 / np.maximum(sizes, NO_SIZE) if aim.look_for == "closest" else sizes
        good = rooms > 0
    if rows.objective is not None:
        good &= worth_trying(rows.objective, imaging.lens_magnification)
    good = np.flatnonzero(good)
    if not len(good):
        return NONE_TRIED
    lost = 2 * np.log2(np.maximum(imaging.effective_f_number(marked), 1e-9) / marked)
    chosen = indices[good]
    return Tried(
        [group] * len(good),
        chosen,
        off[good],
        rooms[good],
        lost[good],
        sizes[good],
        group.pieces + group.extensions.counts[chosen],
        np.full(len(good), group.added_glass),
    )
