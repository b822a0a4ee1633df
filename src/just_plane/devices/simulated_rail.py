"""A rail that is not there: its reading, which it believes, and its truth, which only the set sees, are apart.

The screw is the reading rounded to the smallest step, and what it slipped; the carriage follows it with
play; and the screw's own error, drift to the side, sag, and swinging after a move are laid over. All that goes wrong
is off until it is asked for, and the same again for the same seed.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.devices.protocols import DeviceError, RailFacts, RailState

SWING_S, SWING_HZ = 0.35, 6.0
"""How fast swinging dies, and how fast it swings. [a]"""
SPEED_MM_S = 2.0
NOISE_MM = 0.0005
TAKE_UP = 1.5
"""Times the play that is gone back past a mark."""


class RailFaults(NamedTuple):
    """What a rail does that it should not. All 0: a perfect one."""

    backlash_mm: float = 0.0
    periodic_mm: float = 0.0
    """Half height of the screw's own error over one turn."""
    turn_mm: float = 1.0
    drift_right: float = 0.0
    """mm to the side for each mm along: ratio."""
    sag: float = 0.0
    """mm down for each mm along: ratio."""
    swing_mm: float = 0.0
    """Across, right after a move."""
    slips_at: int | None = None
    """Number of the move at which the carriage slips on, and stays so."""
    slip_mm: float = 0.0
    """Further than it believes; below 0: steps were lost."""
    gone_at: int | None = None
    """Number of the move at which it does not answer, once."""


class Truth(NamedTuple):
    """Where the carriage really is: along, and across to the right and up, mm."""

    along: float
    right: float
    up: float


class SimulatedRail:
    """A rail of the simulated set."""

    def __init__(self, clock, faults=None, *, start=0.0, travel=(-200.0, 200.0), smallest_step=0.001, seed=0):
        """
        Parameters
        ----------
        clock : Clock
        faults : RailFaults or None
        start : float               Reading at the start, mm.
        travel : (float, float)     Readings of its ends, mm.
        smallest_step : float       mm.
        seed : int
        """
        self.clock = clock
        self.faults = faults or RailFaults()
        self._travel = travel
        self._step = smallest_step
        self._noise = np.random.default_rng(seed)
        self._reading = start
        self._screw = self._carriage = start
        self._moves = 0
        self._slipped = 0.0
        self._moved_at = -math.inf
        self._stopped = False

    def facts(self):
        """What it is."""
        play = self.faults.backlash_mm
        low, high = self._travel
        return RailFacts("simulated rail", low, high, self._step, TAKE_UP * play if play else 5 * self._step)

    def state(self):
        """Where it believes that it stands."""
        return RailState(self._reading, False)

    def move_to(self, reading_mm):
        """Go there; refuses before it moves where that is past its travel."""
        low, high = self._travel
        if not (math.isfinite(reading_mm) and low <= reading_mm <= high):
            raise DeviceError(
                "limit",
                f"The rail goes from {low:g} to {high:g} mm; {reading_mm:.3f} is past its end.",
                "Move the whole rail on its support, and start again from there.",
            )
        self._moves += 1
        if self.faults.gone_at is not None and self._moves == self.faults.gone_at:
            raise DeviceError("lost", "The rail does not answer.", "Look at its cable and power, then go on.", 2.0)
        self._stopped = False
        wanted = round(reading_mm / self._step) * self._step
        self.clock.sleep(abs(wanted - self._reading) / SPEED_MM_S)
        if self._stopped:
            raise DeviceError("refused", "The rail was stopped.", "Go on when it may move.")
        if self._moves == self.faults.slips_at:
            self._slipped += math.copysign(1.0, wanted - self._reading) * self.faults.slip_mm
        self._reading = wanted
        self._screw = wanted + self._slipped + NOISE_MM * float(self._noise.standard_normal())
        half = self.faults.backlash_mm / 2
        self._carriage = min(max(self._carriage, self._screw - half), self._screw + half)
        self._moved_at = self.clock.now()
        return self._reading

    def stop(self):
        """Stand still."""
        self._stopped = True

    def truth(self, at=None):
        """Where it really is: for the set alone.

        Parameters
        ----------
        at : float or None   Time on the clock, s; None: now.

        Returns
        -------
        Truth
        """
        faults = self.faults
        since = (self.clock.now() if at is None else at) - self._moved_at
        along = self._carriage + faults.periodic_mm * math.sin(2 * math.pi * self._screw / faults.turn_mm)
        swing = 0.0
        if faults.swing_mm and since < 20 * SWING_S:
            swing = faults.swing_mm * math.exp(-since / SWING_S) * math.cos(2 * math.pi * SWING_HZ * since)
        return Truth(along, faults.drift_right * along + swing, -faults.sag * along + swing / 2)


class HandRail:
    """A rail that a hand turns: it stands where it was told to, as well as a mark can be read."""

    READ_MM = 0.004
    """How well a mark is met. [a]"""

    def __init__(self, start=0.0, seed=0):
        self._noise = np.random.default_rng(seed)
        self._reading = self._true = start

    def facts(self):
        """What it is."""
        return RailFacts("by hand", -math.inf, math.inf, self.READ_MM, 1.0)

    def state(self):
        """Where it was turned to."""
        return RailState(self._reading, False)

    def move_to(self, reading_mm):
        """It was turned there."""
        self._reading = reading_mm
        self._true = reading_mm + self.READ_MM * float(self._noise.standard_normal())
        return reading_mm

    def stop(self):
        """A hand stops by itself."""

    def truth(self, at=None):
        """Where it really is: for the set alone."""
        return Truth(self._true, 0.0, 0.0)
