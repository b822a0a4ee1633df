"""Where the rail stands, in its own marks, when points were read on it."""

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
