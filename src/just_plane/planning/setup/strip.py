"""The narrow strip asked for: the setting that keeps one line sharp and leaves as little as possible beside it."""

import math
from typing import NamedTuple

from just_plane.core.errors import OpticsError
from just_plane.core.plane import TiltSetting
from just_plane.core.plane.strip import strip_along


class StripSetting(NamedTuple):
    """The setting, or why there is none."""

    setting: TiltSetting | None
    ends: tuple[int, ...]
    """Indices of the two points in the cloud; none where they are not read."""
    why_not: str
    """A clause."""


def strip_setting(wanted, lens, cloud, laid, wording):
    """The setting of the strip.

    Parameters
    ----------
    wanted : contract StripWanted or None
    lens : TiltingLens
    cloud : Cloud
    laid : Laid or None            Its slopes are the subject's.
    wording : Wording

    Returns
    -------
    StripSetting or None           None when no strip is asked for.
    """
    if wanted is None:
        return None
    if lens.limit == 0:
        return StripSetting(None, (), "this lens does not tilt")
    ends = tuple(
        index
        for each in (wanted.first, wanted.second)
        for index in [next((i for i in cloud.known if cloud.points[i].id == each), None)]
        if index is not None
    )
    if len(set(ends)) < 2:
        return StripSetting(None, (), "choose two points that are read")
    tilt = lens.limit if wanted.tilt_deg is None else min(math.radians(wanted.tilt_deg), lens.limit)
    surface = (laid.wanted.slope_x, laid.wanted.slope_y) if laid else (0.0, 0.0)
    try:
        return StripSetting(strip_along(lens.focal_length, cloud.xyz[list(ends)], tilt, surface), ends, "")
    except OpticsError as error:
        message, _ = error.spoken(wording.quantity)
        return StripSetting(None, ends, message[:1].lower() + message[1:].rstrip("."))
