"""Dust on the sensor: a spot that takes light at the same place of frames in which the subject there is out of focus.

What the subject itself shows in such a frame is foretold from the frames that are sharp there; dust is what stays. A
dark grain of the subject is foretold with the rest, and out of focus nothing of the subject is small.
"""

from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.bands import band, smoothed
from just_plane.core.frames.check.foretold import Window
from just_plane.core.frames.check.tiles import GAMMA

LEAST_FRAMES = 8
LOOKED_AT = 5
"""Frames, evenly through the stack: so each place is sharp in one, and far out of focus in two."""
WIDEST = 1600
"""Px across; larger pictures are looked at by fewer."""
SIZES = ((1.5, 4.0), (3.0, 8.0))
"""Bands that hold a spot, px: of a few px across, and of some more."""
DARK = -0.025
"""ln of encoded light in the band."""
OUTSTANDING = 6.0
"""Times the spread of the same measure around: what could not be foretold there."""
AROUND, MOST_MEDIANS = 24.0, 8
"""Px over which that spread is taken; more than so many medians of the frame counts no more, or a spot hid itself."""
BORDER = 3
"""Times the wider smoothing of the band: nearer to the edge of the frame, what lies outside is in it."""
LEAST_PX, MOST_PX = 8, 250
LONGEST = 2.0
"""As wide as high within this ratio."""
ALONE = 0.5
"""Nothing so dark, of the spot itself, on the ring around it."""
JUMP, NEAR_JUMP = 0.5, 12
"""Of how far a place is from focus, px: so near to such a jump of depth what lies behind is seen around the edge, and
cannot be foretold."""
AS_DARK = (0.5, 2.0)
"""In the second frame, of how dark it is in the first."""
STILL_THERE = 0.35
"""In the third, which has part of the spot in what foretells it."""
LEAST_BLUR_CIRCLES = 4.0
"""How far out of focus the subject must be in the first frame: nearer, it keeps spots of its own. In the second, of
frames that stand evenly, it is so by two thirds of that at least."""
THIRD_CIRCLES = 1.5, 2.5
"""How far out of focus it must be in the third to be asked at all, and to be asked for all of that."""


class Spot(NamedTuple):
    """A spot on the sensor, px of the picture that is measured."""

    x: float
    y: float
    radius: float
    darkness: float
    """Share of the light taken away in its middle."""


def dust(sharpest, step_px, circle_px):
    """Spots that are dust.

    Parameters
    ----------
    sharpest : Sharpest   Holds LOOKED_AT frames, in the order of focus.
    step_px : float       Blur that one step adds by the plan, px.
    circle_px : float     Circle of confusion, px.

    Returns
    -------
    list of Spot
    """
    frames = list(sharpest.pictures)
    ends = {frame: sharpest.of(frame) for frame in (frames[0], frames[-1])}
    steps = {frame: foretold.step_px(step_px) for frame, foretold in ends.items()}
    (first, last) = ends.values()
    in_last = last.away > first.away

    def by_the_farther(of_end):
        return np.where(in_last, *(of_end(ends[frame], steps[frame]) for frame in (frames[-1], frames[0])))

    beyond = by_the_farther(lambda end, step: end.beyond(step))
    blur = by_the_farther(lambda end, step: step * end.away)
    judged = (blur >= LEAST_BLUR_CIRCLES * circle_px) & ~by_the_farther(lambda end, _step: _jumps(end))
    spots: list = []
    for size in SIZES:
        for spot in _spots(beyond, judged, size):
            known = any(np.hypot(spot.x - one.x, spot.y - one.y) < spot.radius + one.radius for one in spots)
            if not known and _stays(spot, size, sharpest, steps, circle_px):
                spots.append(spot)
    return spots


def _jumps(foretold):
    """Where depth jumps near by."""
    around = np.ones((2 * NEAR_JUMP + 1,) * 2, np.uint8)
    return cv2.dilate(foretold.depth, around) - cv2.erode(foretold.depth, around) > JUMP * foretold.away


def _spots(beyond, judged, size):
    """Small round places that are darker than foretold."""
    dark = band(beyond, *size)
    usual = np.abs(dark)
    spread = np.sqrt(smoothed(np.minimum(usual, MOST_MEDIANS * np.median(usual)) ** 2, AROUND))
    chosen = judged & (dark < np.minimum(DARK, -OUTSTANDING * spread))
    edge = round(BORDER * size[1])
    chosen[:edge], chosen[-edge:], chosen[:, :edge], chosen[:, -edge:] = False, False, False, False
    count, labels, stats, centres = cv2.connectedComponentsWithStats(chosen.astype(np.uint8), connectivity=8)
    found = (_spot(index, labels, stats, centres, dark, beyond) for index in range(1, count))
    return [spot for spot in found if spot is not None]


def _spot(index, labels, stats, centres, dark, beyond):
    area = int(stats[index, cv2.CC_STAT_AREA])
    wide, high = int(stats[index, cv2.CC_STAT_WIDTH]), int(stats[index, cv2.CC_STAT_HEIGHT])
    if not LEAST_PX <= area <= MOST_PX or max(wide, high) > LONGEST * min(wide, high):
        return None
    x, y = (float(value) for value in centres[index])
    radius = (area / np.pi) ** 0.5
    darkest = float(dark[labels == index].min())
    ring = _ring(dark.shape, x, y, radius + 4, radius + 8)
    if not len(ring[0]) or dark[ring].min() < ALONE * darkest:
        return None
    plain = np.median(beyond[ring])
    middle = np.median(beyond[_ring(dark.shape, x, y, 0, max(radius / 2, 1))])
    half = np.count_nonzero(beyond[_ring(dark.shape, x, y, 0, radius + 4)] < (plain + middle) / 2)
    return Spot(x, y, float((half / np.pi) ** 0.5), float(1 - np.exp(GAMMA * (middle - plain))))


def _stays(spot, size, sharpest, steps, circle_px):
    """Whether a spot is as dark in the two frames that are farthest out of focus there, and is there in the third."""
    told = [_told(spot, size, sharpest, frame, step) for frame, step in _steps_of(sharpest, steps)]
    (_, first), (_, second), (blur, third) = sorted(told, reverse=True)[:3]
    if not AS_DARK[0] <= second / first <= AS_DARK[1]:
        return False
    least, full = (circles * circle_px for circles in THIRD_CIRCLES)
    return blur < least or third / first >= STILL_THERE * min(blur / full, 1)


def _steps_of(sharpest, steps):
    """What a step blurs in each frame: as in the end that is nearer to it."""
    for frame in sharpest.pictures:
        nearer = min(steps, key=lambda end: abs(sharpest.places[end] - sharpest.places[frame]))
        yield frame, steps[nearer]


def _told(spot, size, sharpest, frame, step_px):
    """How far out of focus a frame is at a spot, and how dark."""
    height, width = sharpest.pictures[frame].shape
    reach = round(3 * size[1] + spot.radius + 0.6 * step_px * np.ptp(list(sharpest.places.values())))
    left, top = max(round(spot.x) - reach, 0), max(round(spot.y) - reach, 0)
    window = Window(
        left, top, min(round(spot.x) + reach + 1, width) - left, min(round(spot.y) + reach + 1, height) - top
    )
    foretold = sharpest.of(frame, window)
    x, y = round(spot.x) - left, round(spot.y) - top
    near = (slice(max(y - 1, 0), y + 2), slice(max(x - 1, 0), x + 2))
    return step_px * float(foretold.away[y, x]), float(band(foretold.beyond(step_px), *size)[near].mean())


def _ring(shape, x, y, inner, outer):
    top, bottom = max(int(y - outer), 0), min(int(y + outer) + 2, shape[0])
    left, right = max(int(x - outer), 0), min(int(x + outer) + 2, shape[1])
    rows, columns = np.mgrid[top:bottom, left:right]
    far = np.hypot(columns - x, rows - y)
    chosen = (far >= inner) & (far <= outer)
    return rows[chosen], columns[chosen]
