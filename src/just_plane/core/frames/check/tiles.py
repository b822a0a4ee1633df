"""What is kept of a frame: on a grid of cells, the energy of its detail in four bands, which way it runs, and light.

Energies are taken in the frame and read where a tile of the reference lies in it: cheaper than moving pictures, and
nothing of the picture itself has to be kept.
"""

from typing import NamedTuple

import cv2
import numpy as np

from just_plane.core.frames.check.bands import band, smoothed
from just_plane.core.frames.check.similarity import moved

ACROSS = 40
"""Tiles across a frame, at most."""
TILE_CIRCLES = 4
"""A tile is at least so many circles of confusion wide: its energy is a mean over several details."""
DARK, BRIGHT = 0.002, 0.97
"""Encoded values outside of these say nothing of light."""
GAMMA = 2.2
HALF_FROM = 1.3
"""px of smoothing from which half the pixels each way hold all of a band."""
CURVE_PX = 0.42
"""The band of the focus curve: blur of one step times its frequency. Two steps away a third of the contrast is left, so
that a parabola has its five samples."""
FINE, CURVE, COARSE, COARSEST = range(4)


class Grid(NamedTuple):
    """Tiles of the reference, and cells half as wide in which energies are kept."""

    width: int
    height: int
    """Of the picture that is measured, px."""
    across: int
    down: int
    """Tiles."""
    circle_px: float
    step_blur_px: float

    @property
    def places(self):
        """Middles of the tiles.

        Returns
        -------
        (N, 2) array   x, y in px, row by row.
        """
        x = (np.arange(self.across) + 0.5) * self.width / self.across - 0.5
        y = (np.arange(self.down) + 0.5) * self.height / self.down - 0.5
        return np.stack([grid.ravel() for grid in np.meshgrid(x, y)], axis=-1)

    def tile_at(self, places):
        """The tile that holds each place; of places beside the picture the nearest.

        Parameters
        ----------
        places : (M, 2) array   x, y in px, 0 the middle of the first pixel.

        Returns
        -------
        (M,) int array          As the tiles of :attr:`places` are numbered.
        """
        x, y = (np.asarray(places, float) + 0.5).T
        column = np.clip((x * self.across / self.width).astype(int), 0, self.across - 1)
        row = np.clip((y * self.down / self.height).astype(int), 0, self.down - 1)
        return row * self.across + column

    @property
    def frequencies(self):
        """The four bands that are measured, fine to coarse.

        Returns
        -------
        tuple of float   Cycles a pixel: of the circle of confusion, of the focus curve, and two for order alone.
        """
        fine = 1 / self.circle_px
        return fine, min(fine, CURVE_PX / self.step_blur_px), fine / 8, fine / 20


class Measured(NamedTuple):
    """A frame's numbers; everything that is kept of it."""

    energy: np.ndarray
    """(4, down, across) float32: mean square of the detail of each band over the square of the light there."""
    slopes: np.ndarray
    """(3, down, across): mean of gx², gy², gx gy of the fine band, over the square of the light."""
    light: np.ndarray
    """(down, across) linear; NaN where too much is black or burnt out."""
    clipped: float
    """Share of the frame that is burnt out."""


def grid_for(width, height, circle_px, step_blur_px):
    """Lay tiles over a picture.

    Parameters
    ----------
    width, height : int     px.
    circle_px : float       Circle of confusion, px.
    step_blur_px : float    Blur that one step adds, px.

    Returns
    -------
    Grid
    """
    tile = max(width / ACROSS, TILE_CIRCLES * circle_px)
    return Grid(width, height, max(round(width / tile), 3), max(round(height / tile), 3), circle_px, step_blur_px)


def measured(grey, grid):
    """Measure one frame.

    Parameters
    ----------
    grey : (H, W) float32 array   0 to 1, encoded.
    grid : Grid                   Made for pictures of this size.

    Returns
    -------
    Measured
    """
    cells = (2 * grid.across, 2 * grid.down)
    mean = _cells(grey, cells)
    over = 1 / (mean + 0.01) ** 2
    energies: list = []
    slopes = np.zeros((3, *over.shape))
    for index, frequency in enumerate(grid.frequencies):
        sigma = 0.175 / frequency
        picture, times = grey, 1
        # Wide bands are as exact at fewer pixels, and many times quicker.
        if index >= COARSE and sigma >= 4:
            times, picture = 4, _quarter(grey)
        elif sigma >= HALF_FROM:
            times = 2
            picture = cv2.resize(grey, (grey.shape[1] // 2, grey.shape[0] // 2), interpolation=cv2.INTER_AREA)
        detail = band(picture, sigma / times, 1.6 * sigma / times)
        energies.append(_cells(cv2.multiply(detail, detail), cells) * over)
        if index == FINE:
            slopes = np.stack([part * over for part in _slopes(detail, cells)])
    quarter = _quarter(grey)
    usable = _cells(((quarter > DARK) & (quarter < BRIGHT)).astype(np.float32), cells)
    light = np.where(usable > 0.9, _cells(cv2.pow(grey, GAMMA), cells), np.nan)
    clipped = float(np.count_nonzero(quarter >= BRIGHT) / quarter.size)
    return Measured(np.stack(energies).astype(np.float32), slopes.astype(np.float32), light.astype(np.float32), clipped)


def _slopes(detail, cells):
    gx = cv2.Sobel(detail, cv2.CV_32F, 1, 0, ksize=3, scale=1 / 8)
    gy = cv2.Sobel(detail, cv2.CV_32F, 0, 1, ksize=3, scale=1 / 8)
    return tuple(_cells(cv2.multiply(one, other), cells) for one, other in ((gx, gx), (gy, gy), (gx, gy)))


def _cells(picture, cells):
    """Means over cells; of large pictures first over four by four pixels, which is quicker than any other ratio."""
    if picture.shape[1] > 16 * cells[0] and picture.shape[0] > 16 * cells[1]:
        picture = _quarter(picture)
    return cv2.resize(picture, cells, interpolation=cv2.INTER_AREA)


def _quarter(picture):
    return cv2.resize(picture, (picture.shape[1] // 4, picture.shape[0] // 4), interpolation=cv2.INTER_AREA)


def sampled(cells, grid, places):
    """Read a grid of cells at places of the frame, each over about a tile.

    Parameters
    ----------
    cells : (C, down, across) array   Of a :class:`Measured`.
    grid : Grid
    places : (N, 2) array             x, y in px of that frame.

    Returns
    -------
    (C, N) array                      NaN outside the frame.
    """
    down, across = cells.shape[1:]
    x = ((places[:, 0] + 0.5) * across / grid.width - 0.5).astype(np.float32)[np.newaxis]
    y = ((places[:, 1] + 0.5) * down / grid.height - 0.5).astype(np.float32)[np.newaxis]
    outside = (x[0] < -0.4) | (y[0] < -0.4) | (x[0] > across - 0.6) | (y[0] > down - 0.6)
    read = []
    for cell in cells:
        wide = cv2.sepFilter2D(cell, cv2.CV_32F, _TENT, _TENT, borderType=cv2.BORDER_REPLICATE)
        read.append(cv2.remap(wide, x, y, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)[0])
    answer = np.stack(read)
    answer[:, outside] = np.nan
    return answer


_TENT = np.array([0.25, 0.5, 0.25])


def light_between(before, this, grid, similarity):
    """How much lighter a frame is than the one before, by their matching places.

    Parameters
    ----------
    before, this : Measured
    grid : Grid
    similarity : (2, 3) array   Places of ``before`` to places of ``this``, px.

    Returns
    -------
    float                       EV (stops); NaN where fewer than twelve places can be compared.

    Notes
    -----
    The median over patches: defocus moves light between places, never takes it away.
    """
    patches = []
    places = grid.places
    for frame, where in ((before, places), (this, moved(similarity, places))):
        patches.append(sampled(smoothed(frame.light, 1.0)[np.newaxis], grid, where)[0])
    with np.errstate(invalid="ignore", divide="ignore"):
        stops = np.log2(patches[1] / patches[0])
    stops = stops[np.isfinite(stops)]
    return float(np.median(stops)) if len(stops) >= 12 else float("nan")
