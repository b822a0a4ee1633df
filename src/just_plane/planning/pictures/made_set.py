"""A made-up set for a shot's stack: what the planned rig would see of it from every place of the rail or ring.

The middle of the frame, as far as it goes at three pixels to the circle of confusion. Nothing of it is looked up from
the checks: blur by the way's optics, perspective from its entrance pupil.
"""

import math
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from just_plane.contract.stack_numbers import StackNumbers
from just_plane.core.scenery import surface
from just_plane.core.units import MM_PER_NM
from just_plane.core.view.focus import focus_of_rig
from just_plane.core.view.geometry import Grid
from just_plane.core.view.live import MARGIN_PX, Live, Sight
from just_plane.core.view.scene import Scene, crumbs_at
from just_plane.planning.plan import plan_shot
from just_plane.planning.stack_numbers import numbers_of, stack_way

WIDTH, HEIGHT = 720, 480
CIRCLE_PX = 3.0
FEWEST_FRAMES, MOST_FRAMES = 2, 400
ENDLESS = 1e6
"""mm: an entrance pupil so far away is endlessly far."""
SLOPE_SHARE, DOME_SHARE = 0.85, 0.15
"""Of the depth: a slope that comes toward the camera at the bottom, with low domes on it; no edge hides another."""
SLOPE_OVER = 0.9
"""Share of the frame's height that the slope takes."""
WITHIN_PX = 0.02
"""That the perspective of a frame may be off: a step of the rail shows as growth of a pixel or two at the edge."""
STILL = 0.25
"""Share of the circle of confusion that may move in an exposure."""


class MadeSet(NamedTuple):
    """A stack to be photographed frame by frame."""

    numbers: StackNumbers
    magnification: float
    effective_f_number: float
    pitch: float
    """mm on the sensor of one pixel."""
    pupil: float
    """mm from the entrance pupil to the plane of focus."""
    places: list
    """Of the frames, mm behind the nearest point, as planned."""
    depth: float
    """mm, near to far."""
    live: Live

    @property
    def across_px(self):
        """Pixels for each mm that the camera goes across."""
        return self.magnification / self.pitch

    @property
    def still_mm(self):
        """How far the camera may go along in an exposure that counts as still."""
        assert self.numbers.c_mm is not None
        return STILL * self.numbers.c_mm * self.effective_f_number / self.magnification**2

    def light(self, place, right=0.0, down=0.0):
        """One frame, linear light.

        Parameters
        ----------
        place : float         Where it is sharp, mm behind the nearest point.
        right, down : float   How far the picture is shifted, px.

        Returns
        -------
        (H, W, 3) array       0 to 1.
        """
        ring = self.numbers.kind == "ring"
        # A ring leaves the camera where it is and makes the picture a little smaller as it focuses farther away.
        distance = self.pupil + place if ring else self.pupil
        m = self._at(distance) if ring else self.magnification
        sight = Sight(m * distance, Grid(HEIGHT, WIDTH, self.pitch), (0.0, 0.0, 0.0 if ring else place))
        n_e = self.effective_f_number * (1 + m) / (1 + self.magnification)
        wavelength = self.numbers.wavelength_nm * MM_PER_NM
        seen = self.live.light(sight, focus_of_rig(m, n_e, distance), n_e, (right, down), wavelength)
        return np.clip(seen, 0.0, 1.0)

    def _at(self, distance):
        """Magnification of the thin lens that this one acts as, focused at another distance."""
        focal = self.pupil * self.magnification / (1 + self.magnification)
        return focal / (distance - focal)


def made_set(shot, way_id=None):
    """The set of a shot's stack, ready to be photographed.

    Parameters
    ----------
    shot : Shot
    way_id : str or None   Of the stack that is meant; None: the one decided on, else the best ranked.

    Returns
    -------
    MadeSet, or str   Why there is none.
    """
    plan = plan_shot(shot)
    if way_id is not None:
        shot = shot.model_copy(update={"chosen_way": way_id})
    numbers, way = numbers_of(shot, plan), stack_way(plan, shot.chosen_way)
    m, n_e, circle = numbers.magnification, numbers.effective_f_number, numbers.c_mm
    if way is None or plan.reach is None or m is None or n_e is None or circle is None:
        return "This shot has no stack by rail or ring that could be photographed."
    places = sorted(way.focuses_mm)
    if len(places) < FEWEST_FRAMES:
        return "A stack of one frame is no stack."
    if len(places) > MOST_FRAMES:
        return f"This stack has {len(places)} frames; up to {MOST_FRAMES} are made up."
    pitch = circle / CIRCLE_PX
    practice = numbers.model_copy(update={"pixel_pitch_mm": pitch, "sensor_width_mm": None, "points": []})
    pupil = numbers.entrance_pupil_distance_mm or ENDLESS
    kind = "pralines" if shot.subject.nature in ("food", "liquid") else "lettering"
    scene = _scene(kind, pitch / m, pupil, plan.depth_mm, plan.reach.frame_width_mm / 3)
    return MadeSet(practice, m, n_e, pitch, pupil, places, plan.depth_mm, Live(scene, within_px=WITHIN_PX))


@lru_cache(maxsize=1)
def _scene(kind, pixel, pupil, depth, drawn_for):
    """The slope with its domes, drawn twice as fine as the nearest frame shows it."""
    texel = pixel / 2
    grown = (pupil + 1.2 * depth) / pupil
    rows, columns = (math.ceil(2 * (size + 2 * MARGIN_PX + 16) * grown) for size in (HEIGHT, WIDTH))
    x = (np.arange(columns) - (columns - 1) / 2) * texel
    y = -(np.arange(rows) - (rows - 1) / 2) * texel
    made = surface(kind, x, y, drawn_for)
    slope = np.clip(0.5 + y / (SLOPE_OVER * HEIGHT * pixel), 0, 1)[:, np.newaxis]
    relief = depth * (SLOPE_SHARE * slope + DOME_SHARE * (1 - np.clip(made.relief, -1, 0) ** 2))
    light = made.light * crumbs_at(x, y, pixel)[..., np.newaxis]
    planes = np.ascontiguousarray(np.moveaxis(light, -1, 0), dtype=np.float32)
    return Scene(pupil, 0.0, 0.0, relief.astype(np.float32), planes, texel)
