"""What a group of rows could give at most and at least, before any rig of it is built; and how many are tried.

The bounds are rules of thumb with room to either side: they only leave out groups that cannot come near.
"""

from dataclasses import dataclass, field
from typing import NamedTuple

import numpy as np

from just_plane.core.errors import OpticsError
from just_plane.planning.rig.lens_numbers import lens_numbers
from just_plane.planning.rig.objectives import WORTH_TRYING

MOST_GROUPS = 1000
"""Groups tried in one search: about a second where none of them was assembled before."""
SLACK = 1.35
"""Factor by which a size may lie outside the bounds and the group still be tried."""
FACING = 1.3
"""Factor by which two lenses face to face may stray from the quotient of their focal lengths."""
BEHIND_MOUNT_MM = 120.0
"""Register and rings behind a turned lens, at the very most."""


class Outlook(NamedTuple):
    """What groups could give, a column each."""

    groups: list
    low: np.ndarray
    """Smallest magnification to expect: (N,)."""
    high: np.ndarray
    """Largest: (N,)."""
    pieces: np.ndarray
    """Of every row, the extension left out: (N,)."""
    rows: np.ndarray
    """How many: (N,)."""


def outlook(groups):
    """What groups could give, whatever size is looked for.

    Parameters
    ----------
    groups : list of Group

    Returns
    -------
    Outlook
    """
    bounds = SizeBounds()
    low, high = np.array([bounds.of(group) for group in groups], dtype=float).reshape(-1, 2).T
    pieces = np.array([group.pieces for group in groups], dtype=int)
    return Outlook(groups, low, high, pieces, np.array([len(group.extensions) for group in groups], dtype=int))


def worth_trying(outlook, wanted):
    """The groups that may come near a size, those with fewest pieces first, no more than ``MOST_GROUPS``.

    Parameters
    ----------
    outlook : Outlook
    wanted : float or None       Magnification; None: any.

    Returns
    -------
    (list of Group, int)         And how many rows of groups that may come near are left out.
    """
    near = np.arange(len(outlook.groups))
    if wanted is not None:
        near = np.flatnonzero((outlook.low / SLACK <= wanted) & (wanted <= outlook.high * SLACK))
    near = near[np.argsort(outlook.pieces[near], kind="stable")]
    left_out = outlook.rows[near[MOST_GROUPS:]].sum()
    return [outlook.groups[index] for index in near[:MOST_GROUPS].tolist()], int(left_out)


@dataclass(frozen=True, slots=True)
class SizeBounds:
    """Smallest and largest magnification to expect of groups; lenses met before are remembered for one search."""

    lenses: dict = field(default_factory=dict)

    def of(self, group):
        """Of one group: (low, high).

        A lens at its own magnification m0 with extension e gives m0 + e/f; a close-up lens of D dioptres adds
        f D / 1000 (1 + m); a converter of k multiplies by k, and stretched by extension behind it by more.
        """
        first = group.front[0].gear if group.front else None
        if first is not None and first.kind == "objective":
            size = first.magnification * self._lens(group.lens)[1] / first.reference_focal_length_mm
            return size / FACING, size * FACING
        if first is not None and group.front[0].reversed:
            size = self._lens(group.lens)[1] / self._lens(group.front[0])[1]
            return size / FACING, size * FACING
        start, end = group.extensions.span
        gear = group.lens.gear
        if gear.kind == "objective":
            longest = gear.magnification * (end + BEHIND_MOUNT_MM) / gear.tube_length_mm * 2
            low, high = (share * gear.magnification for share in WORTH_TRYING)
            return low, min(longest, high)
        shortest, longest, closest = self._lens(group.lens)
        if group.lens.reversed:
            barrel = gear.barrel_mm if gear.kind == "lens" else max(gear.short.barrel_mm, gear.long.barrel_mm)
            return 0.0, (end + barrel + BEHIND_MOUNT_MM) / shortest
        low, high = start / longest, closest + end / shortest
        for placed in group.front:
            if placed.gear.kind == "close_up":
                power = placed.gear.dioptres / 1000
                low, high = low + shortest * power * (1 + low), high + longest * power * (1 + high)
        for placed in group.behind:
            low, high = low * placed.gear.factor, high * placed.gear.factor
        for placed in group.before:
            if placed.gear.kind == "converter":
                # Extension behind the converter moves the picture away from it: it enlarges more.
                low, high = 0.0, high * placed.gear.factor * (1 + end / placed.gear.thickness_mm)
        return low, high

    def _lens(self, placed):
        """Shortest and longest focal length over the ring (mm), and the largest own magnification."""
        key = id(placed.gear), placed.at_focal_length_mm
        if key not in self.lenses:
            self.lenses[key] = _numbers(placed)
        return self.lenses[key]


def _numbers(placed):
    try:
        core = lens_numbers(placed).core
    except OpticsError:
        # Tried all the same, and refused there.
        return 1.0, 1.0, 1e6
    near = core.closest_focal_length or core.focal_length
    return min(core.focal_length, near), max(core.focal_length, near), core.closest_magnification
