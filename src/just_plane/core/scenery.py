"""Made-up surfaces to look at: pralines on a tray, embossed lettering on foil. Pictures of nothing that exists.

A surface is asked for at places (mm on the subject, as the camera sees it) and answers with its relief and its light.
The same place always looks the same.
"""

from typing import NamedTuple

import numpy as np

from just_plane.core.domain import positive
from just_plane.core.errors import OutOfDomainError

KINDS = ("pralines", "lettering")
SEED = 20261
GLYPHS = 24
LIGHT_FROM = np.array([0.55, 0.6, -0.58])
"""Toward the lamp: right, above and before the subject; unit length."""


class Surface(NamedTuple):
    """A piece of a made-up surface."""

    relief: np.ndarray
    """(H, W), -1 (toward the camera) to 1."""
    light: np.ndarray
    """(H, W, 3), linear, as a perfect lens would show it."""


def surface(kind, x, y, size):
    """A made-up surface at places.

    Parameters
    ----------
    kind : str              One of ``KINDS``.
    x : (W,) array          mm, growing to the right, evenly apart.
    y : (H,) array          mm, falling downward the picture.
    size : float            Width of what the whole frame takes in, mm, > 0: things are drawn as large as suits it.

    Returns
    -------
    Surface

    Raises
    ------
    OutOfDomainError        The kind is unknown.
    """
    positive("size", size, "mm")
    if kind not in KINDS:
        raise OutOfDomainError(
            "kind.unknown",
            quantity="kind",
            value=kind,
            message=f"A surface is one of {', '.join(KINDS)}; got {kind!r}.",
        )
    across, down = (
        np.asarray(x, dtype=np.float32)[np.newaxis, :] / size,
        np.asarray(y, dtype=np.float32)[:, np.newaxis] / size,
    )
    grain = _grain(across, down)
    return (_pralines if kind == "pralines" else _lettering)(across, down, grain)


def _pralines(x, y, grain):
    """Domes in rows on a pale tray, poured lines over them, cocoa specks."""
    apart = 0.2
    column, row = x / apart + 0.5, y / apart + 0.5
    u, v = column - np.floor(column) - 0.5, row - np.floor(row) - 0.5
    radius = np.sqrt(u * u + v * v) / 0.42
    inside = radius < 1
    height = np.sqrt(np.clip(1 - radius * radius, 0.0, 1.0))
    poured = (np.abs(np.sin((x * 0.9 + y * 1.1) * (34 / 0.42 * 0.2)) + 0.35 * grain) < 0.16) & inside
    lit = _lit(-u / 0.42, -v / 0.42, np.maximum(height, 0.12))
    specks = grain > 0.83
    dark = np.stack(np.broadcast_arrays(0.105 + 0.02 * grain, 0.042 + 0.01 * grain, 0.022 + 0.006 * grain), axis=-1)
    tray = np.stack(np.broadcast_arrays(0.62 + 0.05 * grain, 0.57 + 0.05 * grain, 0.47 + 0.05 * grain), axis=-1)
    light = np.where(inside[..., np.newaxis], dark * lit[..., np.newaxis], tray)
    light = np.where(
        poured[..., np.newaxis], np.array([0.66, 0.5, 0.3], dtype=np.float32) * lit[..., np.newaxis], light
    )
    light = np.where((specks & inside)[..., np.newaxis], np.float32(0.5), light)
    return Surface(-height, np.clip(light, 0.0, 1.0).astype(np.float32))


def _lettering(x, y, grain):
    """Rows of made-up letters pressed into warm foil, each on its own grid of strokes."""
    letters = np.random.default_rng(SEED).random((GLYPHS, 7, 5)) < 0.55
    letters[:, :, [0]] |= np.random.default_rng(SEED + 1).random((GLYPHS, 1, 1)) < 0.8
    cell_x, cell_y = x / 0.012, y / 0.012
    column, line = np.floor(cell_x / 7).astype(int), np.floor(cell_y / 11).astype(int)
    inner_x, inner_y = np.floor(cell_x - 7 * column).astype(int), np.floor(cell_y - 11 * line).astype(int)
    glyph = (column * 7919 + line * 104729) % GLYPHS
    pressed = (inner_x < 5) & (inner_y < 7) & letters[glyph, np.clip(6 - inner_y, 0, 6), np.clip(inner_x, 0, 4)]
    shimmer = 0.5 + 0.22 * np.sin(9 * x + 5 * y) + 0.1 * grain
    foil = np.stack([0.95 * shimmer, 0.72 * shimmer, 0.3 * shimmer], axis=-1)
    light = np.where(pressed[..., np.newaxis], foil * np.float32(0.22), foil)
    return Surface(np.where(pressed, 0.2, -0.05 + 0.02 * grain), np.clip(light, 0.0, 1.0).astype(np.float32))


def _lit(slope_x, slope_y, toward):
    """Light on a surface by the angle of the lamp, with a small shine."""
    facing = np.clip(-LIGHT_FROM[0] * slope_x - LIGHT_FROM[1] * slope_y - LIGHT_FROM[2] * toward, 0.0, None)
    return (0.35 + 1.1 * facing + 5.0 * np.clip(facing - 0.9, 0.0, None)).astype(np.float32)


def _grain(x, y):
    """Fine detail at every scale from a tenth of the frame to a ten-thousandth: -1 to 1, the same at the same place."""
    tile = np.random.default_rng(SEED).standard_normal((256, 256)).astype(np.float32)
    total = np.zeros((y.shape[0], x.shape[1]), dtype=np.float32)
    pitch = float(abs(x[0, 1] - x[0, 0])) if x.shape[1] > 1 else 1e-3
    for octave in range(4):
        # The finest octave has two pixels a grain, on a scale that does not depend on where one looks.
        scale = 2.0 ** (np.ceil(np.log2(2 * pitch)) + 2 * octave)
        total += _smooth(tile, x[0] / scale + 17 * octave, y[:, 0] / scale + 29 * octave) * np.float32(
            0.62 / (1 + 0.35 * octave)
        )
    return np.tanh(total)


def _smooth(tile, x, y):
    """A tile repeated endlessly, straight lines between its values: rows first, then columns, as places are a grid."""
    rows, columns = np.floor(y).astype(int), np.floor(x).astype(int)
    down, across = (y - rows).astype(np.float32)[:, np.newaxis], (x - columns).astype(np.float32)[np.newaxis, :]
    size = tile.shape[0]
    lines = tile[rows % size] * (1 - down) + tile[(rows + 1) % size] * down
    return lines[:, columns % size] * (1 - across) + lines[:, (columns + 1) % size] * across
