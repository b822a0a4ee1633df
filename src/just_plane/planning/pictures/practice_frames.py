"""Frames of a stack to practise checking on: a made-up surface as the planned stack would photograph it.

The middle of the frame, as far as it goes at three pixels to the circle of confusion. Nothing of it is looked up from
the checks: blur by the way's optics, perspective by its entrance pupil, faults as they are asked for.
"""

from typing import NamedTuple

import numpy as np

from just_plane.contract.stack_numbers import StackNumbers
from just_plane.core.scene import render
from just_plane.core.scenery import surface
from just_plane.core.units import MM_PER_NM
from just_plane.planning.plan import plan_shot
from just_plane.planning.stack_numbers import numbers_of, stack_way

WIDTH, HEIGHT = 720, 480
CIRCLE_PX = 3.0
FEWEST_FRAMES, MOST_FRAMES = 2, 60
SEED = 4711


class PracticeStack(NamedTuple):
    """A stack to be photographed frame by frame."""

    numbers: StackNumbers
    magnification: float
    effective_f_number: float
    pitch: float
    """mm on the sensor."""
    pupil: float | None
    """mm from the plane of focus; None: endlessly far."""
    places: list
    """Of the frames, mm behind the nearest point, as planned."""
    depth: float
    """mm, near to far."""
    kind: str
    across: float
    """mm of the subject that the frame is wide."""

    def frame(self, place):
        """One frame, linear light, (H, W, 3).

        Parameters
        ----------
        place : float   Where it is sharp, mm behind the nearest point.
        """
        pixel = self.pitch / self.magnification
        x = (np.arange(WIDTH) - (WIDTH - 1) / 2) * pixel
        y = -(np.arange(HEIGHT) - (HEIGHT - 1) / 2) * pixel
        spread = 1.0 if self.pupil is None else (self.pupil + self.depth / 2 - place) / self.pupil
        made = surface(self.kind, x * spread, y * spread, self.across)
        depth = self._depth(made.relief, y * spread)
        light = made.light * _crumbs(x * spread, y * spread, pixel)[..., np.newaxis]
        blur = np.abs(depth - place) * self.magnification**2 / self.effective_f_number
        wavelength = self.numbers.wavelength_nm * MM_PER_NM
        return np.clip(render(light, blur, self.effective_f_number, self.pitch, wavelength), 0, 1)

    def _depth(self, relief, y):
        """A slope that comes toward the camera at the bottom, with low domes on it; no edge hides another."""
        half = HEIGHT / 2 * self.pitch / self.magnification
        slope = np.clip(0.5 + y[:, np.newaxis] / (1.8 * half), 0, 1)
        return self.depth * (0.85 * slope + 0.15 * (1 - np.clip(relief, -1, 0) ** 2))


def _crumbs(x, y, pixel):
    """Fine detail of two to eight pixels, the same at the same place of the subject: about 1, times the light."""
    generator = np.random.default_rng(SEED)
    total = np.ones((len(y), len(x)))
    for size in (2, 4, 8):
        tile = generator.standard_normal((512, 512))
        rows = np.floor(y / (size * pixel) * 2).astype(int) % 512
        columns = np.floor(x / (size * pixel) * 2).astype(int) % 512
        smooth = (tile + np.roll(tile, 1, 0) + np.roll(tile, 1, 1) + np.roll(tile, (1, 1), (0, 1))) / 2
        total += 0.16 * smooth[rows[:, np.newaxis], columns]
    return np.clip(total, 0.25, 1.9)


def practice_stack(shot):
    """The stack of a shot, ready to be photographed.

    Parameters
    ----------
    shot : Shot

    Returns
    -------
    PracticeStack, or str   Why there is none.
    """
    plan = plan_shot(shot)
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
    kind = "pralines" if shot.subject.nature in ("food", "liquid") else "lettering"
    pupil = numbers.entrance_pupil_distance_mm
    return PracticeStack(practice, m, n_e, pitch, pupil, places, plan.depth_mm, kind, plan.reach.frame_width_mm / 3)
