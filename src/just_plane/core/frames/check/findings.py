"""What went wrong in a stack, by rules on what was measured: each with its frame, its amount and its place.

One cause a pair: a bump or a turn silences a skipped step there, a skipped step silences a part that moved.
Limits were measured on simulated stacks; see docs/derivations/findings.md.
"""

from typing import NamedTuple

import numpy as np

from just_plane.core.frames.check.pairs import against_beside, beside

BUMP_PX, BUMP_TIMES = 0.3, 3 * 1.48
TURN_DEG = 0.05
TURN_PX = 0.25
"""A turn that moves the edge of the frame by less cannot be told from none."""
AT_AN_END = 2.0
"""Times as much at the first and the last pair: compared with one side only, they share little that is sharp."""
PLAIN_BUMP_PX, PLAIN_TURN_DEG = 1.5, 0.1
"""Beside a skipped step, or a pair that moves the same way, so much is needed."""
SKIPPED, REPEATED = -0.06, 0.04
"""Likeness of fine detail against the pairs beside, over the usual likeness: a sign of a step skipped, or repeated."""
WIDE = 1.4
"""Steps found from which the sign is believed."""
SURELY_MORE = 2.1
"""Steps found from which a strong sign makes it two: a step that is cut short by its window is found too small."""
PLAINLY_SKIPPED = -0.18
"""Where the step cannot be found, the sign alone must be so strong."""
UNMISTAKABLE, OUTSTANDING, TWO = -0.13, 5 * 1.48, -0.25
"""So strong, and so many spreads of the stack's own, that a step found otherwise is not believed: hairs have two depths
in a tile. And from where it is two."""
CLEAR = 0.8
"""Usual likeness above which noise has no say in it."""
SAME_PLACE = 0.35
"""Steps."""
DRIFT_EV, JUMP_EV, DEAD_EV = 0.038, 0.05, -0.7
LEAST_FRAMES = 8
"""With fewer there is no telling what is usual: no bumps, steps, drifts."""


class Found(NamedTuple):
    """Something that went wrong."""

    code: str
    frame: int | None
    """The frame it shows in, in the order the frames were given; of a pair the later one."""
    amount: float | None
    unit: str
    """Of the amount: px (of the full frame), deg, EV, steps, frames, ln, share."""
    place: tuple | None = None
    """x, y in px of the full frame."""
    before: int | None = None
    """Of a pair the earlier frame; of a duplicate the frame it repeats."""
    frames: tuple = ()
    """All frames it is true of, where there are several."""


def light_findings(light, order, kind, scales):
    """Frames darker than both sides; light that drifts, or that jumps and stays.

    Parameters
    ----------
    light : (K,) array      EV of the frames in the order of focus; NaN where not known.
    order : list of int     Their numbers.
    kind : str              rail, ring or hand.
    scales : (K - 1,) array Size of each frame against the one before.

    Returns
    -------
    list of Found, list of int   And the frames that are taken out as dark.
    """
    said, dark = [], dark_frames(light)
    said += [Found("dead_flash", order[k], _deeper(light, k), "EV") for k in dark]
    rest = [k for k in range(len(light)) if k not in dark and np.isfinite(light[k])]
    if len(rest) < LEAST_FRAMES:
        return said, [order[k] for k in dark]
    values = light[rest]
    jumps = _jumps(values)
    said += [Found("light_jump", order[rest[k]], amount, "EV", before=order[rest[k - 1]]) for k, amount in jumps]
    if not jumps:
        drift = _drift(values)
        growth = np.concatenate([[0], np.cumsum(2 * np.log2(scales))])[rest]
        other = _drift(values + growth) if kind == "ring" else drift
        if min(abs(drift), abs(other)) > DRIFT_EV and drift * other > 0:
            said.append(Found("light_drift", None, min(drift, other, key=abs), "EV"))
    return said, [order[k] for k in dark]


def dark_frames(light):
    """Frames that are much darker than those on both sides.

    Parameters
    ----------
    light : (K,) array   EV; NaN where not known.

    Returns
    -------
    list of int          Places in that order.
    """
    return [k for k in range(len(light)) if _deeper(light, k) < DEAD_EV]


def _deeper(light, k):
    sides = []
    for side in (light[max(0, k - 3) : k], light[k + 1 : k + 4]):
        known = side[np.isfinite(side)]
        if len(known):
            sides.append(float(light[k] - np.median(known)))
    return max(sides) if sides and np.isfinite(light[k]) else 0.0


def _drift(values):
    """Robust slope over the whole stack."""
    count = len(values)
    slopes = [(values[j] - values[i]) / (j - i) for i in range(count) for j in range(i + max(count // 3, 1), count)]
    return float(np.median(slopes) * (count - 1))


def _jumps(values):
    """Changes that stay: the median of what follows against the median of what was before."""
    found = []
    changes = against_beside(np.diff(values))
    for p in np.flatnonzero(np.abs(changes) > JUMP_EV):
        before, after = values[max(0, p - 2) : p + 1], values[p + 1 : p + 4]
        stays = float(np.median(after) - np.median(before)) if len(after) > 1 and len(before) > 1 else 0.0
        if abs(stays) > JUMP_EV and stays * changes[p] > 0:
            found.append((int(p) + 1, stays))
    return found


def pair_findings(pairs, order, steps, times, across, blind=()):
    """Bumps, turns, steps skipped or repeated, parts that moved.

    Parameters
    ----------
    pairs : Pairs
    order : list of int        Frames in the order of focus.
    steps : Steps              Between them.
    times : int                Full pixels to one of the picture that was measured, each way.
    across : int               Width of the picture that was measured, px.
    blind : set of int         Frames too dark or too shaken to tell steps and parts by.

    Returns
    -------
    list of Found
    """
    if len(order) < LEAST_FRAMES:
        return []
    said = []
    aside = np.stack([against_beside(axis) for axis in pairs.shift.T], axis=-1)
    shift = np.hypot(*aside.T)
    limit = max(BUMP_PX, BUMP_TIMES * _usual(shift))
    creeps = _creeps(aside, limit)
    turn = np.degrees(against_beside(pairs.turn))
    turn_limit = max(TURN_DEG, np.degrees(TURN_PX / (across / 2)), BUMP_TIMES * _usual(np.abs(turn)))
    usual = max(float(np.median(pairs.likeness)), 0.1)
    likeness = against_beside(pairs.likeness) / usual
    spread = _usual(np.abs(likeness))
    sure = min(UNMISTAKABLE, -OUTSTANDING * spread) if usual > CLEAR else -np.inf
    for p in range(len(order) - 1):
        pair = {"frame": order[p + 1], "before": order[p]}
        at_an_end = p in (0, len(order) - 2)
        times_more = AT_AN_END if at_an_end else 1.0
        bumped = shift[p] > times_more * limit and not creeps[p]
        turned = abs(turn[p]) > times_more * turn_limit
        seen = order[p] not in blind and order[p + 1] not in blind
        step, part = steps.found[p], pairs.parts[p]
        if steps.by_growth[p] and not (bumped or turned):
            missing = _by_growth(likeness[p] if seen else -np.inf, step)
        else:
            step = step / _stretched(steps.found, p)
            missing = _missing(likeness[p], sure, step, at_an_end=at_an_end) if seen else 0
        if missing and (step >= WIDE or not (bumped or turned)):
            said.append(Found("skipped_step", amount=float(missing), unit="steps", **pair))
            # What lies a step farther is laid a little worse: only a plain jump is a bump of its own.
            bumped, turned = shift[p] > max(limit, PLAIN_BUMP_PX), abs(turn[p]) > max(turn_limit, PLAIN_TURN_DEG)
        if bumped:
            said.append(Found("bump", amount=float(shift[p] * times), unit="px", **pair))
        if turned:
            said.append(Found("rotation", amount=float(turn[p]), unit="deg", **pair))
        if bumped or turned or missing or not seen:
            continue
        if abs(step) < SAME_PLACE and likeness[p] > REPEATED:
            said.append(Found("duplicate", amount=float(step), unit="steps", **pair))
        elif part is not None:
            amount = float(np.hypot(*part.shift) * times)
            place = tuple(times * value + (times - 1) / 2 for value in part.place)
            said.append(Found("moved", amount=amount, unit="px", place=place, **pair))
    return said


def _stretched(found, pair):
    """How much longer than planned the steps beside a pair are found, at least 1: toward an end all of them may be."""
    around = beside(found, pair)
    return max(float(np.median(around)), 1.0) if len(around) else 1.0


def _usual(values):
    """Median of what is known; 0 where nothing is, as where no frame was taken after the one before it."""
    known = values[np.isfinite(values)]
    return float(np.median(known)) if len(known) else 0.0


def _creeps(aside, limit):
    """Pairs that move little, and one beside them the same way: no knock, which moves the view once."""
    creeps = np.zeros(len(aside), bool)
    length = np.hypot(*aside.T)
    for p in range(len(aside) - 1):
        both = length[p : p + 2]
        if (both > limit).all() and (both < PLAIN_BUMP_PX).all() and aside[p] @ aside[p + 1] > 0:
            creeps[p : p + 2] = True
    return creeps


def _by_growth(likeness, step):
    """Steps missing by how much the view grew: of more than one something must be seen in what is sharp, too."""
    missing = max(round(step) - 1, 0)
    return missing if missing <= 1 or likeness < SKIPPED else 0


def _missing(likeness, sure, step, *, at_an_end):
    """Steps missing between two frames: the dip of likeness is the sign, the step found the amount.

    At an end, where less and less is in focus, likeness dips of itself: there the sign alone says nothing.
    """
    by_sign = 2 if likeness < TWO and np.isfinite(sure) else 1
    if likeness < SKIPPED and step >= WIDE:
        return max(round(step) - 1, by_sign if step >= SURELY_MORE else 1)
    if at_an_end:
        return 0
    if not np.isfinite(step) and likeness < PLAINLY_SKIPPED:
        return by_sign
    return by_sign if likeness < sure else 0
