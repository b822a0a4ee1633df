"""Frames to try a trial on, by the simulated camera: a lens, a rail, a hand, and what they should be found to be."""

from pathlib import Path
from typing import Any

import numpy as np

from just_plane.contract.trial import TrialAsked, TrialPracticeMade
from just_plane.core.contrast import contrast, perfect_contrast
from just_plane.core.practice.sway import HOLDS, swayed
from just_plane.core.units import DEFAULT_WAVELENGTH
from just_plane.core.view.levels import Levels, spectrum_of
from just_plane.devices.clock import FastClock
from just_plane.devices.simulated_camera import Set, SimulatedCamera
from just_plane.devices.simulated_rail import SWING_S, RailFaults, SimulatedRail, Truth

STOPS = (2.8, 3.2, 3.5, 4, 4.5, 5, 5.6, 6.3, 7.1, 8, 9, 10, 11, 13, 14, 16)
PITCH, CIRCLE, SIZE = 0.006, 0.03, 1.0
SHAPE = (420, 560)
SLOPE_SHAPE, ANGLE_DEG, WORKS_AS = (700, 240), 40.0, 11.0
STEP, FRAMES, PLAY, SWING = 0.1, 22, 0.05, 0.06
BURST, BURST_S = 30, 0.07
SHUTTERS, EACH = tuple(1 / each for each in (1000, 500, 250, 125, 60, 30, 15, 8)), 8
LONG_S = (1.0, 2.0, 4.0)
HOLD = "braced"
STILL_MM = 0.02
EMPTY_SHUTTER_S = 1 / 500
FULL_ELECTRONS = 32_400.0
"""Of a pixel of 6 um at ISO 100."""
SPHERICAL, OFF_FOCUS, SHIFTS_MM, LIGHTER = 2.2, 0.09, 0.09, 1.6
"""Faults of a lens: times the softness wide open, mm off at the sensor, mm that focus goes as it stops down, times."""
MOVED_PX = 6


def write_trial_frames(folder, kind, seed, noise, faults=()):
    """Photograph what a trial needs into a folder.

    Parameters
    ----------
    folder : Path
    kind : str         Of trials from frames.
    seed : int
    noise : float      Of full scale, in middle grey.
    faults : iterable  Of the lens and of how it is tried; of the kind ``stops``.

    Returns
    -------
    TrialPracticeMade
    """
    folder = Path(folder)
    folder.mkdir(parents=True, exist_ok=True)
    made, clock = np.random.default_rng(seed), FastClock()
    common: dict[str, Any] = {"folder": str(folder), "magnification": SIZE, "pixel_pitch_mm": PITCH, "c_mm": CIRCLE}
    iso = 100 * noise**2 * FULL_ELECTRONS / 0.45 if noise else 1.0

    def camera(light, rail, write_s=0.4):
        seen = Set(light, PITCH, SIZE / PITCH, STILL_MM)
        taking = SimulatedCamera(seen, rail, clock, folder, seed=seed, write_s=write_s)
        taking.set(EMPTY_SHUTTER_S, 8.0, iso)
        return taking

    if kind == "stops":
        lens = _Lens(made, frozenset(faults))
        best = lens.photographed(camera(lens.light, _Still()), iso)
        return TrialPracticeMade(asked=TrialAsked(kind="stops", name="made-up 100 mm macro", **common), truth=best)
    if kind == "sway":
        hand = _Hand(seed)
        slope = _Slope(made)
        taking = camera(slope.light, hand, write_s=0.0)
        for _ in range(BURST):
            taking.shoot()
            clock.sleep(BURST_S)
        asked = TrialAsked(kind="sway", name="my hands", angle_deg=ANGLE_DEG, **common)
        return TrialPracticeMade(asked=asked, truth=f"Over minutes these hands sway by {HOLDS[HOLD].sway:g} mm.")
    if kind == "stillness":
        taking = camera(_Print(made).light, _Hand(seed), write_s=0.0)
        for shutter in SHUTTERS:
            taking.set(shutter, 8.0, iso)
            for _ in range(EACH):
                taking.shoot()
                clock.sleep(BURST_S)
        asked = TrialAsked(kind="stillness", name="my hands", held="hand", focal_length_mm=100.0, **common)
        return TrialPracticeMade(
            asked=asked, truth=f"These hands sway by {HOLDS[HOLD].sway:g} mm, at 10 Hz by 0.02 mm."
        )
    if kind == "dark":
        doubles = bool(made.integers(2))
        taking = camera(_Print(made).light, _Still())
        taking.noise_reduction = doubles
        for shutter in LONG_S:
            taking.set(shutter, 8.0, iso)
            for _ in range(3):
                taking.shoot()
        asked = TrialAsked(kind="dark", name="simulated camera", **common)
        return TrialPracticeMade(asked=asked, truth=f"This camera takes {'a' if doubles else 'no'} dark frame.")
    step = round(STEP * made.uniform(0.92, 1.08), 4)
    if kind == "calm":
        rail = SimulatedRail(clock, RailFaults(swing_mm=SWING), seed=seed)
        taking = camera(_Print(made).light, rail, write_s=0.0)
        rail.move_to(step)
        before = clock.now()
        for _ in range(BURST):
            taking.shoot()
        between = (clock.now() - before) / BURST
        asked = TrialAsked(kind="calm", name="made-up rail", interval_s=round(between, 6), **common)
        return TrialPracticeMade(asked=asked, truth=f"This rail is down to a third of its swing in {SWING_S:g} s.")
    rail = SimulatedRail(clock, RailFaults(backlash_mm=PLAY if kind == "backlash" else 0.0), seed=seed)
    taking = camera(_Slope(made).light, rail)
    places = step * (np.arange(FRAMES) - (FRAMES - 1) / 2)
    rail.move_to(float(places[0]) - 1.0)  # so that its play is taken up
    for place in places if kind == "steps" else np.concatenate([places, places[::-1]]):
        rail.move_to(float(place))
        taking.shoot()
    if kind == "steps":
        asked = TrialAsked(
            kind="steps", name="made-up rail", angle_deg=ANGLE_DEG, per_step=10, unit="division", **common
        )
        return TrialPracticeMade(asked=asked, truth=f"A division of this rail moves {step / 10:.5f} mm.")
    asked = TrialAsked(kind="backlash", name="made-up rail", step_mm=step, **common)
    return TrialPracticeMade(asked=asked, truth=f"This rail has {1000 * PLAY:.0f} µm of play.")


class _Still:
    """Something that does not move."""

    def truth(self, at=None):
        return Truth(0.0, 0.0, 0.0)


class _Hand:
    """A braced hand, as it sways."""

    def __init__(self, seed):
        self.seed = seed

    def truth(self, at=None):
        return Truth(*(float(swayed(at or 0.0, self.seed, HOLD, axis)) for axis in range(3)))


def _printed(shape, made):
    """Printed texture of a few scales."""
    total = np.zeros(shape)
    for size in (1, 2, 4, 8):
        grain = made.random((shape[0] // size + 1, shape[1] // size + 1)) < 0.5
        total += np.repeat(np.repeat(grain, size, 0), size, 1)[: shape[0], : shape[1]] - 0.5
    return np.clip(0.45 + 0.16 * total, 0.02, 0.98)


class _Print:
    """A print square to the axis, in focus."""

    def __init__(self, made):
        self.levels = Levels(spectrum_of(_printed(SHAPE, made), 4), WORKS_AS * DEFAULT_WAVELENGTH / PITCH)
        self.seen = self.levels.mixed(np.zeros(SHAPE, np.float32))

    def light(self, along, right, down):
        return _grey(_moved(self.seen, right, down))


class _Slope:
    """A slanted print, sharp where the plane of focus cuts it."""

    def __init__(self, made):
        rows = np.arange(SLOPE_SHAPE[0]) - (SLOPE_SHAPE[0] - 1) / 2
        self.depth = rows * PITCH / SIZE / np.tan(np.radians(ANGLE_DEG))
        self.levels = Levels(spectrum_of(_printed(SLOPE_SHAPE, made), 90), WORKS_AS * DEFAULT_WAVELENGTH / PITCH)

    def light(self, along, right, down):
        blur = np.abs(self.depth - along) * SIZE**2 / WORKS_AS / PITCH
        seen = self.levels.mixed(np.repeat(blur[:, None], SLOPE_SHAPE[1], 1).astype(np.float32))
        return _grey(_moved(seen, right, down))


class _Lens:
    """A lens at every stop before a print: softer wide open, and what else is wrong with it."""

    def __init__(self, made, faults):
        self.faults = faults
        self.wide, self.falls = made.uniform(0.006, 0.012), made.uniform(1.0, 1.6)
        if "soft_wide_open" in faults:
            self.wide *= SPHERICAL
        self.spectrum = np.fft.rfft2(_printed(SHAPE, made))
        self.radius = np.hypot(np.fft.fftfreq(SHAPE[0])[:, None], np.fft.rfftfreq(SHAPE[1])[None, :])
        self.stop = STOPS[0]
        self.turn = 0

    def left(self, nu, stop):
        """Contrast that is left at a stop, by frequency in cycles/mm."""
        works_as = stop * (1 + SIZE)
        off = OFF_FOCUS if "focus_off" in self.faults else 0.0
        if "focus_shifts" in self.faults:
            # Spherical aberration: focus goes as it is stopped down, and was set wide open.
            off += SHIFTS_MM * (1 - (STOPS[0] / stop) ** 2)
        spread = self.wide * (STOPS[0] / stop) ** self.falls
        seen = contrast(nu, works_as, off / works_as) if off else perfect_contrast(nu * DEFAULT_WAVELENGTH * works_as)
        return seen * np.exp(-2 * (np.pi * nu * spread) ** 2)

    def light(self, along, right, down):
        seen = np.fft.irfft2(self.spectrum * self.left(self.radius / PITCH, self.stop) * np.sinc(self.radius), s=SHAPE)
        if "moved" in self.faults and self.turn:
            seen = np.roll(seen, MOVED_PX, 1)
        lighter = LIGHTER if "light_jumps" in self.faults and self.stop == STOPS[len(STOPS) // 2] else 1.0
        return _grey(np.clip(seen * lighter, 0, 1))

    def photographed(self, camera, iso):
        """Two frames at every stop; what the trial should find, in words."""
        for stop in STOPS:
            self.stop = stop
            camera.set(EMPTY_SHUTTER_S * stop**2 / STOPS[0] ** 2, stop, iso)
            for self.turn in range(2):
                camera.shoot()
        best = max(STOPS, key=lambda stop: float(self.left(np.array([1 / CIRCLE]), stop)[0]))
        if "moved" in self.faults:
            return "It was knocked between the frames of every pair: the trial should refuse them."
        odd = f" The light jumped at f/{STOPS[len(STOPS) // 2]:g}." if "light_jumps" in self.faults else ""
        return f"This lens is best at f/{best:g}.{odd}"


def _grey(light):
    return np.repeat(np.clip(light, 0, 1)[..., np.newaxis], 3, axis=2).astype(np.float32)


def _moved(picture, right, down):
    """A picture shifted by parts of a pixel, coming in again at the other side."""
    rows, columns = (np.fft.fftfreq(picture.shape[0])[:, None], np.fft.rfftfreq(picture.shape[1])[None, :])
    if right == 0 and down == 0:
        return picture
    ramp = np.exp(-2j * np.pi * (rows * down + columns * right))
    return np.fft.irfft2(np.fft.rfft2(picture) * ramp, s=picture.shape)
