"""A comb along one direction of a frame: the frame folded strip by strip, and the spacing read from the phase's run."""

from typing import NamedTuple

import cv2
import numpy as np
from numpy.lib.stride_tricks import sliding_window_view

from just_plane.core.frames.spectrum import LEAST_SPACING, SQUARE, sharpened

LEAST_TICKS = 6
LEAST_LIKENESS = 0.5
"""Share of a strip's variation that a comb of one rhythm must explain, more when there are few ticks: a chance likeness
of a few waves is common, of many it is not."""
MOST_DRIFT = 0.15
MOST_SCATTER = 0.12
"""Of the phase about its even run, turns."""
LEAST_STRETCH = 0.2
"""Length of the comb as a share of the frame's longer side."""
LEAST_CONTRAST = 0.12
"""Of the comb, in the evened frame, whose own contrast is about 1."""
STRIPS = 24
LEAST_PIXELS = 3.0
"""Pixels of the frame in a bin of a strip from which their mean counts."""


class Comb(NamedTuple):
    score: float
    spacing: float
    uncertainty: float
    angle: float
    likeness: float
    drift: float
    ticks: np.ndarray
    """Places along the direction."""
    across: tuple
    stretch: tuple


def comb_along(flat, frequency, band=None):
    """The best comb that runs along one direction, or None.

    The whole frame is folded onto the direction strip by strip. Where a comb shows, its phase from strip to strip says
    how far the direction is off: it is mended and the frame folded again. A ruler's long ticks repeat more slowly, so
    finer combs of the same direction are tried too.

    Parameters
    ----------
    flat : (h, w) float32 array      Evened, as :func:`just_plane.core.frames.spectrum.evened` makes it.
    frequency : (float, float)       (fx, fy) of the comb, cycles a pixel.
    band : (float, float), optional  Where across its direction a comb is known to show, and its frequency well.

    Returns
    -------
    Comb or None                     Pixels.
    """
    fx, fy = sharpened(flat, frequency) if band is None else frequency
    pace, angle = float(np.hypot(fx, fy)), float(np.arctan2(fy, fx))
    found = None
    for _ in range(2):
        folded = _folded(flat, angle, band)
        found = _best_comb(folded, pace, angle)
        if found is None:
            return None
        finer = [_best_comb(folded, times / found.spacing, angle) for times in (2, 5, 10)]
        for comb in finer:
            if comb is not None and comb.score > found.score:
                found = comb
        pace, angle = 1 / found.spacing, angle + _off_by(folded, found)
    return found


class _Folded(NamedTuple):
    """The frame folded onto a direction: one profile a strip."""

    profiles: np.ndarray
    known: np.ndarray
    start: float
    """Along the direction, at the profiles' first entry, pixels."""
    low: float
    width: float
    """Across it: where the first strip begins, and how wide each is."""
    longest_side: int


def _folded(flat, angle, band=None):
    """Turn the frame, or a band of it, so that the direction lies level, and take the mean of each strip of it."""
    cos, sin = float(np.cos(angle)), float(np.sin(angle))
    height, width = flat.shape
    corners = [(x, y) for x in (0, width - 1) for y in (0, height - 1)]
    along = [x * cos + y * sin for x, y in corners]
    across = [y * cos - x * sin for x, y in corners]
    start, low, high = min(along), min(across), max(across)
    if band is not None:
        low, high = max(low, band[0]), min(high, band[1])
    bins, rows = int(max(along) - start) + 2, max(int(high - low), 0) + 1
    # A bin and a row are sampled in their middle.
    from_along, from_across = start + 0.5, low + 0.5
    back = np.array(
        [
            [cos, -sin, from_along * cos - from_across * sin],
            [sin, cos, from_along * sin + from_across * cos],
        ]
    )
    size = (bins, rows)
    level = cv2.warpAffine(flat, back, size, flags=cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP)
    there = cv2.warpAffine(np.ones(flat.shape, np.uint8), back, size, flags=cv2.INTER_NEAREST | cv2.WARP_INVERSE_MAP)
    strips = min(STRIPS, rows)
    share, mean = (
        cv2.resize(part, (bins, strips), interpolation=cv2.INTER_AREA) for part in (there.astype(np.float32), level)
    )
    known = share * rows / strips > LEAST_PIXELS
    profiles = np.divide(mean, share, out=np.zeros(mean.shape), where=known)
    return _Folded(profiles, known, start, low, rows / strips, max(flat.shape))


def _off_by(folded, comb):
    """How far the direction is off, radians, from how the comb's phase runs across the strips that show it."""
    centres = folded.low + (np.arange(len(folded.profiles)) + 0.5) * folded.width
    inside = np.flatnonzero((centres > comb.across[0]) & (centres < comb.across[1]))
    if len(inside) < 3:
        return 0.0
    places = np.arange(folded.profiles.shape[1])
    stretch = (places >= comb.stretch[0]) & (places < comb.stretch[1])
    wave = np.where(stretch, np.exp(-2j * np.pi * places / comb.spacing), 0.0)
    sums = folded.profiles[inside] @ wave
    turns = np.unwrap(np.angle(sums)) / (2 * np.pi)
    slope = np.polyfit(centres[inside], turns, 1, w=np.abs(sums) + 1e-12)[0]
    return float(np.clip(slope * comb.spacing, -0.1, 0.1))


def _best_comb(folded, pace, angle):
    """Join neighbouring strips that show a comb of this pace, and measure it on their mean; None without one."""
    profiles, known = folded.profiles, folded.known
    if pace <= 0 or pace > 1 / LEAST_SPACING * 1.02:
        return None
    strengths = _strengths(profiles, known, pace)
    if strengths.max() <= 0:
        return None
    peak = int(np.argmax(strengths))
    first = last = peak
    while first > 0 and strengths[first - 1] > 0.4 * strengths[peak]:
        first -= 1
    while last < len(strengths) - 1 and strengths[last + 1] > 0.4 * strengths[peak]:
        last += 1
    weight = known[first : last + 1].sum(axis=0)
    profile = profiles[first : last + 1].sum(axis=0) / np.maximum(weight, 1)
    measured = _measure(profile, weight > 0, pace)
    if measured is None:
        return None
    ticks, (begin, end) = len(measured.ticks), measured.stretch
    strong = float(np.std(profile[begin:end]))
    if (
        ticks < LEAST_TICKS
        or end - begin < LEAST_STRETCH * folded.longest_side
        or measured.likeness < LEAST_LIKENESS + 1.5 / ticks
        or abs(measured.drift) > MOST_DRIFT
        or strong < LEAST_CONTRAST
    ):
        return None
    return Comb(
        measured.likeness**2 * np.sqrt(ticks) * strong,
        measured.spacing,
        measured.uncertainty,
        angle,
        measured.likeness,
        measured.drift,
        folded.start + measured.ticks + 0.5,  # the middle of a bin lies half a pixel in
        (folded.low + first * folded.width, folded.low + (last + 1) * folded.width),
        measured.stretch,
    )


def _strengths(profiles, known, pace):
    """How much of each profile runs at the pace asked, in absolute terms: (strips,) array."""
    counts = known.sum(axis=1)
    turns = 2 * np.pi * pace * np.arange(profiles.shape[1])
    # Where nothing is known a profile holds 0.
    power = np.square(profiles @ np.cos(turns)) + np.square(profiles @ np.sin(turns))
    return np.where(counts >= 3 / pace, power / np.maximum(counts, 1), 0.0)


def _measure(profile, there, pace):
    """Spacing of a comb along a profile, from the run of its phase; None where there is none."""
    stretch = np.flatnonzero(there)
    if len(stretch) < LEAST_TICKS / pace:
        return None
    begin, end = int(stretch[0]), int(stretch[-1]) + 1
    pace = _finest(profile, begin, end, pace)
    window = max(round(3 / pace), 8)
    centres = np.arange(begin + window // 2, end - window // 2, max(window // 3, 1))
    if len(centres) < 4:
        return None
    phases, strengths = _demodulated(profile, centres - window // 2, window, pace)
    good = strengths > 0.35 * np.quantile(strengths, 0.8)
    first, last = _longest_run(good, allowed_gap=4)
    if last - first < 3:
        return None
    used = np.flatnonzero(good[first : last + 1]) + first
    begin, end = int(centres[first] - window // 2), int(centres[last] + window // 2)
    if len(used) < 4:
        return None
    at = centres[used].astype(float)
    middle = float(at.mean())
    turns = np.unwrap(phases[used]) / (2 * np.pi)
    # A ruler that does not lie square has a spacing that grows along it: the run of the phase bends.
    order = 2 if len(used) >= 6 else 1
    slope, offset = np.polyfit(at - middle, turns, order, w=strengths[used])[-2:]
    bend = np.polyfit(at - middle, turns, order, w=strengths[used])[0] if order == 2 else 0.0
    rest = turns - ((bend * (at - middle) + slope) * (at - middle) + offset)
    scatter = float(np.sqrt(np.mean(rest**2)))
    true_pace = pace + slope
    if scatter > MOST_SCATTER or true_pace <= 0:
        return None
    stretch = np.arange(begin, end)
    phase = pace * stretch + (bend * (stretch - middle) + slope) * (stretch - middle) + offset
    # Neighbouring windows overlap threefold, so only every third is news.
    news = max(len(used) / 3, 2.0)
    sigma = max(scatter, 0.002) / (np.sqrt(news) * max(float(np.std(at)), 1.0))
    values = profile[begin:end] - profile[begin:end].mean()
    return _Run(
        float(1 / true_pace),
        float(sigma / true_pace**2),
        _likeness(values, phase),
        float(2 * bend * (end - begin) / true_pace),
        _crests(values, phase, stretch),
        (begin, end),
    )


def _demodulated(profile, starts, window, pace):
    """Phase and strength at a pace in windows of a profile: two (N,) arrays."""
    values = sliding_window_view(profile, window)[starts]
    values = values - values.mean(axis=1, keepdims=True)
    shape = np.hanning(window + 2)[1:-1]
    # Every window begins at a phase of its own; inside, all turn alike.
    inside = values @ (shape * np.exp(-2j * np.pi * pace * np.arange(window)))
    sums = inside * np.exp(-2j * np.pi * pace * starts)
    return np.angle(sums), np.abs(sums) / shape.sum()


def _finest(profile, begin, end, pace):
    """The pace near the one asked at which the profile is strongest: the spectrum's samples are coarse."""
    values = (profile[begin:end] - profile[begin:end].mean()) * np.hanning(end - begin)
    places = np.arange(end - begin)
    width = 0.75 / SQUARE
    for _ in range(3):
        paces = np.linspace(pace - width, pace + width, 33)
        # From one pace to the next every term turns by the same: products in place of exponentials.
        terms = values * np.exp(-2j * np.pi * paces[0] * places)
        turn = np.exp(-2j * np.pi * (paces[1] - paces[0]) * places)
        strengths = np.empty(len(paces))
        for index in range(len(paces)):
            strengths[index] = abs(terms.sum())
            terms *= turn
        pace = float(paces[int(np.argmax(np.where(paces > 0, strengths, -1.0)))])
        width /= 12
    return pace


def _longest_run(good, allowed_gap):
    """First and last index of the longest stretch of good windows, gaps of a few allowed: a thumb on the ruler."""
    best, start, last = (0, -1), 0, -(10**9)
    for index in np.flatnonzero(good).tolist():
        if index - last > allowed_gap:
            start = index
        last = index
        if last - start > best[1] - best[0]:
            best = (start, last)
    return best


def _likeness(values, phase):
    """Share of the variation explained by a comb of this phase (turns) and its next three overtones."""
    total = float((values**2).sum())
    if total <= 0:
        return 0.0
    # The long ticks of a ruler repeat more slowly: let a slow change pass too.
    columns = [np.ones(len(values)), np.arange(len(values)) / len(values)]
    for overtone in (1, 2, 3, 4):
        if overtone * (phase[-1] - phase[0]) < 0.5 * len(phase):
            columns += [np.cos(2 * np.pi * overtone * phase), np.sin(2 * np.pi * overtone * phase)]
    basis = np.stack(columns, axis=1)
    # Waves over several turns are nearly at right angles: the normal equations lose nothing, and are soon solved. Least
    # squares of them, since over few turns two columns may be alike.
    answer, *_ = np.linalg.lstsq(basis.T @ basis, basis.T @ values, rcond=None)
    return float(1 - ((values - basis @ answer) ** 2).sum() / total)


def _crests(values, phase, places):
    """Places of the ticks, where the comb's phase passes them: dark on light or light on dark, the narrower of both."""
    lag = np.angle((values * np.exp(-2j * np.pi * phase)).sum()) / (2 * np.pi)
    bright = float(np.mean(values**3)) > 0
    turns = phase + lag + (0.0 if bright else 0.5)
    whole = np.arange(np.ceil(turns[0]), np.floor(turns[-1]) + 1)
    return np.interp(whole, turns, places)


class _Run(NamedTuple):
    """How a comb runs along a profile. Pixels."""

    spacing: float
    uncertainty: float
    likeness: float
    drift: float
    ticks: np.ndarray
    stretch: tuple
