"""The room in front of the lens, seen from above: where lights and diffusers stand, and what they are in the way of.

Coordinates in mm from where the axis meets the plane of focus: x toward the lens, y to the right of the camera.
"""

import math
from typing import NamedTuple

from just_plane.core.domain import positive


class Edges(NamedTuple):
    """A flat thing from above: its two edges, each (x, y) in mm."""

    one: tuple
    other: tuple


class Field(NamedTuple):
    """What the camera sees in front of the plane of focus, from above.

    Parameters
    ----------
    width : float      Of the frame at the plane of focus, mm.
    pupil : float      From there to the entrance pupil, mm.
    front : float      From there to the front of the lens, mm.
    """

    width: float
    pupil: float
    front: float

    def half_at(self, x):
        """Half the width that is seen x mm before the plane of focus.

        Parameters
        ----------
        x : float   mm.

        Returns
        -------
        float       mm, >= 0.
        """
        return self.width / 2 * max(1 - x / self.pupil, 0.0)


def standing(from_axis, away, width, side):
    """A thing that faces the subject.

    Parameters
    ----------
    from_axis : float   Angle at the subject, radians: 0 at the lens, pi behind the subject.
    away : float        From the subject to its middle, mm, > 0.
    width : float       mm, > 0.
    side : int          1 to the right of the camera, -1 to the left.

    Returns
    -------
    Edges

    Raises
    ------
    OutOfDomainError    A length is not positive.
    """
    positive("away", away, "mm")
    positive("width", width, "mm")
    cos, sin = math.cos(from_axis), side * math.sin(from_axis)
    half = width / 2
    return Edges(
        (away * cos - half * sin, away * sin + half * cos),
        (away * cos + half * sin, away * sin - half * cos),
    )


def looks_wide(away, width):
    """How wide a thing that faces the subject looks from there: the wider, the softer its light.

    Parameters
    ----------
    away, width : float   mm, > 0.

    Returns
    -------
    float                 Radians.
    """
    return 2 * math.atan2(positive("width", width, "mm") / 2, positive("away", away, "mm"))


def reaches_in(edges, field):
    """By how much a thing reaches into the picture, between plane of focus and lens.

    Parameters
    ----------
    edges : Edges
    field : Field

    Returns
    -------
    float           mm, across the axis, to move it out; 0 where it stands clear.

    Notes
    -----
    What is seen there is a wedge between two straight lines, so how deep a straight thing lies in it grows and falls
    in straight lines: its deepest place is an edge of the thing, where it meets the plane of focus or the lens, or
    where it crosses the axis.
    """
    inside = _within(edges, 0.0, min(field.front, field.pupil))
    if inside is None:
        return 0.0
    (x, y), (u, v) = inside
    places = [(x, y), (u, v)]
    if y * v < 0:
        share = y / (y - v)
        places.append((x + share * (u - x), 0.0))
    return max(max(field.half_at(at) - abs(across), 0.0) for at, across in places)


def touches(edges, begin, end, radius):
    """Whether a thing touches a round piece of the rig that lies along the axis.

    Parameters
    ----------
    edges : Edges
    begin, end : float   Where the piece begins and ends, mm from the plane of focus.
    radius : float       mm.

    Returns
    -------
    bool
    """
    inside = _within(edges, begin, end)
    if inside is None:
        return False
    (_, y), (_, v) = inside
    return y * v <= 0 or min(abs(y), abs(v)) <= radius


def _within(edges, begin, end):
    """The part of a thing between two places along the axis: two (x, y), or None."""
    (x, y), (u, v) = sorted(edges)
    if u < begin or x > end:
        return None
    if u == x:
        return (x, y), (u, v)

    def at(place):
        return place, y + (place - x) / (u - x) * (v - y)

    return (at(begin) if x < begin else (x, y)), (at(end) if u > end else (u, v))
