"""Stage 1 of the view: what a pinhole at the camera's place sees of a height field, and how far away it lies.

For a pixel at (xi, yi) on the sensor, turned to the subject's signs, the ray is x = px + xi z/A, y = py + yi z/A; the
depth is the fixed point of z = (distance + sx px + sy py - pz + h(x, y)) / (1 - sx xi/A - sy yi/A). The near part does
not hide what lies behind its edge for more than the three rounds that are taken: steep jumps are a little soft.
"""

from typing import NamedTuple

import numpy as np

ROUNDS = 3


class Geometry(NamedTuple):
    """What is seen at every pixel."""

    light: np.ndarray
    """(H, W, 3) float32, linear, sharp."""
    inverse: np.ndarray
    """(H, W) 1/z, 1/mm."""


class Grid(NamedTuple):
    """Pixels of a view on the sensor: places in mm, in the subject's signs (x to the right, y upward)."""

    rows: int
    columns: int
    pitch: float
    """mm on the sensor of one pixel of the view."""
    middle: tuple = (0.0, 0.0)
    """xi, yi in the middle of the view, mm."""

    def places(self):
        """xi of every column, yi of every row: (W,) and (H,) arrays, mm."""
        xi = self.middle[0] + (np.arange(self.columns) - (self.columns - 1) / 2) * self.pitch
        yi = self.middle[1] - (np.arange(self.rows) - (self.rows - 1) / 2) * self.pitch
        return xi, yi


def seen(scene, grid, image_distance, place=(0.0, 0.0, 0.0)):
    """Look at a scene.

    Parameters
    ----------
    scene : Scene
    grid : Grid
    image_distance : float         A, mm, > 0: with it a pixel is a direction.
    place : (float, float, float)  Of the camera from its rest: right, up, toward the subject, mm.

    Returns
    -------
    Geometry
    """
    across, up = _directions(grid, image_distance)
    base, steep = _plane(scene, across, up, place)
    z = base * steep
    texels = (0, 0)
    for turn in range(ROUNDS):
        texels = _texels(scene, place[0] + across * z, place[1] + up * z)
        if turn < ROUNDS - 1:
            z = (base + scene.relief[texels]) * steep
    light = np.stack([plane[texels] for plane in scene.light], axis=-1)
    return Geometry(light, 1.0 / z)


def flat(scene, grid, image_distance, place=(0.0, 0.0, 0.0)):
    """How far away a scene without relief lies at every pixel: there the first depth is the fixed point.

    Parameters
    ----------
    scene : Scene                  Its relief and light are not looked at.
    grid, image_distance, place    As of `seen`.

    Returns
    -------
    (H, W) array   1/z, 1/mm.
    """
    across, up = _directions(grid, image_distance)
    base, steep = _plane(scene, across, up, place)
    return 1.0 / (base * steep)


def _directions(grid, image_distance):
    """Of the rays, per mm away: to the right (1, W), up (H, 1)."""
    xi, yi = grid.places()
    return (xi / image_distance)[np.newaxis, :], (yi / image_distance)[:, np.newaxis]


def _plane(scene, across, up, place):
    """Of the plane that relief stands on: depth straight ahead of a camera, mm, and how much deeper each ray goes."""
    base = scene.distance + scene.slope_x * place[0] + scene.slope_y * place[1] - place[2]
    return base, 1.0 / (1.0 - scene.slope_x * across - scene.slope_y * up)


def _texels(scene, x, y):
    rows, columns = scene.relief.shape
    column = np.rint(x / scene.texel + (columns - 1) / 2).astype(np.intp)
    row = np.rint((rows - 1) / 2 - y / scene.texel).astype(np.intp)
    return np.clip(row, 0, rows - 1), np.clip(column, 0, columns - 1)
