"""Frames of a stack to practise checking on: a made-up surface as the planned stack would photograph it.

The middle of the frame, as far as it goes at three pixels to the circle of confusion. Nothing of it is looked up from
the checks: blur by the way's optics, perspective by its entrance pupil, faults as they are asked for.
"""

from typing import NamedTuple

import numpy as np

from just_plane.contract.stack_numbers import StackNumbers
from just_plane.core.scene import render
from just_plane.core.scenery import surface
from just_plane.planning.plan import plan_shot
from just_plane.planning.stack_numbers import numbers_of, stack_way

WIDTH, HEIGHT = 720, 480
CIRCLE_PX = 3.0
FEWEST_FRAMES, MOST_FRAMES = 2, 60
SEED = 4711


class PracticeStack(NamedTuple):
    """A stack to be photographed frame by frame."""

    numbers: StackNumbers
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
        n = self.numbers
        pitch, pupil = n.pixel_pitch_mm, n.entrance_pupil_distance_mm
        x = (np.arange(WIDTH) - (WIDTH - 1) / 2) * pitch / n.magnification
        y = -(np.arange(HEIGHT) - (HEIGHT - 1) / 2) * pitch / n.magnification
        spread = 1.0 if pupil is None else (pupil + self.depth / 2 - place) / pupil
        made = surface(self.kind, x * spread, y * spread, self.across)
        depth = self._depth(made.relief, y * spread)
        light = made.light * _crumbs(x * spread, y * spread, pitch / n.magnification)[..., np.newaxis]
        blur = np.abs(depth - place) * n.magnification**2 / n.effective_f_number
        return np.clip(render(light, blur, n.effective_f_number, pitch, n.wavelength_nm * 1e-6), 0, 1)

    def _depth(self, relief, y):
        """A slope that comes toward the camera at the bottom, with low domes on it; no edge hides another."""
        half = HEIGHT / 2 * self.numbers.pixel_pitch_mm / self.numbers.magnification
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
    if way is None or plan.reach is None or numbers.magnification is None or numbers.c_mm is None:
        return "This shot has no stack by rail or ring that could be photographed."
    places = sorted(way.focuses_mm)
    if len(places) < FEWEST_FRAMES:
        return "A stack of one frame is no stack."
    if len(places) > MOST_FRAMES:
        return f"This stack has {len(places)} frames; up to {MOST_FRAMES} are made up."
    pitch = numbers.c_mm / CIRCLE_PX
    practice = numbers.model_copy(update={"pixel_pitch_mm": pitch, "sensor_width_mm": None, "points": []})
    kind = "pralines" if shot.subject.nature in ("food", "liquid") else "lettering"
    return PracticeStack(practice, places, plan.depth_mm, kind, plan.reach.frame_width_mm / 3)
