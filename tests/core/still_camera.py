"""A tilting lens on a camera that stands still, by tracing: only the lens moves, and nothing is what its scales say."""

import math

import numpy as np
from scipy.optimize import brentq


class StillCamera:
    """The sensor lies at z = -extent; the lens turns about a pivot behind its node, its ring moves it on its axis."""

    def __init__(self, focal_length, image_distance, *, scale=1.0, zero=0.0, pivot=0.0):
        self.f, self.extent = focal_length, image_distance
        self.scale, self.zero, self.pivot = scale, zero, pivot
        self.set(0.0, math.pi / 2)

    def set(self, tilt, azimuth):
        """Turn the dial to a tilt, radians; the ring stays."""
        true = tilt * self.scale + self.zero
        self.axis = np.array([-math.sin(true) * math.cos(azimuth), -math.sin(true) * math.sin(azimuth), math.cos(true)])

    def node(self, out):
        """Where the lens's node is with its ring turned ``out`` mm from where it stood untilted."""
        return np.array([0.0, 0.0, -self.pivot]) + (self.pivot + out) * self.axis

    def image_of(self, point, out):
        """Where rays from a point meet again behind the lens: the ray through the node goes straight."""
        node = self.node(out)
        along = float((point - node) @ self.axis)
        return node - (point - node) * self.f / (along - self.f)

    def ring_for(self, point):
        """How far out the ring stands when a point is sharp on the sensor, found by trying; mm."""
        apart = np.linspace(-0.3 * self.extent, 0.3 * self.extent, 241)
        off = np.array([self.image_of(point, out)[2] + self.extent for out in apart])
        crossings = np.flatnonzero(np.diff(np.sign(off)))
        start = min(crossings, key=lambda at: abs(apart[at]))
        return brentq(lambda out: self.image_of(point, out)[2] + self.extent, apart[start], apart[start + 1])

    def blur(self, point, out, f_number, rays=200):
        """Diameter of the patch that rays through the rim of the lens make on the sensor, mm: its widest stretch along
        a direction across the azimuth, where the sensor does not cut the cone aslant."""
        node, image = self.node(out), self.image_of(point, out)
        across = np.cross(self.axis, [0.0, 0.0, 1.0])
        across = across / np.linalg.norm(across) if np.linalg.norm(across) > 1e-12 else np.array([1.0, 0.0, 0.0])
        up = np.cross(across, self.axis)
        round_ = np.linspace(0, 2 * math.pi, rays, endpoint=False)[:, np.newaxis]
        rim = node + self.f / f_number / 2 * (np.cos(round_) * across + np.sin(round_) * up)
        share = (-self.extent - rim[:, 2]) / (image[2] - rim[:, 2])
        met = rim + share[:, np.newaxis] * (image - rim)
        return float(np.ptp(met @ across))

    def left_over(self, points):
        """How far the worst point lies before or behind the plane of focus, the camera moved to halve it; mm."""
        middle = np.mean([self.ring_for(point) for point in points])
        node = self.node(middle)

        def toward(point):
            def off(moved):
                seen = point - [0, 0, moved] - node
                along = float(seen @ self.axis)
                return (node - seen * self.f / (along - self.f))[2] + self.extent

            return brentq(off, -60, 60)

        return float(np.ptp([toward(point) for point in points])) / 2
