"""What the simulated camera of a run sees before it is released: the live picture of a made-up set."""

import threading

import numpy as np

from just_plane.core.view.colour import LUMINANCE
from just_plane.core.view.marking import hatched, sharp_edges, sharp_ratio
from just_plane.core.view.sensor import Sensor, electrons_of, toned
from just_plane.drive.simulated import NoSetError, focus_at
from just_plane.pictures.writing import colour_jpeg
from just_plane.planning.pictures.made_set import made_set
from just_plane.runs.marks import reading_of

KEPT = 2
"""Sets that are kept: each holds its levels of blur."""
MAGNIFIED = (360, 240)
"""Columns and rows of the part that the magnifier shows, each pixel as two by two."""
READ = 3.0
"""Electrons of noise that reading a pixel adds."""


class LiveViews:
    """Draws the sets of a few runs, one picture at a time."""

    def __init__(self):
        self._sets: dict = {}
        self._lock = threading.Lock()

    def picture(self, run_id, shot, stand, frame, *, at=None, marks=False):
        """The picture with the rail at a frame's mark.

        Parameters
        ----------
        run_id : str
        shot : Shot                    As the run was made from it.
        stand : Stand
        frame : int
        at : (float, float) or None    Place of the magnifier, shares from left and top; None: the whole of it.
        marks : bool                   Sharp edges marked.

        Returns
        -------
        bytes                          A JPEG.

        Raises
        ------
        NoSetError                     There is nothing that could be photographed.
        """
        with self._lock:
            made = self._made(run_id, shot, stand.plan)
            light = made.light(focus_at(stand.plan, reading_of(stand.plan.steps[frame])))
            full = electrons_of(made.pitch, stand.plan.iso)
            counted = Sensor(full=full, read=READ, seed=stand.devices.seed, frame=frame).counted(light)
            picture = toned(counted)
            if marks:
                noise = float(np.sqrt(0.3 / full + (READ / full) ** 2))
                ratio = sharp_ratio(made.numbers.c_mm, made.effective_f_number, made.pitch)
                hatched(picture, sharp_edges(counted @ LUMINANCE, noise, ratio))
            return colour_jpeg(picture if at is None else _magnified(picture, at))

    def _made(self, run_id, shot, plan):
        made = self._sets.pop(run_id, None) or made_set(shot, plan.way)
        if isinstance(made, str):
            raise NoSetError(made)
        while len(self._sets) >= KEPT:
            self._sets.pop(next(iter(self._sets)))
        self._sets[run_id] = made
        return made


def _magnified(picture, at):
    rows, columns = picture.shape[:2]
    wide, high = min(MAGNIFIED[0], columns), min(MAGNIFIED[1], rows)
    left = min(max(round(at[0] * columns - wide / 2), 0), columns - wide)
    top = min(max(round(at[1] * rows - high / 2), 0), rows - high)
    return picture[top : top + high, left : left + wide].repeat(2, axis=0).repeat(2, axis=1)
