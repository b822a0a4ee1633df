"""Focusing by rocking: the hand carries the camera to and fro through the plane, and the press must lead it.

A press is judged where camera and subject are when the shutter opens, not where they were seen.
"""

import math
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from just_plane.core.practice.drill import CIRCLE, FOCAL
from just_plane.core.practice.sway import Hold, subject_moved, swayed

ROCK_MM, ROCK_HZ = 2.0, 0.4
SHUTTER_LAG_S = 0.06
LED_SCATTER_S = 0.04
"""How well a hand that leads meets the moment. [a]"""
LOOK_S = 120.0
STEP_S = 0.005
LATE_S = 0.35
"""A press farther from a crossing belongs to none."""


class Rocking(NamedTuple):
    """One exercise."""

    seed: int
    magnification: float
    f_number: float
    hold: str | Hold = "braced"
    """Of ``HOLDS``, or as it was measured."""
    subject: str = "still"
    """Of ``SUBJECTS``."""

    @property
    def works_as(self):
        """Effective f-number: float."""
        return self.f_number * (1 + self.magnification)

    @property
    def depth(self):
        """Of field, mm: float."""
        return 2 * CIRCLE * self.works_as / self.magnification**2

    @property
    def distance(self):
        """Lens to the plane of focus, mm: float."""
        return FOCAL * (1 + 1 / self.magnification)


def make_rocking(seed, hold="braced", subject="still"):
    """A drill in rocking.

    Parameters
    ----------
    seed : int
    hold : str or Hold   How steadily the camera is held: of ``HOLDS``, or as it was measured.
    subject : str   What the subject does: of ``SUBJECTS``.

    Returns
    -------
    Rocking
    """
    made = np.random.default_rng((77, seed))
    return Rocking(seed, float(made.uniform(0.9, 1.3)), float(made.choice([4.0, 5.6, 8.0])), hold, subject)


def carried(t, drill, slower=1.0):
    """Where the hand has the camera: from the plane, toward the subject as it is then.

    Parameters
    ----------
    t : float or (N,) array   s.
    drill : Rocking
    slower : float            Times as slow: for those who ask for less motion.

    Returns
    -------
    float or (N,) array       mm.
    """
    t = np.asarray(t, dtype=float) / slower
    rock = ROCK_MM * np.sin(2 * np.pi * ROCK_HZ * t)
    return rock + swayed(t, drill.seed, drill.hold) + subject_moved(t, drill.seed, drill.subject)


def carried_across(t, drill, slower=1.0):
    """Where the hand has the camera across.

    Parameters
    ----------
    t : float        s.
    drill : Rocking
    slower : float

    Returns
    -------
    (float, float)   mm, right and up.
    """
    right, up = (float(swayed(t / slower, drill.seed, drill.hold, axis)) for axis in (1, 2))
    return right, up


def hits(drill, times, slower=1.0):
    """Which presses were sharp.

    Parameters
    ----------
    drill : Rocking
    times : (N,) array   s, when it was pressed.
    slower : float

    Returns
    -------
    (N,) bool array
    """
    at = np.asarray(times, dtype=float) + SHUTTER_LAG_S
    return np.abs(carried(at, drill, slower)) <= drill.depth / 2


@lru_cache(maxsize=16)
def chances(drill, slower=1.0):
    """Share of hits of a press at random, and of a hand that leads.

    Parameters
    ----------
    drill : Rocking
    slower : float

    Returns
    -------
    (float, float)
    """
    times = np.arange(0, LOOK_S, STEP_S)
    random = float((np.abs(carried(times, drill, slower)) <= drill.depth / 2).mean())
    crossings = _crossings(drill, slower)
    scatter = np.random.default_rng((79, drill.seed)).normal(0, LED_SCATTER_S, (len(crossings), 20))
    led = crossings[:, np.newaxis] - SHUTTER_LAG_S + scatter
    return random, float(hits(drill, led.ravel(), slower).mean())


def lateness(drill, times, slower=1.0):
    """How late the presses were, on the whole: the median, s; None where none belongs to a crossing.

    Parameters
    ----------
    drill : Rocking
    times : (N,) array   s.
    slower : float

    Returns
    -------
    float or None        Below 0: early.
    """
    crossings = _crossings(drill, slower, max([*times, 0.0]) + 2)
    off = []
    for at in np.asarray(times, dtype=float) + SHUTTER_LAG_S:
        away = at - crossings
        nearest = float(away[np.argmin(np.abs(away))]) if len(away) else math.inf
        if abs(nearest) < LATE_S:
            off.append(nearest)
    return float(np.median(off)) if off else None


def _crossings(drill, slower, until=LOOK_S):
    times = np.arange(0, until, STEP_S)
    place = carried(times, drill, slower)
    at = np.flatnonzero(np.sign(place[1:]) != np.sign(place[:-1]))
    return times[at] + STEP_S * place[at] / (place[at] - place[at + 1])


def rocking_score(drill, times, slower=1.0):
    """Share of hits, between a press at random and a hand that leads.

    Parameters
    ----------
    drill : Rocking
    times : (N,) array   s.
    slower : float

    Returns
    -------
    float                0 to 100.
    """
    random, led = chances(drill, slower)
    share = float(hits(drill, times, slower).mean()) if len(times) else 0.0
    return 100 * min(max((share - random) / max(led - random, 1e-6), 0.0), 1.0)
