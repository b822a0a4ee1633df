"""The plane through points that must be sharp: the one with the smallest largest deviation."""

from functools import cache
from itertools import combinations
from typing import NamedTuple

import numpy as np

from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane.points import checked

MOST_WORKING = 16
"""Points tried four by four at a time when a plane is fitted."""


class PlaneFit(NamedTuple):
    """A plane and how far the worst of the points lies from it along z. mm; slopes are ratios."""

    z0: float
    slope_x: float
    slope_y: float
    largest_deviation: float


def fit_plane(points):
    """The plane with the smallest largest deviation from the points, along z.

    Not least squares: one missed point is a missed shot.

    Parameters
    ----------
    points : (N, 3) array   x, y, z in mm; at least three, not in one line as seen by the camera.

    Returns
    -------
    PlaneFit

    Raises
    ------
    OutOfDomainError        Wrong shape, a value that is not finite, too few points, or all in one line.

    Notes
    -----
    Some four points carry the limit (three when the fit is exact). They are found among a few that are tried four by
    four, the worst of the rest being taken in until none is worse. Exact to rounding for points in general position;
    where some stand together or in one line, within 0.1 um.

    References
    ----------
    docs/derivations/plane.md
    """
    xyz = _ends_of_each_place(checked(points))
    ground = np.column_stack([np.ones(len(xyz)), xyz[:, 0] - xyz[:, 0].mean(), xyz[:, 1] - xyz[:, 1].mean()])
    z = xyz[:, 2]
    _must_span(ground)
    apart = _set_apart(ground)
    working = _wide_apart(apart)
    while True:
        plane, deviation = _plane_of_few(apart[working], z[working])
        off = np.abs(z - ground @ plane)
        rest = np.delete(np.arange(len(z)), working)
        if not rest.size or off[rest].max() <= deviation + 1e-9:
            break
        worst = int(rest[np.argmax(off[rest])])
        if len(working) >= MOST_WORKING:
            # The deviation has grown with every point taken in, so those that no longer carry it can go.
            working = [i for i in working if off[i] >= deviation * (1 - 1e-9) - 1e-9]
        working.append(worst)
    z0 = plane[0] - plane[1] * xyz[:, 0].mean() - plane[2] * xyz[:, 1].mean()
    return PlaneFit(float(z0), float(plane[1]), float(plane[2]), float(off.max()))


def carrying_points(points, fit):
    """Indices of the points that carry the limit: those as far from the plane as the worst (within 1e-6 of it).

    Parameters
    ----------
    points : (N, 3) array   mm.
    fit : PlaneFit          Of these points.

    Returns
    -------
    tuple of int
    """
    off = np.abs(deviations(points, fit))
    return tuple(int(i) for i in np.flatnonzero(off >= fit.largest_deviation * (1 - 1e-6) - 1e-9))


def deviations(points, fit):
    """How far behind the plane each point lies along z, mm: (N,) array; negative is before it.

    Parameters
    ----------
    points : (N, 3) array   mm; one or more.
    fit : PlaneFit

    Returns
    -------
    (N,) array              mm.
    """
    xyz = checked(points, least=1)
    return xyz[:, 2] - (fit.z0 + fit.slope_x * xyz[:, 0] + fit.slope_y * xyz[:, 1])


def _ends_of_each_place(xyz):
    """Of points at one place only the nearest and the farthest can carry the limit; the others are left out.

    One place is the same nanometre: nobody points finer, and steeper planes than that tells apart mean nothing.
    """
    places: dict = {}
    for point in xyz.tolist():
        places.setdefault((round(point[0], 6), round(point[1], 6)), []).append(point)
    kept: list = []
    for together in places.values():
        together.sort(key=lambda point: point[2])
        kept += together if len(together) < 2 else [together[0], together[-1]]
    return np.array(kept)


def _must_span(ground):
    size = np.abs(ground[:, 1:]).max()
    spread = np.linalg.svd(ground / np.array([1.0, size or 1.0, size or 1.0]))[1]
    if size == 0 or spread[-1] < 1e-9 * spread[0]:
        raise OutOfDomainError(
            "points.in_line",
            quantity="points",
            value=len(ground),
            message="The points lie in one line as the camera sees them: any plane through the line would do.",
            remedy="Add a point to the side of it.",
        )


def _set_apart(ground):
    """The points' places, moved by a ten-billionth of their spread, so that none stand in line or together.

    Trying fours needs points in general position; the move changes a deviation by the slope times as little.
    """
    size = np.abs(ground[:, 1:]).max()
    count = np.arange(1, len(ground) + 1)
    moved = ground.copy()
    moved[:, 1] += 1e-10 * size * np.sin(12.9898 * count)
    moved[:, 2] += 1e-10 * size * np.sin(78.233 * count)
    return moved


def _wide_apart(ground):
    """Three points to begin with: the farthest out, the farthest from it, and the farthest from their line."""
    places = ground[:, 1:]
    first = int(np.argmax(np.hypot(*places.T)))
    second = int(np.argmax(np.hypot(*(places - places[first]).T)))
    along = places[second] - places[first]
    off_line = np.abs((places - places[first]) @ np.array([-along[1], along[0]]))
    return [first, second, int(np.argmax(off_line))]


@cache
def _fours(count):
    return np.array(list(combinations(range(count), 4)))


def _plane_of_few(ground, z):
    """The best plane for a few points: coefficients, and its largest deviation; by trying every four of them.

    For four places one combination of weights exists that no plane can serve: the determinants of the other three, by
    turns. It tells their common deviation and its signs. The four that deviate most carry the limit; where several do
    so alike, one of them has a plane that serves the others too.
    """
    if len(z) == 3:
        return np.linalg.lstsq(ground, z, rcond=None)[0], 0.0
    fours = _fours(len(z))
    places = ground[fours]
    others = np.array([[1, 2, 3], [0, 2, 3], [0, 1, 3], [0, 1, 2]])
    weights = np.linalg.det(places[:, others]) * np.array([1.0, -1.0, 1.0, -1.0])
    total = np.abs(weights).sum(axis=1)
    deviation = (weights * z[fours]).sum(axis=1) / np.where(total > 0, total, 1.0)
    size = np.abs(deviation)
    alike = np.flatnonzero(size >= size.max() - 1e-7 * (1 + size.max()))
    best = None
    for index in alike[np.argsort(-total[alike])]:
        target = z[fours[index]] - deviation[index] * np.sign(weights[index])
        plane = np.linalg.lstsq(places[index], target, rcond=1e-14)[0]
        off = float(np.abs(z - ground @ plane).max())
        if best is None or off < best[1]:
            best = plane, off
        if off <= size[index] + 1e-9:
            break
    return best
