"""Hands that sway and subjects that move: pure functions of time and seed.

A hand is a sum of sines: slow sway whose amplitude falls with its frequency, and a fine tremor. A draught is the same,
quicker, swelling and dying as gusts do. A living thing holds still and jumps. Amounts are assumed, not measured.
"""

import math
from functools import lru_cache
from typing import NamedTuple

import numpy as np

SWAYS, TREMORS, WINDS = 14, 10, 12
JUMPS_A_SECOND, JUMP_MM, JUMP_S = 0.2, 1.0, 0.08
FARTHEST_MM = 1.5
"""From its rest, that a living thing jumps."""
DRAUGHT_MM = 0.3
"""Standard deviation in the middle of a gust."""
GUST_S = 4.0
LONGEST_S = 3700.0
SUBJECTS = ("still", "draught", "alive")


class Hold(NamedTuple):
    """How steadily a camera is held: standard deviations along and across, mm."""

    sway: float
    tremor: float


HOLDS = {"rested": Hold(0.15, 0.01), "braced": Hold(0.4, 0.02), "standing": Hold(1.2, 0.05)}


def swayed(t, seed, hold="braced", axis=0):
    """Where a hand has the camera, from where it means to be.

    Parameters
    ----------
    t : float or (N,) array   s.
    seed : int
    hold : str or Hold        Of ``HOLDS``, or as it was measured.
    axis : int                0 along the lens, 1 and 2 across.

    Returns
    -------
    float or (N,) array       mm.
    """
    frequency, amplitude, phase = _hand(seed, hold, axis)
    return np.sin(2 * np.pi * frequency * np.asarray(t, dtype=float)[..., np.newaxis] + phase) @ amplitude


def subject_moved(t, seed, subject="still"):
    """Where the subject is, from its rest, toward the camera.

    Parameters
    ----------
    t : float or (N,) array   s.
    seed : int
    subject : str             Of ``SUBJECTS``.

    Returns
    -------
    float or (N,) array       mm.
    """
    t = np.asarray(t, dtype=float)
    if subject == "draught":
        frequency, amplitude, phase = _wind(seed)
        gust = (0.5 - 0.5 * np.cos(2 * np.pi * t / GUST_S + phase[0])) ** 2
        return gust * (np.sin(2 * np.pi * frequency * t[..., np.newaxis] + phase) @ amplitude)
    if subject == "alive":
        at, places = _jumps(seed)
        last = np.searchsorted(at, t, side="right")
        done = np.clip((t - at[np.maximum(last - 1, 0)]) / JUMP_S, 0.0, 1.0)
        before = places[np.maximum(last - 1, 0)]
        return before + (places[last] - before) * done * done * (3 - 2 * done)
    return np.zeros(t.shape)


@lru_cache(maxsize=16)
def _hand(seed, hold, axis):
    made = np.random.default_rng((78, seed, axis) if axis else (78, seed))
    slow, fast = np.geomspace(0.1, 1.2, SWAYS), np.linspace(8, 12, TREMORS)
    if axis:
        slow = slow * made.uniform(0.9, 1.1, SWAYS)  # or the axes would sway together
    held = HOLDS[hold] if isinstance(hold, str) else hold
    sway, tremor = _sines(1 / slow, held.sway), _sines(np.ones(TREMORS), held.tremor)
    return np.concatenate([slow, fast]), np.concatenate([sway, tremor]), made.uniform(0, 2 * np.pi, SWAYS + TREMORS)


@lru_cache(maxsize=8)
def _wind(seed):
    made = np.random.default_rng((81, seed))
    frequency = np.geomspace(0.3, 3.0, WINDS)
    return frequency, _sines(1 / frequency, DRAUGHT_MM), made.uniform(0, 2 * np.pi, WINDS)


def _sines(amplitudes, deviation):
    """The same with a standard deviation of their sum."""
    return amplitudes * deviation * math.sqrt(2) / np.linalg.norm(amplitudes)


@lru_cache(maxsize=8)
def _jumps(seed):
    """When it jumps, s, and where it is before the first and after each, mm."""
    made = np.random.default_rng((82, seed))
    at = np.cumsum(JUMP_S + made.exponential(1 / JUMPS_A_SECOND, int(2 * LONGEST_S * JUMPS_A_SECOND)))
    at = at[at < LONGEST_S]
    places = [0.0]
    for way in made.choice([-JUMP_MM, JUMP_MM], len(at)):
        to = places[-1] + way
        places.append(to if abs(to) <= FARTHEST_MM else places[-1] - way)
    return at, np.array(places)
