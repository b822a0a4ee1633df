"""Tilt and stack: the few frames that go on where the tilt leaves off.

By rail the camera moves and its plane of focus moves along with it; by ring the image distance changes and the plane
swings about the hinge. Each is reckoned as it is.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import fraction, positive
from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane.points import checked
from just_plane.core.plane.readings import image_distances
from just_plane.core.plane.wedge import wedge_faces, within_focal_length
from just_plane.core.stack import rail_stack


class Sweep(NamedTuple):
    """A few frames with the lens tilted."""

    places: tuple[float, ...]
    """By rail: how far the camera moves toward the subject, mm. By ring: image distance of each frame, mm."""
    step: float
    """By rail mm; by ring the share by which the image distance changes."""
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
    return Sweep(places, stack.largest_gap, focal_length / f_number * np.abs(off))


MOST = 10_000


def sweep_by_ring(focal_length, f_number, setting, blur, points, overlap):
    """Frames by ring: image distances from that of the first point to that of the last, evenly as shares.

    Parameters
    ----------
    focal_length, f_number, setting, blur, points, overlap   As for :func:`sweep_by_rail`.

    Returns
    -------
    Sweep

    Raises
    ------
    OutOfDomainError                                         As :func:`sweep_by_rail`.

    Notes
    -----
    A frame at A holds every point whose own image distance A' has (f/N) |A - A'| / A' within what is allowed, so steps
    are equal as shares of A, not in mm.
    """
    xyz = checked(points, least=1)
    positive("blur", blur, "mm", "Open up, or use a coarser measure of sharp.")
    fraction("overlap", overlap)
    share = blur * f_number / focal_length
    own = image_distances(focal_length, setting, xyz)
    step = (1 - overlap) * math.log((1 + share) / (1 - share)) if share < 1 else math.inf
    gaps = math.ceil(math.log(own.max() / own.min()) / step - 1e-9)
    if gaps + 1 > MOST:
        raise OutOfDomainError(
            "sweep.too_many",
            quantity="blur",
            value=gaps + 1,
            message=f"That would be {gaps + 1:,} frames.",
            remedy="Stop down, or use a coarser measure of sharp.",
        )
    places = (
        tuple(float(own.max() * (own.min() / own.max()) ** (index / gaps)) for index in range(gaps + 1))
        if gaps
        else (math.sqrt(own.max() * own.min()),)
    )
    blurs = [focal_length / f_number * np.abs(place - own) / own for place in places]
    return Sweep(places, places[0] / places[1] - 1 if gaps else 0.0, np.array(blurs))
