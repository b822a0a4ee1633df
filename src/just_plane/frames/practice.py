"""A made-up stack as files, with what may go wrong in it."""

import json
from pathlib import Path

import numpy as np

from just_plane.core.view.sensor import Sensor
from just_plane.pictures.camera_files import Notes, write_jpeg
from just_plane.pictures.frames_out import written

FAULTS = ("skipped_step", "bump", "dead_flash", "light_drift")
ELECTRONS = 12_000.0
NUMBERS = "stack.json"
"""The numbers of the stack, beside its frames."""
DRIFT_EV, DEAD_EV = -0.12, -3.0
BUMP_PX = (-5.0, 3.0)


def write_practice(folder, made, faults, seed=1):
    """Photograph a made-up stack into a folder.

    Parameters
    ----------
    folder : Path
    made : MadeSet
    faults : sequence of str   Of FAULTS.
    seed : int

    Raises
    ------
    WriteError
    """
    folder = Path(folder)
    folder.mkdir(parents=True, exist_ok=True)
    places = list(made.places)
    third = len(places) // 3
    if "skipped_step" in faults:
        step = places[1] - places[0]
        places = [place + (step * 2 if k >= third else 0) for k, place in enumerate(places)]
        places = [place for place in places if place <= made.places[-1] + 1e-9]
    for k, place in enumerate(places):
        bumped = "bump" in faults and k >= 2 * len(places) // 3
        light = made.light(place, *(BUMP_PX if bumped else (0.0, 0.0)))
        counted = Sensor(_gain(k, len(places), faults), ELECTRONS, seed=seed, frame=k).counted(light)
        write_jpeg(folder / f"POD_{k + 1:04d}.jpg", counted, _notes(made, k))
    written(folder / NUMBERS, lambda to: to.write_text(json.dumps(made.numbers.model_dump(), indent=1)))


def _gain(k, count, faults):
    ev = 0.0
    if "light_drift" in faults:
        ev += DRIFT_EV * k / max(count - 1, 1)
    if "dead_flash" in faults and k == count // 2:
        ev += DEAD_EV
    return float(np.exp2(ev))


def _notes(made, k):
    marked = made.effective_f_number / (1 + made.magnification)
    return Notes(
        shutter_s=1 / 60,
        f_number=round(marked, 1),
        iso=100,
        taken=f"2026:05:03 10:{k // 10 % 60:02d}:{k % 10 * 6:02d}",
        camera="simulated camera",
    )
