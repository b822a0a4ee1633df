"""What the lens of a drill does as it is set: where it stands, how soft every place is, the set that it looks at."""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.contrast import contrast
from just_plane.core.plane.readings import node_moved_by_pivot
from just_plane.core.plane.tilt import TiltSetting
from just_plane.core.practice.drill import FOCUS_CLICK, RAIL_CLICK
from just_plane.core.view.focus import Focus, focus_of_lens
from just_plane.core.view.geometry import Grid, flat
from just_plane.core.view.scene import Scene, made_scene

RASTER_PX = 1.3
"""Texels of the set to a pixel of the widest view."""
VIEW_PX = 960
JUDGED = (13, 19)
"""Places of the frame that are judged where a drill names none: rows and columns."""


class Set(NamedTuple):
    """The lens as it is set."""

    lens: TiltSetting
    f_number: float
    """As marked."""
    node: tuple
    """How far the lens's node stands from its place untilted: mm right, up and toward the set."""
    foot: tuple
    """Where its axis meets the sensor, from the middle, in the subject's signs: mm right, up, of the view."""
    focus: Focus
    """For places of the view."""


def lens_of(drill, setting):
    """The lens as it is set. A pivot off the node carries the node along and across as the lens turns.

    The view leaves out that focusing makes the picture a little larger: its places are directions, in mm on a sensor
    that stands where the lens, square, is focused on the middle of the set.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    Set
    """
    gear, lean, turn = drill.gear, drill.knob("tilt"), drill.knob("turn")
    tilt = setting.tilt * lean.click if lean else 0.0
    azimuth = gear.rest + (setting.turn - turn.start) * turn.click if turn else gear.rest
    knob = drill.knob("focus")
    image = drill.image_distance + setting.focus * (knob.click if knob else FOCUS_CLICK)
    lens = TiltSetting(tilt, azimuth, image)
    moved = node_moved_by_pivot(lens, gear.pivot, 1.0)  # where the node goes does not depend on the size
    lens = lens._replace(image_distance=image + moved.z)
    f_number = gear.stops[setting.stop]
    node = (moved.x, moved.y, moved.z + setting.rail * RAIL_CLICK)
    focus, grown = focus_of_lens(gear.focal_length, f_number, lens), lens.image_distance / drill.image_distance
    focus = focus._replace(right=focus.right * grown, up=focus.up * grown)
    return Set(lens, f_number, node, (moved.x / grown, moved.y / grown), focus)


def grid_seen(grid, found):
    """A grid of the view, counted from where the node's axis meets it.

    Parameters
    ----------
    grid : Grid   From the middle of the view.
    found : Set

    Returns
    -------
    Grid
    """
    return grid._replace(middle=(grid.middle[0] + found.foot[0], grid.middle[1] + found.foot[1]))


def works_as(drill, setting):
    """Effective f-number where the lens forms the picture.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    float
    """
    found = lens_of(drill, setting)
    return found.f_number * found.lens.image_distance / drill.gear.focal_length


def set_of(drill):
    """The page of a drill, drawn fine enough for the widest view.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    Scene
    """
    shape, texel = raster_of(drill)
    return made_scene("lettering", shape, texel, drill.distance, drill.slope, 0.0, 0.9 * shape[1] * texel, drill.seed)


def raster_of(drill):
    """The raster that a drill's set is drawn on.

    Parameters
    ----------
    drill : Drill

    Returns
    -------
    ((int, int), float)   Rows and columns; mm a texel.
    """
    sensor, m = drill.gear.sensor, drill.image_distance / drill.distance
    texel = sensor[0] / VIEW_PX / m / RASTER_PX
    # Far parts of a slope reach farther out; past the raster its edge goes on.
    slope = abs(drill.slope[0]) * sensor[0] + abs(drill.slope[1]) * sensor[1]
    wide = 1.0 + 1.2 * slope / 2 / drill.image_distance
    return tuple(math.ceil(side / m * wide * 1.12 / texel) for side in (sensor[1], sensor[0])), texel


def blurs(drill, setting):
    """Blur at the places that are judged, where the lens forms the picture.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    (13, 19) or (N,) array   mm; rows from the top, or one for each place of the drill.
    """
    found = lens_of(drill, setting)
    if drill.places:
        right, up, away = _from_lens(drill, found)
        image, focus = drill.image_distance, found.focus
        return np.abs(
            focus.constant + focus.right * image * right / away + focus.up * image * up / away + focus.depth / away
        )
    rows, columns = JUDGED
    grid = grid_seen(Grid(rows, columns, drill.gear.sensor[0] / columns), found)
    relief, light = np.zeros((2, 2), np.float32), np.zeros((3, 2, 2), np.float32)
    page = Scene(drill.distance, drill.slope[0], drill.slope[1], relief, light, 1.0)
    return found.focus.blur(grid, flat(page, grid, drill.image_distance, found.node))


def places_seen(drill, setting):
    """Where the drill's own places lie on the frame.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    (N, 2) array   Shares from the left and from the top.
    """
    found = lens_of(drill, setting)
    right, up, away = _from_lens(drill, found)
    image, (width, height) = drill.image_distance, drill.gear.sensor
    left = 0.5 + (image * right / away - found.foot[0]) / width
    top = 0.5 - (image * up / away - found.foot[1]) / height
    return np.stack([left, top], axis=-1)


def _from_lens(drill, found):
    """The drill's places from the node as it stands: right, up, away, mm."""
    there = np.array([place[1:] for place in drill.places], dtype=float)
    return there[:, 0] - found.node[0], there[:, 1] - found.node[1], there[:, 2] - found.node[2]


def worst_blur(drill, setting):
    """The most blurred place.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    float   mm, where the lens forms the picture.
    """
    return float(blurs(drill, setting).max())


def worst_contrast_at(drill, setting):
    """Contrast of detail of the size of the circle of confusion, where it is lowest.

    Parameters
    ----------
    drill : Drill
    setting : Setting

    Returns
    -------
    float
    """
    return float(contrast(1 / drill.gear.circle, works_as(drill, setting), worst_blur(drill, setting)))
