"""Pictures of a drill, each a function of what is asked; what is kept between them only makes them quicker."""

import io
import threading

import numpy as np
from PIL import Image

from just_plane.contract.practice import ViewAsked
from just_plane.core.plane.tilt import TiltSetting
from just_plane.core.practice.drill import (
    CIRCLE,
    FOCAL,
    RAIL_CLICK,
    SENSOR,
    Setting,
    held,
    lens_of,
    make_drill,
    set_of,
)
from just_plane.core.practice.rocking import carried, make_rocking
from just_plane.core.view.colour import LUMINANCE
from just_plane.core.view.focus import focus_of_lens
from just_plane.core.view.geometry import Grid, seen
from just_plane.core.view.live import Live, Sight
from just_plane.core.view.marking import HONEST_PITCH, honest_marks, sharp_edges, sharp_ratio
from just_plane.core.view.sensor import Sensor, electrons_of, toned

COLUMNS, ROWS = 640, 427
PIXEL = 0.006
"""mm of the sensor: one to one in the magnifier."""
QUALITY = 82
SAFFRON = (239, 178, 42)
HATCH = 6
KEPT = 3


class Shown:
    """Draws drills, one at a time."""

    def __init__(self):
        self._lives: dict = {}
        self._lock = threading.Lock()

    def picture(self, asked: ViewAsked):
        """What the camera shows.

        Parameters
        ----------
        asked : ViewAsked

        Returns
        -------
        bytes   A JPEG.
        """
        with self._lock:
            return _jpeg(self._drawn(asked))

    def _drawn(self, asked):
        drill = make_drill(asked.kind, asked.seed)
        setting = held(drill, Setting(**asked.setting.model_dump()))
        lens, f_number = lens_of(drill, setting)
        if asked.kind == "rock":
            drill, lens, f_number = _rocked(drill, asked)
        grid = _grid(asked.magnified)
        live = self._live(drill, asked.magnified)
        # Pixels are places on the sensor, so that focusing makes the picture a little larger, as it does.
        sight = Sight(drill.image_distance, grid, setting.rail * RAIL_CLICK)
        focus, effective = focus_of_lens(FOCAL, f_number, lens), f_number * lens.image_distance / FOCAL
        light = live.light(sight, focus, effective, neighbours=2 if asked.moving else 4)
        full = electrons_of(grid.pitch)
        at = asked.magnified
        place = (asked.t, asked.t) if at is None else (at.from_left, at.from_top)
        frame = hash((*setting, *(round(1e4 * part) for part in place))) % (1 << 31)
        counted = Sensor(full=full, read=3.0, seed=drill.seed, frame=frame).counted(light)
        picture = toned(counted)
        if asked.marks:
            blur = marks_reach(grid.pitch)
            noise = float(np.sqrt(0.3 / full + (3.0 / full) ** 2))
            marks = sharp_edges(counted @ LUMINANCE, noise, sharp_ratio(blur, effective, grid.pitch))
            _hatched(picture, marks)
        if asked.truth:
            there = seen(live.scene, grid, sight.image_distance, (0.0, 0.0, sight.along))
            _outlined(picture, focus.blur(grid, there.inverse) <= CIRCLE)
        return picture

    def _live(self, drill, magnified):
        key = (drill.kind, drill.seed, magnified is not None)
        live = self._lives.pop(key, None) or Live(set_of(drill))
        while len(self._lives) >= KEPT:
            self._lives.pop(next(iter(self._lives)))
        self._lives[key] = live
        return live


def marks_reach(pitch):
    """Blur up to which edges are marked: where pixels are coarse no mark can tell the circle of confusion.

    Parameters
    ----------
    pitch : float   mm on the sensor of one pixel of the view.

    Returns
    -------
    float           mm.
    """
    return CIRCLE if honest_marks(CIRCLE, pitch) else pitch / HONEST_PITCH


def _rocked(drill, asked):
    """The set nearer, and a square lens that blurs as much as the camera is off the plane.

    The page stands square, so that a step along is a step of the focus: what is seen is looked at once, not anew for
    every frame. That the picture grows by a hundredth meanwhile is left out.
    """
    rock = make_rocking(asked.seed)
    drill = drill._replace(distance=rock.distance)
    along = float(carried(asked.t, asked.seed, asked.slower))
    off = (1 / FOCAL - 1 / (rock.distance - along)) / (1 / FOCAL - 1 / rock.distance)
    return drill, TiltSetting(0.0, 0.0, drill.image_distance * off), rock.f_number


def _grid(magnified):
    if magnified is None:
        return Grid(ROWS, COLUMNS, SENSOR[0] / COLUMNS)
    half = (COLUMNS * PIXEL / 2, ROWS * PIXEL / 2)
    across = min(max((magnified.from_left - 0.5) * SENSOR[0], half[0] - SENSOR[0] / 2), SENSOR[0] / 2 - half[0])
    up = min(max((0.5 - magnified.from_top) * SENSOR[1], half[1] - SENSOR[1] / 2), SENSOR[1] / 2 - half[1])
    return Grid(ROWS, COLUMNS, PIXEL, (across, up))


def _hatched(picture, marks):
    """Short saffron strokes along what is marked."""
    rows, columns = np.indices(marks.shape)
    picture[marks & ((rows + columns) % HATCH < 1)] = SAFFRON


def _outlined(picture, sharp):
    edge = np.zeros_like(sharp)
    edge[1:] |= sharp[1:] != sharp[:-1]
    edge[:, 1:] |= sharp[:, 1:] != sharp[:, :-1]
    picture[edge] = SAFFRON


def _jpeg(picture):
    content = io.BytesIO()
    Image.fromarray(picture).save(content, "JPEG", quality=QUALITY, subsampling=0)
    return content.getvalue()
