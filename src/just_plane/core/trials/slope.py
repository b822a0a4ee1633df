"""Millimetres a step from a stack on a slanted surface: how far the sharp place goes from frame to frame."""

import math
from typing import NamedTuple

from just_plane.core.domain import positive
from just_plane.core.trials.rows import TOO_SMALL_BY, robust_line, tracked

AGREE = 0.6
"""Share of the rows that must agree with the coarse line for the fine reading to be believed."""
LEAST_AGREE, MOST_DOUBT = 0.4, 0.1
"""Share of the rows, and doubt as a share of the answer, past which not even the coarse reading is given."""
LEAST_DEPTHS = 3.0
MOST_STEP = 0.45
"""Of the depth that a frame holds."""


class SlopeReading(NamedTuple):
    """How far the sharp place goes from frame to frame."""

    rows_per_frame: float
    """px; below 0 when it climbs."""
    doubt: float
    """Standard deviation, px."""
    fine: bool
    """By rows over frames; else by frames over rows, with more doubt."""
    agree: float
    """Share of the rows that agree with the coarse line."""
    depth_frames: float
    """Frames over which a row stays over half its top."""
    along_columns: bool
    """The surface slants across the frame, not down it."""


def read_slope(energies, *, along_columns=False):
    """Read how far the sharp place goes a frame.

    Parameters
    ----------
    energies : (K, H) array   Of rows, by frame, as :func:`just_plane.core.trials.rows.row_energies` gives them.
    along_columns : bool      They are of columns.

    Returns
    -------
    SlopeReading, or str      Why it cannot be read, as a sentence.
    """
    found = tracked(energies)
    if isinstance(found, str):
        return found
    if found.depth * MOST_STEP < 1:
        return f"The steps are too wide: a row is sharp in {found.depth:.0f} of the frames. Take steps half as wide."
    if len(energies) < LEAST_DEPTHS * found.depth:
        return "The way is too short: it must be three times as long as the depth that a frame holds."
    rows = found.places[found.near].astype(float)
    if found.agree >= AGREE:
        per_row, error = robust_line(rows, found.peaks[found.places][found.near])
        if per_row:
            doubt = TOO_SMALL_BY * error / per_row**2
            return SlopeReading(1 / per_row, doubt, True, found.agree, found.depth, along_columns)
    if found.agree < LEAST_AGREE or found.doubt > MOST_DOUBT * abs(found.rows_per_frame):
        return "The rows do not agree on where they are sharp: stronger texture, more light, or smaller steps."
    return SlopeReading(found.rows_per_frame, found.doubt, False, found.agree, found.depth, along_columns)


def step_of(reading, pixel_pitch, magnification, angle):
    """Travel of one step along the axis.

    Parameters
    ----------
    reading : SlopeReading
    pixel_pitch : float     mm, > 0.
    magnification : float   > 0, in the plane of focus.
    angle : float           Of the surface from the axis, radians, between 0 and a right angle.

    Returns
    -------
    (float, float)          mm, and its standard deviation.

    Notes
    -----
    A row's distance y on the sensor is y/m across the axis, and y/(m tan(angle)) along it.
    """
    positive("pixel_pitch", pixel_pitch, "mm")
    positive("magnification", magnification)
    positive("angle", angle, "radians")
    scale = pixel_pitch / magnification / math.tan(angle)
    return abs(reading.rows_per_frame) * scale, reading.doubt * scale


def angle_by_ruler(tick_seen_px, tick, pixel_pitch, magnification):
    """Angle of a ruler from the axis, by how close its ticks stand.

    Parameters
    ----------
    tick_seen_px : float    Between ticks in the frame, px.
    tick : float            Between ticks on the ruler, mm.
    pixel_pitch : float     mm.
    magnification : float   From a frame square on.

    Returns
    -------
    float or None           Radians; None: they stand wider than they are.
    """
    share = tick_seen_px * pixel_pitch / (magnification * tick)
    return math.asin(share) if 0 < share <= 1 else None
