"""Planes as lines of the side view, which is turned to where the plane recedes."""

import math

from just_plane.contract.plane_plan import PlaneLine


def line_of(plane, azimuth, nearest):
    """A plane (z0, slope_x, slope_y) cut by the side view: PlaneLine."""
    z0, slope_x, slope_y = plane
    slope = slope_x * math.cos(azimuth) + slope_y * math.sin(azimuth)
    return PlaneLine(at_axis_mm=z0 - nearest, slope=slope)


def line_of_face(face, setting, azimuth, nearest):
    """A face of the wedge cut by the side view: PlaneLine; None for an endless one."""
    if not math.isfinite(face.z0):
        return None
    return PlaneLine(at_axis_mm=face.z0 - nearest, slope=face.slope * math.cos(setting.azimuth - azimuth))
