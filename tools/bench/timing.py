"""Medians, and two things measured in turns, so that a busy moment falls on both."""

import statistics
import time


def time_of(work):
    """Time of one call, s."""
    start = time.perf_counter()
    work()
    return time.perf_counter() - start


def median_s(work, rounds):
    """Median time of ``work()``, s."""
    return statistics.median(time_of(work) for _ in range(rounds))


def medians_in_turns(works, rounds):
    """Median time of each of several works, one round of all after the other: list of s."""
    times = [[time_of(work) for work in works] for _ in range(rounds)]
    return [statistics.median(column) for column in zip(*times, strict=True)]


def high_s(times):
    """The 95th percentile, s."""
    return sorted(times)[int(len(times) * 0.95)]
