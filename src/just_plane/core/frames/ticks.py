"""Whether an even comb is a ruler's: ticks of several lengths in a fixed pattern, all from one edge.

Keys, cloth, blinds, beads and lines of text repeat as evenly as a ruler does; what they do not have is that every
second, fourth, fifth, eighth, tenth or sixteenth stroke reaches farther than the others. See docs/derivations/ruler.md.
"""

import cv2
import numpy as np

PERIODS = (2, 4, 5, 8, 10, 16, 20)
"""Every how manyth tick may be a longer one: millimetres by five and ten, inches by halves."""
SAMPLES = 16
"""Across one tick and its gap."""
REACH = 1.2
"""How far beyond the strips that show the comb longer ticks are looked for, as a share of their width."""
CLEAR = 0.35
"""By which longer ticks must stand above the others where only they reach, as a share of a tick's own contrast."""
LEAST_LENGTH = 0.4
"""Of the part where only the longer ones reach, in spacings."""
LEAST_LONGER = 2
ALL_SHOW = 0.45
"""Share of the usual contrast that nearly every tick has where all of them reach."""
GONE = 0.25
"""Share of it under which there is no tick."""
MOST_LEAN = 0.12
LEANS = 97
AT_ONCE = 8
"""Parts in which they are tried, so that many ticks take little memory."""
SHOWS = 0.35
"""Share of the usual contrast below which a tick is covered, or out of focus, and does not count."""


def has_ruler_pattern(flat, spacing, angle, ticks, across):
    """Whether ticks have lengths that follow a ruler's pattern.

    Parameters
    ----------
    flat : (h, w) float32 array   Evened frame.
    spacing : float               Between ticks, pixels.
    angle : float                 Direction of the ruler's length, radians.
    ticks : (n,) array            Places of the ticks along that direction, pixels.
    across : (float, float)       Where across it the comb shows, pixels.

    Returns
    -------
    bool
    """
    ticks = np.asarray(ticks, dtype=float)
    for _ in range(2):
        strength = _strengths(flat, spacing, angle, ticks, across)
        # The comb's direction is known by its phase alone; where the ticks end tells it better.
        lean = _lean(strength, ticks, _step(spacing))
        ticks, across = _turned(ticks, across, lean)
        angle += lean
    strength = _strengths(flat, spacing, angle, ticks, across)
    usual = np.median(strength, axis=0)
    if usual.max() <= 0:
        return False
    each = strength[:, usual >= 0.6 * usual.max()].mean(axis=1)
    level = float(np.median(each))
    shown = each > SHOWS * level
    if level <= 0 or shown.sum() < 6:
        return False
    places, strength = np.flatnonzero(shown), strength[shown] / level
    least = max(round(LEAST_LENGTH * spacing / _step(spacing)), 2)
    # Every tick reaches from the ruler's edge so far; from there on only the longer ones.
    start, end = _longest_run(np.quantile(strength, 0.15, axis=0) > ALL_SHOW)
    if end - start < least:
        return False
    toward = [strength[:, end:]] if _ends(strength[:, :start][:, ::-1], least) else []
    toward += [strength[:, :start][:, ::-1]] if _ends(strength[:, end:], least) else []
    return any(
        _only_longer(beyond, places % period == first, least)
        for beyond in toward
        for period in PERIODS
        for first in range(period)
        if _enough(places, period, first)
    )


def _lean(strength, ticks, step):
    """By how much the line of the ticks' ends leans against the direction, radians: most of a sum over all ticks stands
    in few places when they are lined up."""
    along = (ticks - ticks.mean())[:, None] / step
    columns = np.arange(strength.shape[1])[None, :]
    rows = np.arange(len(ticks))[:, None]
    best, found = -1.0, 0.0
    for leans in np.array_split(np.linspace(-MOST_LEAN, MOST_LEAN, LEANS), AT_ONCE):
        shifted = columns + np.round(leans[:, None, None] * along).astype(np.intp)
        lined_up = strength[rows, np.clip(shifted, 0, strength.shape[1] - 1)].mean(axis=1)
        for lean, score in zip(leans, np.square(np.diff(lined_up)).sum(axis=1), strict=True):
            if score > best * (1 + 1e-9):
                best, found = float(score), float(lean)
    return found


def _turned(ticks, across, lean):
    """Places of the ticks, and where across they show, along a direction turned by ``lean`` radians."""
    middle = (across[0] + across[1]) / 2
    along = ticks * np.cos(lean) + middle * np.sin(lean)
    moved = middle * np.cos(lean) - ticks.mean() * np.sin(lean)
    half = (across[1] - across[0]) / 2
    return along, (moved - half, moved + half)


def _ends(beyond, least):
    """Whether the ticks end there, as they do at the ruler's edge (``beyond``: (n, a), outward)."""
    if beyond.shape[1] <= least:
        return True
    near = beyond[:, least // 2 : 2 * least]
    return bool(np.quantile(np.abs(near), 0.5, axis=0).max() < GONE and np.quantile(near, 0.9) < ALL_SHOW)


def _only_longer(beyond, longer, least):
    """Whether the longer ticks go on from where the others end: (n, a) outward, (n,) bool."""
    out = _stands_out(beyond, longer)
    first = int(np.argmax(out)) if out.any() else len(out)
    if first > 2 * least:
        return False
    run = out[first : first + least].tolist()
    return len(run) == least and all(run)


def _enough(places, period, first):
    """Of a pattern by five or more, one long tick may be all that the frame holds."""
    longer = int(np.count_nonzero(places % period == first))
    least = 1 if period >= 5 else LEAST_LONGER
    return longer >= least and len(places) - longer >= max(LEAST_LONGER, longer // 2)


def _stands_out(strength, longer):
    """Where across the ruler the longer ticks show and the others do not: (a,) bool array."""
    on, off = strength[longer], strength[~longer]
    few = len(on) < 5
    on_low = on.min(axis=0) if few else np.quantile(on, 0.2, axis=0)
    # One in so many is a pattern only when hardly any other reaches as far.
    return (on_low - np.quantile(off, 0.85, axis=0) > CLEAR) & (np.median(on, axis=0) > 0.5)


def _step(spacing):
    return max(spacing / 12, 1.0)


def _strengths(flat, spacing, angle, ticks, across):
    """How much darker (or lighter) than its gaps each tick is, place by place across the ruler: (n, a) array."""
    cos, sin = np.cos(angle), np.sin(angle)
    width = across[1] - across[0]
    depths = np.arange(across[0] - REACH * width - spacing, across[1] + REACH * width + spacing, _step(spacing))
    offsets = (np.arange(SAMPLES) + 0.5) / SAMPLES - 0.5
    local = np.gradient(ticks)
    along = (ticks[:, None] + offsets[None, :] * local[:, None]).ravel()[:, None]
    x = (along * cos - depths[None, :] * sin).astype(np.float32)
    y = (along * sin + depths[None, :] * cos).astype(np.float32)
    light = cv2.remap(flat, x, y, cv2.INTER_LINEAR, borderMode=cv2.BORDER_CONSTANT, borderValue=0.0)
    light = light.reshape(len(ticks), SAMPLES, len(depths))
    on = np.abs(offsets) < 0.15
    gaps = np.abs(offsets) > 0.32
    strength = light[:, on].mean(axis=1) - light[:, gaps].mean(axis=1)
    inside = (depths >= across[0]) & (depths <= across[1])
    if strength[:, inside].mean() < 0:
        strength = -strength
    smooth = max(round(0.3 * spacing / _step(spacing)), 1)
    return cv2.blur(strength.astype(np.float32), (smooth, 1), borderType=cv2.BORDER_REPLICATE)


def _longest_run(good):
    """Where the longest stretch of True begins and ends: (int, int)."""
    edges = np.flatnonzero(np.diff(np.concatenate([[False], good, [False]]).astype(int)))
    if not edges.size:
        return 0, 0
    longest = int(np.argmax(edges[1::2] - edges[::2]))
    return int(edges[2 * longest]), int(edges[2 * longest + 1])
