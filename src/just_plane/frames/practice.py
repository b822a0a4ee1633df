"""A made-up stack as files, with what may go wrong in it."""

import json
from pathlib import Path

import numpy as np
from PIL import Image

from just_plane.pictures.frames_out import written
from just_plane.pictures.reading import NOTES, TAKEN

FAULTS = ("skipped_step", "bump", "dead_flash", "light_drift")
ELECTRONS, READ_NOISE = 12_000.0, 3.0
NUMBERS = "stack.json"
"""The numbers of the stack, beside its frames."""


def write_practice(folder, stack, faults, seed=1):
    """Photograph a made-up stack into a folder.

    Parameters
    ----------
    folder : Path
    stack : PracticeStack
    faults : sequence of str   Of FAULTS.
    seed : int

    Raises
    ------
    WriteError
    """
    folder = Path(folder)
    folder.mkdir(parents=True, exist_ok=True)
    generator = np.random.default_rng(seed)
    places = list(stack.places)
    third = len(places) // 3
    if "skipped_step" in faults:
        step = places[1] - places[0]
        places = [place + (step * 2 if k >= third else 0) for k, place in enumerate(places)]
        places = [place for place in places if place <= stack.places[-1] + 1e-9]
    for k, place in enumerate(places):
        light = stack.frame(place) * _gain(k, len(places), faults)
        if "bump" in faults and k >= 2 * len(places) // 3:
            light = np.roll(light, (3, -5), axis=(0, 1))
        written(folder / f"POD_{k + 1:04d}.jpg", _jpeg(_noisy(light, generator), stack, k))
    written(folder / NUMBERS, lambda to: to.write_text(json.dumps(stack.numbers.model_dump(), indent=1)))


def _gain(k, count, faults):
    ev = 0.0
    if "light_drift" in faults:
        ev -= 0.12 * k / max(count - 1, 1)
    if "dead_flash" in faults and k == count // 2:
        ev -= 3.0
    return 2.0**ev


def _noisy(light, generator):
    counted = light * ELECTRONS
    spread = np.sqrt(counted + READ_NOISE**2)
    return np.clip((counted + generator.standard_normal(light.shape) * spread) / ELECTRONS, 0, 1)


def _jpeg(light, stack, k):
    coded = np.where(light <= 0.0031308, 12.92 * light, 1.055 * np.power(light, 1 / 2.4) - 0.055)
    image = Image.fromarray(np.rint(coded * 255).astype(np.uint8))
    exif = Image.Exif()
    exif.get_ifd(NOTES).update({TAKEN: f"2026:05:03 10:{k // 10 % 60:02d}:{k % 10 * 6:02d}"})
    return lambda to: image.save(to, "JPEG", quality=94, subsampling=0, exif=exif.tobytes())
