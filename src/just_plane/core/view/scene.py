"""A made-up set as a height field: where its surface lies, and its light, over a raster across the axis."""

from functools import lru_cache
from typing import NamedTuple

import numpy as np

from just_plane.core.domain import positive
from just_plane.core.scenery import surface

CRUMBS = (2, 4, 8)
"""Sizes of the finest detail, in texels."""
CRUMB_LIGHT = 0.16
"""How much one size of it changes the light."""
TILE = 512
DARKEST, BRIGHTEST = 0.25, 1.9


class Scene(NamedTuple):
    """A height field before a camera: z = distance + slope_x x + slope_y y + relief(x, y).

    x grows to the right, y upward, z away from the camera; mm. The raster is centred on x = y = 0, its first row the
    highest.
    """

    distance: float
    """mm from the camera's place at rest."""
    slope_x: float
    slope_y: float
    relief: np.ndarray
    """(R, C) mm; below 0 toward the camera."""
    light: np.ndarray
    """(3, R, C) linear, as a perfect lens would show it."""
    texel: float
    """mm of the subject."""


def made_scene(kind, shape, texel, distance, slope=(0.0, 0.0), relief=0.0, drawn_for=None, seed=0):
    """A made-up set of one kind of surface, with fine detail everywhere.

    Parameters
    ----------
    kind : str                 Of :data:`just_plane.core.scenery.KINDS`.
    shape : (int, int)         Rows and columns of the raster.
    texel : float              mm, > 0.
    distance : float           mm to the middle, > 0.
    slope : (float, float)     dz/dx and dz/dy: ratio.
    relief : float             Height of its domes, mm, >= 0.
    drawn_for : float or None  Width that its things are drawn for, mm; None: the raster's.
    seed : int                 Another place of the same made-up surface.

    Returns
    -------
    Scene
    """
    positive("texel", texel, "mm")
    positive("distance", distance, "mm")
    light, height = _raster(kind, tuple(shape), texel, drawn_for or shape[1] * texel, seed)
    return Scene(distance, slope[0], slope[1], height * np.float32(relief), light, texel)


@lru_cache(maxsize=4)
def _raster(kind, shape, texel, drawn_for, seed):
    """Light in three planes, and height from -1 to 0: kept, as a set is looked at more than once."""
    x = (np.arange(shape[1]) - (shape[1] - 1) / 2) * texel
    y = -(np.arange(shape[0]) - (shape[0] - 1) / 2) * texel
    shift = np.random.default_rng(seed).uniform(-40, 40, 2) * drawn_for if seed else (0.0, 0.0)
    made = surface(kind, x + shift[0], y + shift[1], drawn_for)
    crumbs = crumbs_at(x, y, texel, seed)
    light = np.ascontiguousarray(np.moveaxis(made.light * crumbs[..., np.newaxis], -1, 0), dtype=np.float32)
    height = np.clip(made.relief, -1, 0).astype(np.float32)
    light.flags.writeable = height.flags.writeable = False
    return light, height


def crumbs_at(x, y, texel, seed=0):
    """Fine detail of two to eight texels, the same at the same place: about 1, to be multiplied with light.

    Parameters
    ----------
    x, y : (W,) and (H,) arrays   mm.
    texel : float                 mm.
    seed : int

    Returns
    -------
    (H, W) array
    """
    generator = np.random.default_rng(4711 + seed)
    total = np.ones((len(y), len(x)), dtype=np.float32)
    for size in CRUMBS:
        tile = generator.standard_normal((TILE, TILE)).astype(np.float32)
        rows = np.floor(y / (size * texel) * 2).astype(int) % TILE
        columns = np.floor(x / (size * texel) * 2).astype(int) % TILE
        smooth = (tile + np.roll(tile, 1, 0) + np.roll(tile, 1, 1) + np.roll(tile, (1, 1), (0, 1))) / 2
        total += CRUMB_LIGHT * smooth[rows[:, np.newaxis], columns]
    return np.clip(total, DARKEST, BRIGHTEST)
