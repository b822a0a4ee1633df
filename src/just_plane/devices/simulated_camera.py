"""A camera that is not there: it exposes the made-up set as the rail carries it, and writes files as a camera does.

It rounds to the shutters and stops that it has, doubles long exposures when its noise reduction is on, waits for its
flash and its card, and gets what goes wrong from a list that is empty until something is asked for.
"""

from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import NamedTuple

import numpy as np

from just_plane.core.shutters import MARKS
from just_plane.core.stops import THIRD_STOPS
from just_plane.core.view.sensor import Sensor, electrons_of
from just_plane.devices.protocols import CameraFacts, CameraState, DeviceError, Frame
from just_plane.pictures.camera_files import Notes, write_dng, write_jpeg

SHUTTER_LAG_S = 0.06
DARK_FROM_S = 1.0
"""Exposures from here on are followed by a dark one as long, where noise reduction is on."""
WRITE_S = 0.4
SAME_BLUR = 0.25
"""Share of the circle of confusion that the set may move in an exposure and count as still."""
START = datetime(2026, 5, 3, 10, 0, 0, tzinfo=UTC)
"""What the camera's clock says when the set's clock starts."""
MISFIRE_EV = -3.0
BUMP_PX = (5.0, -3.0)
DUST_PX, DUST_LIGHT = 5.0, 0.55
HANG_S = 30.0


class CameraFaults(NamedTuple):
    """What goes wrong; frames count from 0 as the camera takes them. All off: nothing."""

    misfire_at: int | None = None
    """The flash does not fire."""
    bump_at: int | None = None
    """The view jumps, and stays so."""
    light_per_hour_ev: float = 0.0
    creep_px_per_hour: float = 0.0
    hang_at: int | None = None
    """It does not answer, once; no frame is taken."""
    missed_at: int | None = None
    """It says that it took a frame and did not."""
    card_frames: int | None = None
    battery_frames: int | None = None
    dust: bool = False
    """A speck on the sensor."""


class Set(NamedTuple):
    """What stands before the camera."""

    light: Callable
    """light(along, right_px, down_px) -> (H, W, 3) linear, seen from a place of the rail."""
    pitch: float
    """mm on the sensor of one pixel."""
    across_px: float
    """Pixels for each mm that the camera goes across."""
    blur_mm: float
    """Movement along that blurs by a quarter of the circle of confusion, mm."""


class SimulatedCamera:
    """A camera before a made-up set, on a simulated rail."""

    def __init__(
        self,
        made,
        rail,
        clock,
        folder,
        faults=None,
        *,
        dng=False,
        flash_recycle_s=0.0,
        write_s=WRITE_S,
        seed=0,
        taken=0,
        first=1,
    ):
        """
        Parameters
        ----------
        made : Set
        rail : SimulatedRail or HandRail   Whose truth it sees.
        clock : Clock
        folder : Path                      That it writes to.
        faults : CameraFaults or None
        dng : bool                         A raw file beside each JPEG.
        flash_recycle_s : float            0: steady light.
        write_s : float                    A frame takes to be written; 0: a burst into its memory.
        seed : int
        taken : int                        Frames that were taken before it was switched on.
        first : int                        Number of its next file.
        """
        self.made, self.rail, self.clock = made, rail, clock
        self.folder = folder
        self.faults = faults or CameraFaults()
        self.noise_reduction = False
        self._dng, self._seed = dng, seed
        self._recycle, self._write = flash_recycle_s, write_s
        self._fired_at = -1e9
        self._taken, self._before = taken, taken
        self._next_number = first
        self._shutter, self._f_number, self._iso = 1 / 125, 5.6, 100.0
        self._gain = 1.0
        self._hung = self._missed = False

    def facts(self):
        """What it is."""
        return CameraFacts("simulated camera", frozenset({"shoot", "set"} | ({"dng"} if self._dng else set())))

    def state(self):
        """What it reports."""
        faults = self.faults
        since = self._taken - self._before
        left = None if faults.card_frames is None else max(faults.card_frames - since, 0)
        battery = None if faults.battery_frames is None else max(1 - since / faults.battery_frames, 0.0)
        return CameraState(self._shutter, self._f_number, self._iso, left, battery)

    def set(self, shutter_s, f_number, iso):
        """Set the nearest that it has: marked shutters, third stops."""
        self._shutter = min((seconds for seconds, _ in MARKS), key=lambda mark: abs(np.log(mark / shutter_s)))
        self._f_number = float(min(THIRD_STOPS, key=lambda stop: abs(np.log(stop / f_number))))
        self._iso = iso
        return self.state()

    def shoot(self):
        """One frame, safe on the disk when this returns."""
        self._refuse()
        clock, faults, k = self.clock, self.faults, self._taken
        clock.sleep(SHUTTER_LAG_S)
        began = clock.now()
        clock.sleep(self._shutter)
        dark = self._shutter if self.noise_reduction and self._shutter >= DARK_FROM_S else 0.0
        light = self._exposed(began)
        ev = faults.light_per_hour_ev * began / 3600 + (MISFIRE_EV if k == faults.misfire_at else 0.0)
        if self._recycle:
            ev += np.log2(max(1 - np.exp(-3 * (began - self._fired_at) / self._recycle), 1e-3))
            self._fired_at = began
        counted = Sensor(
            gain=self._gain * 2.0**ev, full=electrons_of(self.made.pitch, self._iso), seed=self._seed, frame=k
        ).counted(light)
        clock.sleep(dark + self._write)
        if k == faults.missed_at and not self._missed:
            self._missed = True
            raise DeviceError(
                "lost",
                "The camera said that it took a frame, and there is none.",
                "Look at its card, then take it again.",
                1.0,
            )
        number = self._next_number
        path = self.folder / f"JP_{number:04d}.jpg"
        notes = Notes(
            shutter_s=self._shutter,
            f_number=self._f_number,
            iso=self._iso,
            taken=(START + timedelta(seconds=began)).strftime("%Y:%m:%d %H:%M:%S"),
            camera=self.facts().name,
            pitch_mm=self.made.pitch,
        )
        if self._dng:
            write_dng(path.with_suffix(".dng"), counted, notes)
        write_jpeg(path, counted, notes)
        self._taken += 1
        self._next_number += 1
        return Frame(path, number, began + self._shutter / 2)

    def close(self):
        """Nothing holds it."""

    def _refuse(self):
        faults = self.faults
        since = self._taken - self._before
        if self._taken == faults.hang_at and not self._hung:
            self._hung = True
            self.clock.sleep(HANG_S)
            raise DeviceError("lost", "The camera does not answer.", "Switch it off and on, then go on.", 5.0)
        if faults.card_frames is not None and since >= faults.card_frames:
            raise DeviceError("card_full", "The camera's card is full.", "Put in another card, then go on.")
        if faults.battery_frames is not None and since >= faults.battery_frames:
            raise DeviceError("battery_flat", "The camera's battery is empty.", "Change it, then go on.")

    def _exposed(self, began):
        """Light over the exposure: three looks where the set moved in it by more than can be overlooked."""
        times = [began, began + self._shutter / 2, began + self._shutter]
        truths = [self.rail.truth(at) for at in times]
        along = max(each.along for each in truths) - min(each.along for each in truths)
        side = max(abs(each.right - truths[0].right) + abs(each.up - truths[0].up) for each in truths)
        moved = along > self.made.blur_mm or side * self.made.across_px > SAME_BLUR
        looks = zip(truths, times, strict=True) if moved else [(truths[1], times[1])]
        seen = [self._look(truth, at) for truth, at in looks]
        return self._dusty(np.mean(seen, axis=0) if len(seen) > 1 else seen[0])

    def _look(self, truth, at):
        faults = self.faults
        creep = faults.creep_px_per_hour * at / 3600
        bump = BUMP_PX if faults.bump_at is not None and self._taken >= faults.bump_at else (0.0, 0.0)
        right = -truth.right * self.made.across_px + creep + bump[0]
        down = truth.up * self.made.across_px + bump[1]
        return self.made.light(truth.along, right, down)

    def _dusty(self, light):
        if not self.faults.dust:
            return light
        rows, columns = light.shape[:2]
        y, x = np.ogrid[:rows, :columns]
        away = np.hypot(y - rows * 0.31, x - columns * 0.42) / DUST_PX
        return light * (1 - (1 - DUST_LIGHT) / (1 + np.exp(4 * (away - 1))))[..., np.newaxis].astype(np.float32)
