"""Clocks: the real one, and one whose hours pass at once."""

import threading
import time


class RealClock:
    """The clock on the wall, from its start."""

    def __init__(self):
        self._start = time.monotonic()

    def now(self):
        """s since it was made."""
        return time.monotonic() - self._start

    def sleep(self, seconds):
        """Wait so long."""
        time.sleep(max(seconds, 0.0))


class FastClock:
    """A clock of the set's own time: waiting passes at once, or so many times faster than the wall's."""

    def __init__(self, times=None, start=0.0):
        """
        Parameters
        ----------
        times : float or None   How many times faster; None: nothing is waited for.
        start : float           s that it shows at first.
        """
        self._times = times
        self._now = start
        self._lock = threading.Lock()

    def now(self):
        """s of the set's time."""
        with self._lock:
            return self._now

    def sleep(self, seconds):
        """Let so much of the set's time pass."""
        seconds = max(seconds, 0.0)
        if self._times is not None:
            time.sleep(seconds / self._times)
        with self._lock:
            self._now += seconds
