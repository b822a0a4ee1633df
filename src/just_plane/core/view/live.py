"""The four stages of a view joined, each kept until its own inputs change.

A frame is a pure function of what is asked; what is kept only makes it quicker.
"""

import math
from typing import NamedTuple

import numpy as np

from just_plane.core.units import DEFAULT_WAVELENGTH
from just_plane.core.view.colour import ColourLevels, ColourSpectrum
from just_plane.core.view.geometry import Geometry, Grid, seen
from just_plane.core.view.scene import Scene

MARGIN_PX = 24
"""Around the picture: sway across shifts the frame within it, and never looks anew."""
REACH_PX = 90.0
"""The largest blur of the ladder."""
STOPS_KEPT = 3


class Sight(NamedTuple):
    """From where a scene is looked at."""

    image_distance: float
    """A, mm: with it a pixel is a direction."""
    grid: Grid
    place: tuple = (0.0, 0.0, 0.0)
    """Of the camera from its rest: right, up, toward the subject, mm."""


class Live:
    """One scene, looked at again and again.

    Parameters
    ----------
    scene : Scene
    within_px : float   A frame is seen from the mark nearest to the camera; from one mark to the next no place moves by
                        more: 1 for quick moves, next to nothing for photographs that are measured.
    """

    def __init__(self, scene: Scene, *, within_px: float = 1.0):
        self.scene = scene
        self._within_px = within_px
        self._sight: Sight | None = None
        self._geometry: Geometry | None = None
        self._spectrum: ColourSpectrum | None = None
        self._levels: dict = {}

    def light(self, sight, focus, effective_f_number, shift=(0.0, 0.0), wavelength=DEFAULT_WAVELENGTH, neighbours=4):
        """What the lens lays on the sensor.

        Parameters
        ----------
        sight : Sight
        focus : Focus
        effective_f_number : float
        shift : (float, float)   Of the picture by sway across, px right and down; within the margin.
        wavelength : float       mm.
        neighbours : int         2 while something moves, 4 at rest.

        Returns
        -------
        (H, W, 3) float32 array  Linear.
        """
        wide, geometry, closer = self._seen_from(sight)
        inverse = geometry.inverse / (1 - closer * geometry.inverse) if closer else geometry.inverse
        pitch = sight.grid.pitch
        blur = focus.blur(wide, inverse) / pitch
        mixed = self._through(effective_f_number * wavelength / pitch).mixed(blur, neighbours=neighbours)
        return _cut(mixed, sight.grid, shift)

    def _seen_from(self, sight):
        """The grid with its margin, what is seen from the mark nearest to the camera, and how far that is past it.

        Marks, not the frame looked at before: what is seen does not depend on what was asked before. With a pupil
        that is endlessly far there is one mark only, and distances to it are not told apart by their last digits.
        """
        grid = sight.grid
        wide = grid._replace(rows=grid.rows + 2 * MARGIN_PX, columns=grid.columns + 2 * MARGIN_PX)
        apart = self._within_px * self.scene.distance / (math.hypot(grid.rows, grid.columns) / 2)
        right, up, along = sight.place
        mark = round(along / apart) * apart
        at = sight._replace(place=(right, up, mark))
        if self._geometry is None or self._sight != at:
            self._geometry = seen(self.scene, wide, sight.image_distance, at.place)
            self._spectrum = ColourSpectrum(self._geometry.light, REACH_PX)
            self._levels = {}
            self._sight = at
        return wide, self._geometry, along - mark

    def _through(self, diffraction):
        levels = self._levels.get(diffraction)
        if levels is None:
            while len(self._levels) >= STOPS_KEPT:
                self._levels.pop(next(iter(self._levels)))
            levels = self._levels[diffraction] = ColourLevels(self._spectrum, diffraction)
        return levels


def _cut(picture, grid, shift):
    """The picture without its margin, shifted by whole pixels and a share of one."""
    across, down = (float(np.clip(part, -MARGIN_PX + 2, MARGIN_PX - 2)) for part in shift)
    whole_x, whole_y = math.floor(across), math.floor(down)
    part_x, part_y = across - whole_x, down - whole_y
    total = np.zeros((grid.rows, grid.columns, picture.shape[2]), dtype=np.float32)
    for step_y, weight_y in ((0, 1 - part_y), (1, part_y)):
        for step_x, weight_x in ((0, 1 - part_x), (1, part_x)):
            if weight_x * weight_y == 0:
                continue
            top, left = MARGIN_PX - whole_y - step_y, MARGIN_PX - whole_x - step_x
            total += np.float32(weight_x * weight_y) * picture[top : top + grid.rows, left : left + grid.columns]
    return total


def blur_now(scene, sight, focus):
    """True blur at every pixel of a sight, for judging: never shown to the one who looks.

    Parameters
    ----------
    scene : Scene
    sight : Sight
    focus : Focus

    Returns
    -------
    (H, W) array   mm on the sensor.
    """
    geometry = seen(scene, sight.grid, sight.image_distance, sight.place)
    return focus.blur(sight.grid, geometry.inverse)
