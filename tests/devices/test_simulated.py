"""The stand-ins against what was asked of them: play, screw, swing, light, notes."""

import math

import numpy as np
import pytest
import rawpy

from just_plane.devices.clock import FastClock
from just_plane.devices.simulated_camera import CameraFaults, Set, SimulatedCamera
from just_plane.devices.simulated_rail import HandRail, RailFaults, SimulatedRail
from just_plane.pictures.camera_files import Notes, write_dng

NOISE = 5 * 0.0005


def rail(**faults):
    return SimulatedRail(FastClock(), RailFaults(**faults))


def test_without_faults_truth_is_the_reading():
    carried = rail()
    for reading in np.linspace(0, 5, 20):
        carried.move_to(reading)
        assert carried.truth().along == pytest.approx(carried.state().reading_mm, abs=NOISE)


def test_from_either_side_the_same_reading_differs_by_the_play():
    carried = rail(backlash_mm=0.06)
    carried.move_to(0.0)
    carried.move_to(2.0)
    on = carried.truth().along
    carried.move_to(4.0)
    carried.move_to(2.0)
    assert carried.truth().along - on == pytest.approx(0.06, abs=2 * NOISE)


def test_from_one_side_play_does_not_count():
    carried, steps = rail(backlash_mm=0.06), []
    for reading in np.arange(1.0, 3.0, 0.1):
        carried.move_to(reading)
        steps.append(carried.truth().along)
    assert np.diff(steps) == pytest.approx(np.full(len(steps) - 1, 0.1), abs=2 * NOISE)


def test_the_screw_errs_once_a_turn():
    carried, off = rail(periodic_mm=0.01, turn_mm=1.0), []
    for reading in np.arange(0, 2, 0.05):
        carried.move_to(reading)
        off.append(carried.truth().along - reading)
    spectrum = np.abs(np.fft.rfft(off))
    assert np.argmax(spectrum[1:]) + 1 == 2  # two turns in the 2 mm
    assert spectrum[2] / len(off) * 2 == pytest.approx(0.01, rel=0.15)


def test_swinging_dies():
    carried = rail(swing_mm=0.05)
    carried.move_to(1.0)
    at = carried.clock.now()
    first = abs(carried.truth(at).right)
    later = max(abs(carried.truth(at + 1.0 + part).right) for part in np.linspace(0, 1 / 6, 20))
    assert first == pytest.approx(0.05)
    assert later == pytest.approx(0.05 * math.exp(-1.0 / 0.35), rel=0.3)


def test_a_slip_stays():
    carried = rail(slips_at=3, slip_mm=0.5)
    truths = []
    for reading in (1.0, 2.0, 3.0, 4.0):
        carried.move_to(reading)
        truths.append(carried.truth().along)
    assert truths == pytest.approx([1.0, 2.0, 3.5, 4.5], abs=NOISE)


def grey(along, right, down):
    return np.full((80, 120, 3), 0.4, dtype=np.float32)


def camera(folder, clock=None, **faults):
    return SimulatedCamera(
        Set(grey, 0.01, 50.0, 0.05), HandRail(), clock or FastClock(), folder, CameraFaults(**faults)
    )


def lightness(frame):
    from PIL import Image

    with Image.open(frame.file) as picture:
        value = np.asarray(picture, dtype=float).mean() / 255
    return ((value + 0.055) / 1.055) ** 2.4


def test_a_flash_that_does_not_fire_is_three_stops_dark(tmp_path):
    shooter = camera(tmp_path, misfire_at=1)
    bright, dark = lightness(shooter.shoot()), lightness(shooter.shoot())
    assert math.log2(dark / bright) == pytest.approx(-3, abs=0.1)


def test_light_drifts_with_the_time_of_the_set(tmp_path):
    clock = FastClock()
    shooter = camera(tmp_path, clock, light_per_hour_ev=-1.0)
    first = lightness(shooter.shoot())
    clock.sleep(1800)
    assert math.log2(lightness(shooter.shoot()) / first) == pytest.approx(-0.5, abs=0.05)


def test_a_flash_that_is_fired_too_soon_is_weak(tmp_path):
    clock = FastClock()
    shooter = SimulatedCamera(Set(grey, 0.01, 50.0, 0.05), HandRail(), clock, tmp_path, flash_recycle_s=6.0)
    full = lightness(shooter.shoot())
    clock.sleep(2.0 - 0.46 - 1 / 125)
    soon = lightness(shooter.shoot())
    assert soon / full == pytest.approx(1 - math.exp(-1.0), rel=0.1)


def test_a_dark_frame_takes_as_long_again(tmp_path):
    clock = FastClock()
    shooter = camera(tmp_path, clock)
    shooter.set(2.0, 8, 100)
    shooter.shoot()
    plain = clock.now()
    shooter.noise_reduction = True
    shooter.shoot()
    assert clock.now() - plain == pytest.approx(plain + 2.0)


def test_movement_in_an_exposure_is_in_the_picture(tmp_path):
    clock = FastClock()
    carried = SimulatedRail(clock, RailFaults(swing_mm=0.2))

    def edge(along, right, down):
        return np.broadcast_to((np.arange(120) > 60 + right)[None, :, None], (80, 120, 3)).astype(np.float32)

    shooter = SimulatedCamera(Set(edge, 0.01, 50.0, 0.05), carried, clock, tmp_path)
    shooter.set(1 / 8, 8, 100)
    carried.move_to(1.0)
    shaken = shooter.shoot()
    clock.sleep(30)
    still = shooter.shoot()

    def greys(frame):
        from PIL import Image

        with Image.open(frame.file) as picture:
            row = np.asarray(picture.convert("L"), dtype=int)[40]
        return int(((row > 60) & (row < 200)).sum())

    assert greys(still) <= 2 < greys(shaken)


def test_a_dng_is_linear_and_opens(tmp_path):
    ramp = np.broadcast_to(np.linspace(0, 1, 256)[None, :, None], (64, 256, 3))
    path = tmp_path / "ramp.dng"
    write_dng(path, ramp, Notes(1 / 30, 8.0, 200, "2026:05:03 10:00:00", "simulated camera"))
    with rawpy.imread(str(path)) as raw:
        picture = raw.postprocess(gamma=(1, 1), no_auto_bright=True, use_camera_wb=True, output_bps=16)
    middle = picture[32, :, 1].astype(float) / 65535
    assert middle[20:-20] == pytest.approx(np.linspace(0, 1, 256)[20:-20], abs=0.03)
