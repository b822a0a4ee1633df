"""Where the rail stands, in its own marks, when points were read on it."""

from just_plane.core.knob import Knob

TOWARD = {"toward": 1.0, "away": -1.0}
"""Whether marks grow toward the subject."""


def mark_to_stand_at(cloud, frame, rail_counts):
    """Mark at which the camera stands for the plane of focus as framed.

    Parameters
    ----------
    cloud : Cloud
    frame : Frame
    rail_counts : str   ``toward`` the subject, or ``away``.

    Returns
    -------
    float or None       mm; None when no depth was read on the rail.
    """
    at = next((index for index in cloud.known if cloud.points[index].rail_mark is not None), None)
    if at is None:
        return None
    # Read untilted: sharp where it lay in the plane of focus.
    return cloud.points[at].rail_mark - TOWARD[rail_counts] * (float(cloud.xyz[at, 2]) - frame.distance)


def knob_of(stack):
    """The knob of a shot's rail, where it is known.

    Parameters
    ----------
    stack : contract Stack

    Returns
    -------
    Knob or None
    """
    if stack.rail_mm_per_turn is None or stack.rail_divisions is None:
        return None
    return Knob(stack.rail_mm_per_turn, stack.rail_divisions, stack.rail_play_mm or 0.0)
