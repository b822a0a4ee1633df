"""Pictures of a drill, each a function of what is asked; what is kept between them only makes them quicker."""

import threading

import numpy as np

from just_plane.contract.practice import ViewAsked
from just_plane.core.plane.tilt import TiltSetting
from just_plane.core.practice.drill import CIRCLE, FOCAL, Setting, held, make_drill
from just_plane.core.practice.rocking import carried, carried_across
from just_plane.core.practice.seeing import grid_seen, lens_of, set_of
from just_plane.core.view.colour import LUMINANCE
from just_plane.core.view.focus import focus_of_lens
from just_plane.core.view.geometry import Grid, seen
from just_plane.core.view.live import Live, Sight
from just_plane.core.view.marking import SAFFRON, hatched, honest_marks, sharp_edges, sharp_ratio
from just_plane.core.view.sensor import Sensor, electrons_of, toned
from just_plane.pictures.writing import colour_jpeg
from just_plane.practice.hold import rocking_of

COLUMNS, ROWS = 640, 427
QUALITY = 82
KEPT = 3
COARSE_REACH_PX = 2.7
"""Blur, in pixels of the view, at which half of the detail is still marked where pixels are too coarse to tell: as
measured on drills (docs/derivations/practice.md)."""


class Shown:
    """Draws drills, one at a time."""

    def __init__(self):
        self._lives: dict = {}
        self._lock = threading.Lock()

    def picture(self, asked: ViewAsked, own=None):
        """What the camera shows.

        Parameters
        ----------
        asked : ViewAsked
        own : Own or None   The shot's own set, of the kind ``own``.

        Returns
        -------
        bytes   A JPEG.
        """
        with self._lock:
            return colour_jpeg(self._drawn(asked, own), QUALITY)

    def _drawn(self, asked, own):
        drill = make_drill(asked.kind, asked.seed) if own is None else own.drill
        setting = held(drill, Setting(**asked.setting.model_dump()))
        found = lens_of(drill, setting)
        shift = (0.0, 0.0)
        grid = _grid(drill, asked.magnified)
        if asked.kind == "rock":
            drill, found, shift = _rocked(drill, found, asked, grid)
        live = self._live(drill, asked, own)
        sight = Sight(drill.image_distance, grid_seen(grid, found), found.node)
        # Of the view, whose places are directions: so the same however it is focused, and levels of blur are kept.
        effective = found.f_number * drill.image_distance / drill.gear.focal_length
        light = live.light(sight, found.focus, effective, shift, neighbours=2 if asked.moving else 4)
        full = electrons_of(grid.pitch * drill.gear.scale_behind)
        at = asked.magnified
        place = (asked.t, asked.t) if at is None else (at.from_left, at.from_top)
        frame = hash((*setting, *(round(1e4 * part) for part in place))) % (1 << 31)
        counted = Sensor(full=full, read=3.0, seed=drill.seed, frame=frame).counted(light)
        picture = toned(counted)
        if asked.marks:
            noise = float(np.sqrt(0.3 / full + (3.0 / full) ** 2))
            marks = sharp_edges(counted @ LUMINANCE, noise, sharp_ratio(drill.gear.circle, effective, grid.pitch))
            hatched(picture, marks)
        if asked.truth:
            there = seen(live.scene, sight.grid, sight.image_distance, found.node)
            _outlined(picture, found.focus.blur(sight.grid, there.inverse) <= drill.gear.circle)
        return picture

    def _live(self, drill, asked, own):
        shot = None if asked.own is None else (asked.own.shot_id, asked.own.revision)
        key = (drill.kind, drill.seed, shot, asked.magnified is not None)
        live = self._lives.pop(key, None) or Live(set_of(drill) if own is None else own.scene)
        while len(self._lives) >= KEPT:
            self._lives.pop(next(iter(self._lives)))
        self._lives[key] = live
        return live


def marks_reach(pitch, circle=CIRCLE):
    """Blur up to which edges are marked: where pixels are coarse no mark can tell the circle of confusion.

    Parameters
    ----------
    pitch : float    mm on the sensor of one pixel of the view.
    circle : float   Blur that counts as sharp, mm.

    Returns
    -------
    float            mm.
    """
    return circle if honest_marks(circle, pitch) else max(circle, COARSE_REACH_PX * pitch)


def _rocked(drill, found, asked, grid):
    """The set nearer, and a square lens that blurs as much as the camera is off the plane; how far the picture sways.

    The page stands square, so that a step along is a step of the focus: what is seen is looked at once, not anew for
    every frame. That the picture grows by a hundredth meanwhile is left out.
    """
    rock = rocking_of(asked)
    drill = drill._replace(distance=rock.distance)
    along = float(carried(asked.t, rock, asked.slower))
    off = (1 / FOCAL - 1 / (rock.distance - along)) / (1 / FOCAL - 1 / rock.distance)
    lens = TiltSetting(0.0, 0.0, drill.image_distance * off)
    right, up = carried_across(asked.t, rock, asked.slower)
    px = rock.magnification / grid.pitch
    found = found._replace(lens=lens, f_number=rock.f_number, focus=focus_of_lens(FOCAL, rock.f_number, lens))
    # While it moves whole pixels will do.
    return drill, found, (float(round(-right * px)), float(round(up * px)))


def _grid(drill, magnified):
    (width, height), pixel = drill.gear.sensor, drill.gear.pixel
    if magnified is None:
        return Grid(ROWS, COLUMNS, width / COLUMNS)
    half = (COLUMNS * pixel / 2, ROWS * pixel / 2)
    across = min(max((magnified.from_left - 0.5) * width, half[0] - width / 2), width / 2 - half[0])
    up = min(max((0.5 - magnified.from_top) * height, half[1] - height / 2), height / 2 - half[1])
    return Grid(ROWS, COLUMNS, pixel, (across, up))


def _outlined(picture, sharp):
    edge = np.zeros_like(sharp)
    edge[1:] |= sharp[1:] != sharp[:-1]
    edge[:, 1:] |= sharp[:, 1:] != sharp[:, :-1]
    picture[edge] = SAFFRON
