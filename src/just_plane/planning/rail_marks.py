"""Where the rail stands, in its own marks, when points were read on it."""

import math

TOWARD = {"toward": 1.0, "away": -1.0}
"""Whether marks grow toward the subject."""


def mark_to_stand_at(shot, work):
    """Mark at which the camera stands for the plane of focus as framed, mm; None when no depth was read on the rail."""
    on_rail = [
        index for index in work.cloud.known if shot.plane.points[work.cloud.points[index].index].depth.by == "rail"
    ]
    if not on_rail:
        return None
    at = on_rail[0]
    readings = shot.plane.points[work.cloud.points[at].index].depth.readings_mm
    # Read untilted: sharp where it lay in the plane of focus.
    mean = math.fsum(readings) / len(readings)
    return mean - TOWARD[shot.plane.rail_counts] * (float(work.cloud.xyz[at, 2]) - work.frame.distance)


def mark_moved(shot, work, toward):
    """Mark when the camera has moved so far toward the subject from there, mm; None without marks."""
    stands = None if work is None else mark_to_stand_at(shot, work)
    return None if stands is None else stands + TOWARD[shot.plane.rail_counts] * toward
