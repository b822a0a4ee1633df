"""What a way would look like: a made-up surface laid through the points, seen with the blur that the way leaves.

The surface is invented, its depth is not: it follows the points that were read, or the depth asked for. Cut from
the final picture, at its own pixels or at twice their size, or the whole frame made small.
"""

from dataclasses import dataclass, replace
from functools import lru_cache, reduce

import numpy as np

from just_plane.core.plane import wedge_defocus
from just_plane.core.plane.ring import ring_defocus
from just_plane.core.scene import render
from just_plane.core.scenery import surface
from just_plane.planning.plane.subject_surface import SubjectSurface
from just_plane.planning.setup.setup import NoSetup, make_setup
from just_plane.planning.stations.verdict import no_setup
from just_plane.planning.ways.compare import compared

WIDTH, HEIGHT = 960, 640
EVERY = 8
MANY = 24
"""Frames of a stack that are looked through one by one; of more, the nearest by depth."""


@dataclass(frozen=True, slots=True)
class Preview:
    """A picture and where it was cut from."""

    light: np.ndarray
    """(H, W, 3) linear, 0 to 1."""
    enlarged: float
    """Pixels of the screen for one of the picture."""


def preview(shot, way_id, zoom, from_left, from_top):
    """A picture of one way.

    Parameters
    ----------
    shot : Shot
    way_id : str
    zoom : str               ``frame`` for all of it, ``pixels`` for one to one, ``double`` for twice that.
    from_left, from_top      Middle of what is looked at, as shares of the frame.

    Returns
    -------
    Preview, or str          Why there is none, as a sentence.
    """
    setup = make_setup(shot)
    if isinstance(setup, NoSetup):
        verdict = no_setup(setup.said)
        return f"{verdict.headline} {verdict.detail}".strip()
    way = next((each for each in compared(setup) if each.id == way_id), None)
    if way is None or not way.way.frames:
        return "This way is not possible with this set-up, so there is no picture of it."
    area = setup.area
    if zoom != "frame" and area.pixels_across is None:
        return "The body's pixels are not known, so there is no picture at their size: give them at Reach."
    width, height = (WIDTH // 2, HEIGHT // 2) if zoom == "double" else (WIDTH, HEIGHT)
    pitch = area.width / area.pixels_across if area.pixels_across else 0.0
    if zoom == "frame":
        pitch = max(area.width / WIDTH, area.height / HEIGHT)
        width, height = (max(round(side / pitch), 1) for side in (area.width, area.height))
        from_left = from_top = 0.5
    left = from_left + (np.arange(width) - (width - 1) / 2) * pitch / area.width
    top = from_top + (np.arange(height) - (height - 1) / 2) * pitch / area.height
    points, off = _seen(setup, left, top)
    picture = _texture(setup, left, top)
    blur = _blur(setup, way, points, off).reshape(height, width)
    effective = way.way.effective_f_number
    if way.back_off is not None:
        # The same picture, cut from a smaller one: its blur and its diffraction are enlarged with it.
        blur, effective = blur * way.back_off.factor, effective * way.back_off.factor
    light = render(picture, blur, effective, pitch, setup.wavelength)
    return Preview(np.clip(light, 0.0, 1.0), 2.0 if zoom == "double" else 1.0)


def _seen(setup, left, top):
    """Points of the subject at every pixel, (N, 3) mm, and how far they lie off the plane.

    Worked out at every eighth pixel and drawn straight between: the guess between the points is smoother than that.
    """
    rows, columns = _nodes(len(top)), _nodes(len(left))
    grid = np.meshgrid(left[columns], top[rows])
    points, off = SubjectSurface(setup.plane, setup.depth).points_at(grid[0].ravel(), grid[1].ravel())
    down, across = _between(rows, len(top)), _between(columns, len(left)).T
    parts = [down @ part.reshape(grid[0].shape) @ across for part in (*points.T, off)]
    return np.stack([part.ravel() for part in parts[:3]], axis=-1), parts[3].ravel()


def _nodes(count):
    return np.unique(np.append(np.arange(0, count, EVERY), count - 1))


def _between(nodes, count):
    """(count, nodes) weights of straight lines between nodes."""
    return np.stack([np.interp(np.arange(count), nodes, each) for each in np.eye(len(nodes))], axis=-1)


def _texture(setup, left, top):
    """The made-up surface as a perfect lens would show it: lengths along a slope stand shortened."""
    kind = "pralines" if setup.shot.subject.nature in ("food", "liquid") else "lettering"
    laid = setup.plane.laid
    slopes = (laid.wanted.slope_x, laid.wanted.slope_y) if laid is not None else (0.0, 0.0)
    area, m = setup.area, setup.view.magnification
    across, up = area.width / m * float(np.hypot(1.0, slopes[0])), area.height / m * float(np.hypot(1.0, slopes[1]))
    x = ((left[0] - 0.5) * across, (left[-1] - 0.5) * across, len(left))
    y = ((0.5 - top[0]) * up, (0.5 - top[-1]) * up, len(top))
    return _made_up(kind, x, y, area.width / m)


@lru_cache(maxsize=4)
def _made_up(kind, x, y, size):
    """Kept for the other ways that look at the same place; ``x`` and ``y`` are (from, to, count)."""
    light = surface(kind, np.linspace(*x), np.linspace(*y), size).light
    light.flags.writeable = False
    return light


def _blur(setup, way, points, off):
    """Blur on the sensor at every point in the frame that shows it best, mm."""
    work, effective = setup.plane, way.way.effective_f_number
    if way.setting is not None:
        return _tilted(work, way, points, effective)
    if way.id == "turn":
        depth = off - (off.min() + off.max()) / 2
        return setup.view.blur_at(depth, effective)
    depth = points[:, 2] - work.cloud.nearest
    focuses = np.sort(np.array(way.way.focuses))
    middles = (focuses[1:] + focuses[:-1]) / 2
    offset = depth - focuses[np.searchsorted(middles, depth)]
    if way.back_off is not None:
        from_there = replace(
            setup.view, magnification=way.back_off.magnification, pupil_distance=way.back_off.entrance_pupil_mm
        )
        return from_there.blur_at(offset, effective)
    return setup.view.blur_at(offset, effective)


def _tilted(work, way, points, effective):
    lens = work.lens
    if not way.places:
        return np.abs(lens.blur(way.setting, points, effective))
    if way.way.kind == "rail":
        defocus = (wedge_defocus(lens.focal_length, way.setting, points - [0, 0, at]) for at in way.places[:MANY])
    else:
        defocus = (ring_defocus(lens.focal_length, way.setting, points, [at])[0] for at in way.places[:MANY])
    return np.abs(lens.blur_of(reduce(lambda one, other: np.minimum(one, np.abs(other)), defocus, np.inf), effective))
