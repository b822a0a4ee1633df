"""The points in the camera frame."""

import math
from dataclasses import dataclass

import numpy as np

from just_plane.planning.setup.points import ReadPoint


@dataclass(frozen=True, slots=True, eq=False)
class Cloud:
    """The points in the camera frame."""

    points: tuple[ReadPoint, ...]
    xyz: np.ndarray
    """(N, 3) mm; NaN where a depth is not known."""
    places: np.ndarray
    """(N, 2) from left and from top, as shares of the frame; of corners too."""
    nearest: float
    """Lens to the nearest point that must be sharp, along the axis."""
    zero: float
    """Depth on the points' own scale at that nearest point."""
    asked: list[int]
    """Indices of the points that must be sharp and are read."""
    known: list[int]
    """Indices of all points that are read."""
    sharp: np.ndarray
    """(M, 3) of the points that must be sharp."""

    @property
    def depths_asked(self):
        """Of the points that must be sharp, mm behind the nearest: (M,) array."""
        return self.sharp[:, 2] - self.nearest

    def name(self, index):
        """How a point is called; a corner of a flat part by its part."""
        point = self.points[index]
        return point.name if point.corner is None else f"the {point.corner_words} corner of {point.name}"


def cloud(points, frame, focus):
    """The points in the camera frame, the nearest sharp one before the plane of focus.

    Parameters
    ----------
    points : sequence of ReadPoint
    frame : Frame
    focus : float                    Nearest sharp point to the plane of focus, mm.

    Returns
    -------
    Cloud
    """
    depths = np.array([math.nan if point.depth is None else point.depth for point in points])
    asked = [point.depth for point in points if point.is_asked]
    zero = min(asked) if asked else float(np.nanmin(depths)) if np.isfinite(depths).any() else 0.0
    nearest = frame.distance - focus
    z = nearest + depths - zero
    xyz, places = np.full((len(points), 3), math.nan), np.zeros((len(points), 2))
    for index, point in enumerate(points):
        places[index] = point.from_left, point.from_top
        if point.depth is None:
            continue
        if point.corner is None:
            x, y = frame.across_up(point.from_left, point.from_top, z[index])
        else:
            middle = nearest + _middle_depth(points, point) - zero
            x, y = frame.across_up(point.from_left, point.from_top, middle)
            x, y = x + point.beside[0], y + point.beside[1]
            places[index] = frame.place(x, y, z[index])
        xyz[index] = x, y, z[index]
    must = [index for index, point in enumerate(points) if point.is_asked]
    known = [index for index, point in enumerate(points) if point.depth is not None]
    return Cloud(tuple(points), xyz, places, nearest, zero, must, known, xyz[must])


def _middle_depth(points, corner):
    depths = [point.depth for point in points if point.index == corner.index]
    return math.fsum(depths) / len(depths)
