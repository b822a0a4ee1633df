"""A stack, or a part of it, that was taken again into the same folder: one take is judged, the others are set aside.

A run that was begun anew shows the same depths one by one: each of its frames is likest to the next one of the other.
Frames that close a gap or mend single ones do not: they are likest to those at the edges of the gap.
"""

from typing import NamedTuple

import numpy as np

from just_plane.core.frames.check.findings import DEAD_EV, Found
from just_plane.core.frames.check.order import distances
from just_plane.core.frames.check.similarity import IDENTITY, chained, moved
from just_plane.core.frames.check.tiles import CURVE, sampled
from just_plane.core.frames.check.unlike import unlike_of

FEWEST = 2
"""Frames of a take; a single one is a frame taken twice."""
MOST = 6
"""Runs that are compared; a folder of more is none of takes."""
CANDIDATES = 3
"""Frames that the middle of a run is tried on, the likest first."""
ONE_BY_ONE = 0.75
"""Share of the frames of a take that must be likest to the next one of the other each time."""
SAME_PLACES = 0.35
"""How unlike a take is to the other, over how unlike neighbours of that are: from the same places, half of it."""
TOO_MANY = 2
"""Frames over those planned; without a plan, or with fewer, others may have been taken between the first."""
NEAR = 1.25
"""The same of one frame; one that is two steps past an end of the other is more unlike to it."""
ANOTHER = 0.5
"""The same of one frame, over the others of its take: one of the two is dark, or of a depth that the other lacks."""
SHARPER = 1.08
"""Times its counterpart's energy: it was taken to mend that one."""


def set_repeats_aside(follower, load, known=()):
    """Set aside the takes of a folder that repeat another: of two the shorter, of two as long the earlier.

    Parameters
    ----------
    follower : Follower          Holds every frame that could be read; those that repeat others are set aside in it.
    load : function              Number of a frame to its (H, W) float32 picture, for frames that are laid on others.
    known : collection of int    Frames that are left out for a reason of their own.

    Returns
    -------
    list of Found                Of each take all frames that the other makes needless, and the first that they repeat.
    """
    runs = [[frame for frame in run if frame not in known] for run in follower.runs()]
    runs = sorted((run for run in runs if len(run) >= FEWEST), key=len, reverse=True)
    if follower.facts.kind == "hand" or not 0 < len(runs) <= MOST:  # a hand goes to and fro
        return []
    as_they_lie = unlike_of(follower, [frame for run in runs for frame in run])
    runs, energies = _laid_together(follower, load, runs, as_they_lie)
    unlike = as_they_lie.or_less(energies, distances(np.stack([*energies.values()])))
    takes = [take for run in runs for take in _takes(run, unlike)]
    main = max(takes, key=lambda take: (len(take), take[0]))
    planned = follower.facts.frames
    too_many = planned is not None and sum(map(len, takes)) > planned + TOO_MANY
    repeats = [_against(take, main, unlike) for take in sorted(takes) if take is not main]
    said = [_said(one, main, follower, energies) for one in repeats if _is_again(one, too_many)]
    aside = {frame for one in said for frame in one.frames}
    follower.set_aside(aside)
    _relay(follower, load, [frame for frame in energies if frame not in aside], unlike)
    return [one for one in said if one.frames]


def _relay(follower, load, frames, unlike):
    """Lay frames that were laid on one set aside on another: the first of a take hardly fits the last of the other,
    and in rows of things that are all alike it may be laid on the next row."""
    for this in sorted(frames):
        known = follower.frames
        earlier = [frame for frame in frames if frame < this and known[frame].run == known[this].run]
        if earlier and known[this].before not in (None, *frames):
            before = unlike.likest(this, earlier)
            follower.lay_on(before, load(before), this, load(this))


def _laid_together(follower, load, runs, as_they_lie):
    """The runs that lie on the first one, and the energies of all their frames by the same tiles."""
    kept: list = []
    energies: dict = {}
    for run in runs:
        middle = run[len(run) // 2]
        to_middle = _laid_on(follower, load, kept[0], middle, as_they_lie) if kept else IDENTITY
        if to_middle is not None:
            kept.append(run)
            for frame in run:
                where = moved(chained(to_middle, follower.between(middle, frame)), follower.grid.places)
                energies[frame] = sampled(follower.frames[frame].measured.energy, follower.grid, where)
    return kept, energies


def _laid_on(follower, load, first, frame, as_they_lie):
    """Places of the middle of the first run to places of a frame of another; None where it does not lie on it."""
    for beside in sorted(first, key=lambda other: as_they_lie.of(other, frame))[:CANDIDATES]:
        laid = follower.laid(beside, load(beside), frame, load(frame))
        if laid.similarity is not None:
            return chained(follower.between(first[len(first) // 2], beside), laid.similarity)
    return None


def _takes(run, unlike):
    """A run cut where it begins anew: two frames, one after the other likest to two that came before the last."""
    takes: list = [[]]
    for p, frame in enumerate(run):
        take = takes[-1]
        places = [take.index(unlike.likest(one, take)) for one in run[p : p + FEWEST]] if len(take) >= FEWEST else []
        if len(places) == FEWEST and places[0] < len(take) - 1 and abs(places[1] - places[0]) == 1:
            takes.append([])
        takes[-1].append(frame)
    return takes


class _Repeat(NamedTuple):
    """The frames of a take that show what those of the judged one do."""

    frames: list
    counterparts: np.ndarray
    """Places in the judged take of the frames that they are likest to."""
    apart: np.ndarray
    """How unlike each is to that one, over how unlike neighbours are there."""


def _against(take, main, unlike):
    """What of a take lies within the judged one: from the first to the last frame that is near to one of that."""
    places = np.array([main.index(unlike.likest(frame, main)) for frame in take])
    steps = np.array([unlike.of(main[at], main[at - 1 if at else 1]) for at in places])
    steps = np.maximum(np.minimum(steps, np.median(steps)), 1e-9)  # a dark frame is unlike its neighbours, too
    apart = np.array([unlike.of(frame, main[at]) for frame, at in zip(take, places, strict=True)]) / steps
    near = np.flatnonzero(apart <= NEAR)
    first, last = (near[0], near[-1]) if len(near) else (0, -1)
    # The next one past an end of the judged take is near to that, too.
    while first < last and places[first] == places[first + 1] and apart[first] > apart[first + 1]:
        first += 1
    while first < last and places[last] == places[last - 1] and apart[last] > apart[last - 1]:
        last -= 1
    return _Repeat(take[first : last + 1], places[first : last + 1], apart[first : last + 1])


def _is_again(repeat, too_many):
    """Whether a take shows the depths of the judged one, one by one, and is none that was taken between them."""
    places, count = repeat.counterparts, len(repeat.frames)
    if count < FEWEST or abs(places[-1] - places[0]) < ONE_BY_ONE * (count - 1):
        return False
    onwards = np.diff(places) * np.sign(places[-1] - places[0])
    if np.mean((onwards >= 0) & (onwards <= 2)) < ONE_BY_ONE:
        return False
    return float(np.median(repeat.apart)) <= SAME_PLACES or (too_many and count > FEWEST)


def _said(repeat, main, follower, energies):
    needed = _needed(repeat, main, follower, energies)
    frames = tuple(frame for frame, kept in zip(repeat.frames, needed, strict=True) if not kept)
    first = main[int(repeat.counterparts.min())]
    return Found("taken_again", min(frames, default=None), float(len(frames)), "frames", before=first, frames=frames)


def _needed(repeat, main, follower, energies):
    """Which frames of a take stand for one that is none: shaken, dark, or of another depth."""
    pairs = [(frame, main[at]) for frame, at in zip(repeat.frames, repeat.counterparts, strict=True)]
    seen = follower.frames
    sharper = np.array([_times(energies[one][CURVE], energies[other][CURVE]) for one, other in pairs]) > SHARPER
    light_ev = np.log2([_times(seen[one].measured.light, seen[other].measured.light) for one, other in pairs])
    lighter = light_ev > np.median(light_ev) - DEAD_EV
    return sharper | lighter | (repeat.apart > np.median(repeat.apart) + ANOTHER)


def _times(one, other):
    """How many times as much the one holds, of what is known in both."""
    known = np.isfinite(one) & np.isfinite(other)
    return float((one[known].sum() + 1e-12) / (other[known].sum() + 1e-12))
