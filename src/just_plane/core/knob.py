"""The knob of a rail: marks on it instead of millimetres, and how far to go back so that its play is taken up."""

from typing import NamedTuple

import numpy as np

from just_plane.core.domain import positive

TAKE_UP = 1.5
"""Times the play, to go back past a mark before coming on to it."""
COARSE_STEPS = 5.0
"""Divisions a step from which whole ones are told; below, tenths of one."""


class Knob(NamedTuple):
    """What a turn moves, and how many marks there are to a turn."""

    mm_per_turn: float
    divisions: int
    play: float = 0.0
    """mm."""

    @property
    def division(self):
        """What one division moves, mm."""
        return self.mm_per_turn / self.divisions

    @property
    def take_up(self):
        """How far to go back past a mark, mm."""
        return TAKE_UP * self.play


def knob_places(knob, moved):
    """Where the knob stands for each of some places, in divisions from the first, so that rounding never adds up.

    Parameters
    ----------
    knob : Knob
    moved : (N,) array   mm from the first place.

    Returns
    -------
    (N,) array           Divisions: whole ones, or tenths where a step is less than five.
    """
    positive("mm_per_turn", knob.mm_per_turn, "mm")
    at = np.asarray(moved, dtype=float) / knob.division
    steps = np.abs(np.diff(at))
    finest = 1.0 if len(steps) == 0 or steps.min() >= COARSE_STEPS else 0.1
    return np.round(np.rint(at / finest) * finest, 1)
