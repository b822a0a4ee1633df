"""Made-up frames to try a trial on: a lens, a rail, and what they should be found to be."""

from pathlib import Path
from typing import Any

import numpy as np

from just_plane.contract.trial import TrialAsked, TrialPracticeMade
from just_plane.core.contrast import perfect_contrast
from just_plane.core.units import DEFAULT_WAVELENGTH
from just_plane.core.view.levels import Levels, spectrum_of
from just_plane.pictures.camera_files import Notes, write_jpeg

STOPS = (2.8, 3.2, 3.5, 4, 4.5, 5, 5.6, 6.3, 7.1, 8, 9, 10, 11, 13, 14, 16)
PITCH, CIRCLE, SIZE = 0.006, 0.03, 1.0
SHAPE = (420, 560)
SLOPE_SHAPE, ANGLE_DEG, WORKS_AS = (700, 240), 40.0, 11.0
STEP, FRAMES, PLAY = 0.1, 22, 0.05


def write_trial_frames(folder, kind, seed, noise):
    """Photograph what a trial needs into a folder.

    Parameters
    ----------
    folder : Path
    kind : str      stops, steps or backlash.
    seed : int
    noise : float   Of full scale.

    Returns
    -------
    TrialPracticeMade
    """
    folder = Path(folder)
    folder.mkdir(parents=True, exist_ok=True)
    made = np.random.default_rng(seed)
    common: dict[str, Any] = {"folder": str(folder), "magnification": SIZE, "pixel_pitch_mm": PITCH, "c_mm": CIRCLE}
    if kind == "stops":
        best = _lens(folder, made, noise)
        asked = TrialAsked(kind="stops", name="made-up 100 mm macro", **common)
        return TrialPracticeMade(asked=asked, truth=f"This lens is best at f/{best:g}.")
    step = STEP * made.uniform(0.92, 1.08)
    places = step * (np.arange(FRAMES) - (FRAMES - 1) / 2)
    way = places if kind == "steps" else np.concatenate([places, places[::-1] + PLAY])
    for k, light in enumerate(_slope(way, made, noise)):
        write_jpeg(folder / f"R_{k + 1:03d}.jpg", light, _notes(8.0, 1 / 60, k))
    if kind == "steps":
        asked = TrialAsked(
            kind="steps", name="made-up rail", angle_deg=ANGLE_DEG, per_step=10, unit="division", **common
        )
        return TrialPracticeMade(asked=asked, truth=f"A division of this rail moves {step / 10:.5f} mm.")
    asked = TrialAsked(kind="backlash", name="made-up rail", step_mm=round(step, 6), **common)
    return TrialPracticeMade(asked=asked, truth=f"This rail has {1000 * PLAY:.0f} µm of play.")


def _print(shape, made):
    """Printed texture of a few scales."""
    total = np.zeros(shape)
    for size in (1, 2, 4, 8):
        grain = made.random((shape[0] // size + 1, shape[1] // size + 1)) < 0.5
        total += np.repeat(np.repeat(grain, size, 0), size, 1)[: shape[0], : shape[1]] - 0.5
    return np.clip(0.45 + 0.16 * total, 0.02, 0.98)


def _lens(folder, made, noise):
    wide, falls = made.uniform(0.006, 0.012), made.uniform(1.0, 1.6)
    scene = np.fft.rfft2(_print(SHAPE, made))
    radius = np.hypot(np.fft.fftfreq(SHAPE[0])[:, None], np.fft.rfftfreq(SHAPE[1])[None, :])

    def left(nu, stop):
        spread = wide * (STOPS[0] / stop) ** falls
        return perfect_contrast(nu * DEFAULT_WAVELENGTH * stop * (1 + SIZE)) * np.exp(-2 * (np.pi * nu * spread) ** 2)

    for k, stop in enumerate(STOPS):
        seen = np.fft.irfft2(scene * left(radius / PITCH, stop) * np.sinc(radius), s=SHAPE)
        for turn in range(2):
            light = np.clip(seen + noise * made.standard_normal(SHAPE), 0, 1)
            shutter = stop**2 / STOPS[0] ** 2 / 500
            write_jpeg(
                folder / f"L_{2 * k + turn + 1:03d}.jpg", np.repeat(light[..., None], 3, 2), _notes(stop, shutter, k)
            )
    return max(STOPS, key=lambda stop: float(left(np.array(1 / CIRCLE), stop)))


def _slope(places, made, noise):
    """Frames of a slanted print, sharp at each place along the axis."""
    rows = np.arange(SLOPE_SHAPE[0]) - (SLOPE_SHAPE[0] - 1) / 2
    depth = rows * PITCH / SIZE / np.tan(np.radians(ANGLE_DEG))
    levels = Levels(spectrum_of(_print(SLOPE_SHAPE, made), 90), WORKS_AS * DEFAULT_WAVELENGTH / PITCH)
    for place in places:
        blur = np.abs(depth - place) * SIZE**2 / WORKS_AS / PITCH
        seen = levels.mixed(np.repeat(blur[:, None], SLOPE_SHAPE[1], 1).astype(np.float32))
        light = np.clip(seen + noise * made.standard_normal(SLOPE_SHAPE), 0, 1)
        yield np.repeat(light[..., None], 3, 2)


def _notes(stop, shutter, k):
    return Notes(shutter, stop, 100, f"2026:05:03 11:{k // 30:02d}:{2 * (k % 30):02d}", "simulated camera", 100.0)
