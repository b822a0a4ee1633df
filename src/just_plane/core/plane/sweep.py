"""Tilt and stack: the few frames that go on where the tilt leaves off.

By rail the camera moves and its plane of focus moves along with it; by ring the camera stands still, the lens goes
along its own axis and the plane swings. Each is reckoned as it is.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import fraction, positive
from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane.points import checked
from just_plane.core.plane.ring import image_distances, ring_defocus, ring_reach
from just_plane.core.plane.wedge import wedge_faces, within_focal_length
from just_plane.core.stack import rail_stack


class Sweep(NamedTuple):
    """A few frames with the lens tilted."""

    places: tuple[float, ...]
    """By rail: how far the camera moves toward the subject, mm. By ring: the ring's place for each frame, mm, as
    :mod:`just_plane.core.plane.ring` has it."""
    step: float
    """mm: of the camera by rail, of the lens by ring."""
    depth: float
    """Least stretch within which a point stays sharp, in the unit of the step."""
    blurs: np.ndarray
    """Of each point in each frame, mm on the sensor: (frames, N)."""

    @property
    def best(self):
        """Blur of each point in the frame that shows it best, mm: (N,)."""
        return self.blurs.min(axis=0)


def sweep_by_rail(focal_length, f_number, setting, blur, points, overlap, smallest_step=None):
    """Frames by rail, from the point that lies farthest before the plane to the one farthest behind it.

    Parameters
    ----------
    focal_length, f_number : float   mm and ratio, > 0.
    setting : TiltSetting
    blur : float                     Allowed on the sensor, mm, > 0.
    points : (N, 3) array            mm.
    overlap : float                  Of the depth at the tightest point, 0 to below 1.
    smallest_step : float or None    Of the rail, mm.

    Returns
    -------
    Sweep

    Raises
    ------
    OutOfDomainError                 Nothing is allowed to blur, or more frames than anyone takes.
    OpticsError                      As :func:`just_plane.core.stack.rail_stack`.
    """
    xyz = checked(points, least=1)
    positive("blur", blur, "mm", "Open up, or use a coarser measure of sharp.")
    across = xyz[:, 0] * math.cos(setting.azimuth) + xyz[:, 1] * math.sin(setting.azimuth)
    near, far = wedge_faces(focal_length, f_number, setting, blur)
    middle = wedge_faces(focal_length, f_number, setting, 0.0)[0]
    # Moved by d a point is sharp when it lies between the faces at z - d.
    behind = xyz[:, 2] - (middle.z0 + middle.slope * across)
    room = (middle.slope - near.slope) * across + middle.z0 - near.z0
    room_far = (far.slope - middle.slope) * across + far.z0 - middle.z0 if math.isfinite(far.z0) else room
    tightest = float((room + room_far).min())
    stack = rail_stack(float(np.ptp(behind)), tightest, overlap, smallest_step=smallest_step)
    places = tuple(float(behind.min()) + place for place in stack.positions)
    # Moved by d every point is seen at z - d: all frames at once, (frames, N).
    seen_at = xyz[:, 2] - np.array(places)[:, np.newaxis]
    along_lens = seen_at * math.cos(setting.tilt) - across * math.sin(setting.tilt)
    if along_lens.min() <= focal_length or seen_at.min() <= 0:
        raise within_focal_length(along_lens.min())
    off = setting.image_distance * (along_lens - focal_length) / (seen_at * focal_length) - 1
    return Sweep(places, stack.largest_gap, tightest, focal_length / f_number * np.abs(off))


MOST = 10_000


def sweep_by_ring(focal_length, f_number, setting, blur, points, overlap):
    """Frames by ring, the camera standing still: from the place of the nearest point to that of the farthest, evenly.

    Parameters
    ----------
    focal_length, f_number, setting, blur, points, overlap   As for :func:`sweep_by_rail`.

    Returns
    -------
    Sweep

    Raises
    ------
    OutOfDomainError                                         As :func:`sweep_by_rail`, or no place of the ring makes a
                                                             point sharp.

    Notes
    -----
    Each point is sharp while the ring stands between two places; the step is the least of these stretches, less the
    overlap, so that whatever lies between the points is in a frame too.
    """
    xyz = checked(points, least=1)
    positive("blur", blur, "mm", "Open up, or use a coarser measure of sharp.")
    fraction("overlap", overlap)
    own = image_distances(focal_length, setting, xyz)
    if not np.isfinite(own).all():
        raise OutOfDomainError(
            "sweep.ring_turns_back",
            quantity="points",
            value=int(np.count_nonzero(~np.isfinite(own))),
            message="So near life size, turning the ring no longer brings the focus to every point.",
            remedy="Take the frames by rail.",
        )
    first, last = ring_reach(focal_length, setting, xyz, blur * f_number / focal_length)
    stretch = float((last - first).min())
    step = (1 - overlap) * stretch
    gaps = math.ceil(float(np.ptp(own)) / step - 1e-9)
    if gaps + 1 > MOST:
        raise OutOfDomainError(
            "sweep.too_many",
            quantity="blur",
            value=gaps + 1,
            message=f"That would be {gaps + 1:,} frames.",
            remedy="Stop down, or use a coarser measure of sharp.",
        )
    places = np.linspace(own.max(), own.min(), gaps + 1) if gaps else np.array([(own.max() + own.min()) / 2])
    blurs = focal_length / f_number * np.abs(ring_defocus(focal_length, setting, xyz, places))
    return Sweep(tuple(places.tolist()), float(places[0] - places[1]) if gaps else 0.0, stretch, blurs)
