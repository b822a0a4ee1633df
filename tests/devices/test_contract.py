"""What any driver must do: the same tests for every rail and every camera. A real one is added to the lists."""

import threading

import numpy as np
import pytest
from PIL import Image

from just_plane.devices.clock import FastClock, RealClock
from just_plane.devices.protocols import Camera, Clock, DeviceError, Rail
from just_plane.devices.simulated_camera import Set, SimulatedCamera
from just_plane.devices.simulated_rail import HandRail, SimulatedRail

RAILS = {"simulated": lambda: SimulatedRail(FastClock()), "hand": HandRail}
CLOCKS = {"real": RealClock, "fast": FastClock}


def flat(along, right, down):
    return np.full((64, 96, 3), 0.3, dtype=np.float32)


def camera(folder, **more):
    clock = FastClock()
    return SimulatedCamera(Set(flat, 0.01, 50.0, 0.05), HandRail(), clock, folder, **more)


CAMERAS = {"simulated": camera, "simulated with raw": lambda folder: camera(folder, dng=True)}


@pytest.fixture(params=RAILS)
def rail(request):
    return RAILS[request.param]()


@pytest.fixture(params=CAMERAS)
def shooter(request, tmp_path):
    return CAMERAS[request.param](tmp_path)


@pytest.mark.parametrize("clock", CLOCKS.values(), ids=CLOCKS)
def test_a_clock_never_goes_back_and_waits_as_long_as_it_is_told(clock):
    clock = clock()
    assert isinstance(clock, Clock)
    before = clock.now()
    clock.sleep(0.02)
    clock.sleep(-5)
    assert clock.now() - before >= 0.02


def test_a_rail_stands_where_it_says_when_it_returns(rail):
    assert isinstance(rail, Rail)
    facts = rail.facts()
    for reading in (1.0, 1.25, 0.5):
        assert abs(rail.move_to(reading) - reading) <= facts.smallest_step_mm
        state = rail.state()
        assert abs(state.reading_mm - reading) <= facts.smallest_step_mm
        assert not state.moving


def test_a_rail_can_be_stopped_at_rest_from_any_thread(rail):
    thread = threading.Thread(target=rail.stop)
    thread.start()
    thread.join()
    rail.move_to(0.5)
    assert rail.state().reading_mm == pytest.approx(0.5)


def test_a_rail_refuses_to_leave_its_travel_before_it_moves():
    rail = SimulatedRail(FastClock(), travel=(0.0, 10.0), start=3.0)
    for reading in (10.5, -1.0, float("nan")):
        with pytest.raises(DeviceError) as refused:
            rail.move_to(reading)
        assert refused.value.code == "limit"
        assert rail.state().reading_mm == 3.0


def test_a_camera_returns_when_its_file_is_whole(shooter):
    assert isinstance(shooter, Camera)
    names = []
    for _ in range(3):
        frame = shooter.shoot()
        with Image.open(frame.file) as picture:
            picture.load()
        names.append(frame.file.name)
    assert len(set(names)) == 3
    assert names == sorted(names)
    if "dng" in shooter.facts().can:
        assert frame.file.with_suffix(".dng").stat().st_size > 1000


def test_a_camera_says_what_it_set_and_not_what_was_asked(shooter):
    state = shooter.set(0.0171, 5.657, 100)
    assert (state.shutter_s, state.f_number) == (1 / 60, 5.6)


def test_what_a_camera_notes_is_what_was_set(shooter):
    shooter.set(1 / 8, 11, 400)
    frame = shooter.shoot()
    with Image.open(frame.file) as picture:
        notes = picture.getexif().get_ifd(0x8769)
    assert (float(notes[33434]), float(notes[33437]), notes[34855]) == (0.125, 11.0, 400)


def test_trouble_carries_a_code_and_two_sentences(tmp_path):
    from just_plane.devices.simulated_camera import CameraFaults

    full = camera(tmp_path, faults=CameraFaults(card_frames=1))
    full.shoot()
    with pytest.raises(DeviceError) as error:
        full.shoot()
    assert error.value.code == "card_full"
    assert error.value.message.endswith(".")
    assert error.value.remedy.endswith(".")
    assert full.state().frames_left == 0
