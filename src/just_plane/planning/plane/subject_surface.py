"""The subject between its points, as far as it can be guessed from them: for contours and pictures, not for answers.

The plane through the points, with what lies off it drawn smoothly from point to point; with too few points a slope over
the whole depth, near at the bottom of the frame.
"""

from dataclasses import dataclass

import numpy as np

from just_plane.core.plane import deviations
from just_plane.planning.setup.plane import PlaneSetup

SOFTEN = 0.03
"""Share of the frame within which a point alone decides."""


@dataclass(frozen=True, slots=True)
class SubjectSurface:
    """Depth of the subject everywhere on the frame."""

    work: PlaneSetup
    depth: float

    def points_at(self, from_left, from_top):
        """(N, 3) points of the camera frame, mm, seen at places (N,), and their rise off the plane along z (N,)."""
        frame, cloud, laid = self.work.frame, self.work.cloud, self.work.laid
        left, top = np.asarray(from_left, dtype=float), np.asarray(from_top, dtype=float)
        if laid is None:
            z = cloud.nearest + self.depth * np.clip(1 - top, 0.0, 1.0)
            return np.stack([*frame.across_up(left, top, z), z], axis=-1), np.zeros(left.shape)
        wanted = laid.wanted
        # The plane met by the ray through the place: x and y grow evenly with z.
        x0, y0 = frame.across_up(left, top, 0.0)
        x1, y1 = frame.across_up(left, top, 1.0)
        rise = wanted.slope_x * (x1 - x0) + wanted.slope_y * (y1 - y0)
        start = wanted.z0 + wanted.slope_x * x0 + wanted.slope_y * y0
        z = start / np.maximum(1 - rise, 0.05)
        off = self._off_plane(left, top, wanted)
        z = np.maximum(z + off, self.work.lens.focal_length * 1.05)
        return np.stack([*frame.across_up(left, top, z), z], axis=-1), off

    def _off_plane(self, left, top, wanted):
        cloud = self.work.cloud
        known = cloud.known
        xyz, places = cloud.xyz[known], cloud.places[known]
        off = deviations(xyz, wanted)
        total, weights = np.zeros(left.shape), np.zeros(left.shape)
        for (at_left, at_top), value in zip(places, off, strict=True):
            weight = 1 / ((left - at_left) ** 2 + (top - at_top) ** 2 + SOFTEN**2) ** 2
            total += weight * value
            weights += weight
        return total / weights
