"""A driven run: every frame once, in order, whatever breaks off; hands and devices mixed."""

import itertools

import numpy as np
import pytest

from just_plane.contract.run import Devices as DevicesAsked
from just_plane.contract.run import RunEvent
from just_plane.devices.clock import FastClock
from just_plane.devices.simulated_camera import CameraFaults, Set, SimulatedCamera
from just_plane.devices.simulated_rail import HandRail, RailFaults, SimulatedRail
from just_plane.drive.driver import Devices, Driver
from just_plane.drive.journal import MemoryJournal
from just_plane.drive.simulated import camera_faults, rail_faults
from just_plane.runs.marks import direction, reading_of
from just_plane.runs.replay import replay
from made_runs import COUNT, plan


class Seen:
    """Remembers where the rail was at each exposure."""

    def __init__(self):
        self.places = []

    def __call__(self, along, right, down):
        self.places.append(along)
        return np.full((64, 96, 3), 0.3, dtype=np.float32)


def bench(folder, seen, rail_wrong=None, camera_wrong=None, start=30.0, taken=0):
    clock = FastClock()
    carried = SimulatedRail(clock, rail_wrong, start=start)
    folder.mkdir(exist_ok=True)
    number = len(list(folder.iterdir())) + 1
    shooter = SimulatedCamera(
        Set(seen, 0.01, 50.0, 1.0), carried, clock, folder, camera_wrong, taken=taken, first=number
    )
    return Devices(carried, shooter, clock, lambda step: None)


def journal(folder, count=COUNT, grows=1):
    made = MemoryJournal(plan(count, grows))
    made.tell(RunEvent(kind="watching", folder=str(folder)))
    return made


@pytest.mark.parametrize("grows", [1, -1])
def test_every_frame_is_taken_once_where_its_mark_says(tmp_path, grows):
    folder, seen = tmp_path / "frames", Seen()
    kept = journal(folder, grows=grows)
    Driver(kept, bench(folder, seen), FastClock(), lambda: False).run()
    stand = kept.stand()
    assert stand.state == "finished"
    assert stand.times_taken == (1,) * COUNT
    assert len(set(stand.files)) == COUNT
    assert seen.places == pytest.approx([40 + grows * k * 0.5 for k in range(COUNT)], abs=0.003)


@pytest.mark.parametrize(("grows", "start"), list(itertools.product((1, -1), (30.0, 50.0))))
def test_play_does_not_come_in_from_whichever_side_the_rail_starts(tmp_path, grows, start):
    folder, seen = tmp_path / "frames", Seen()
    kept = journal(folder, grows=grows)
    Driver(kept, bench(folder, seen, RailFaults(backlash_mm=0.1), start=start), FastClock(), lambda: False).run()
    assert np.diff(seen.places) == pytest.approx(np.full(COUNT - 1, grows * 0.5), abs=0.005)


class PulledPlugError(BaseException):
    pass


class Fragile(MemoryJournal):
    """A journal whose machine dies before or after the n-th word is written."""

    def __init__(self, made, at, after):
        super().__init__(made.plan)
        self.events = made.events
        self.left, self.after = at, after

    def tell(self, event):
        self.left -= 1
        if self.left < 0 and not self.after:
            raise PulledPlugError
        super().tell(event)
        if self.left < 0:
            raise PulledPlugError


@pytest.mark.parametrize(("at", "after"), list(itertools.product(range(2 * COUNT), (False, True))))
def test_killed_at_any_word_it_goes_on_with_the_right_frame(tmp_path, at, after):
    folder, seen = tmp_path / "frames", Seen()
    kept = journal(folder)
    with pytest.raises(PulledPlugError):
        Driver(Fragile(kept, at, after), bench(folder, seen), FastClock(), lambda: False).run()
    taken = sum(kept.stand().times_taken)
    Driver(kept, bench(folder, seen, taken=taken), FastClock(), lambda: False).run()
    stand = kept.stand()
    assert stand.state == "finished"
    assert stand.times_taken == (1,) * COUNT
    # No picture is on the card that is not counted, and none is counted twice.
    assert sorted(stand.files) == sorted(path.name for path in folder.iterdir())
    assert replay(kept.plan, kept.events) == stand


def test_a_picture_that_nobody_asked_for_is_asked_about(tmp_path):
    folder, seen = tmp_path / "frames", Seen()
    kept = journal(folder)
    kept.tell(RunEvent(kind="set", frame=0, reading_mm=40.0))
    devices = bench(folder, seen)
    devices.camera.shoot()
    devices.camera.shoot()
    Driver(kept, devices, FastClock(), lambda: False).run()
    stand = kept.stand()
    assert stand.state == "paused"
    assert "2 pictures came" in stand.trouble
    assert sum(stand.times_taken) == 0


def test_a_rail_that_is_gone_for_a_while_is_waited_for(tmp_path):
    folder = tmp_path / "frames"
    kept = journal(folder)
    Driver(kept, bench(folder, Seen(), RailFaults(gone_at=4)), FastClock(), lambda: False).run()
    assert kept.stand().times_taken == (1,) * COUNT


def test_a_rail_that_never_answers_stops_the_run_and_says_so(tmp_path):
    folder = tmp_path / "frames"
    kept = journal(folder)
    devices = bench(folder, Seen())

    def silent(reading_mm):
        from just_plane.devices.protocols import DeviceError

        raise DeviceError("lost", "The rail does not answer.", "Look at its cable.", 1.0)

    devices.rail.move_to = silent
    Driver(kept, devices, FastClock(), lambda: False).run()
    assert kept.stand().state == "paused"
    assert kept.stand().trouble == "The rail does not answer. Look at its cable."


def test_a_full_card_waits_for_somebody(tmp_path):
    folder = tmp_path / "frames"
    kept = journal(folder)
    Driver(kept, bench(folder, Seen(), None, CameraFaults(card_frames=2)), FastClock(), lambda: False).run()
    assert "card is full" in kept.stand().trouble
    assert sum(kept.stand().times_taken) == 2
    kept.tell(RunEvent(kind="went_on"))
    Driver(kept, bench(folder, Seen(), taken=2), FastClock(), lambda: False).run()
    assert kept.stand().times_taken == (1,) * COUNT


def test_card_and_battery_are_as_the_camera_reports_them(tmp_path):
    folder = tmp_path / "frames"
    faults = CameraFaults(card_frames=COUNT + 3, battery_frames=COUNT * 2)
    driver = Driver(journal(folder), bench(folder, Seen(), None, faults), FastClock(), lambda: False)
    assert driver.reported is None
    driver.run()
    assert driver.reported.frames_left == 3
    assert driver.reported.battery == pytest.approx(0.5)


def test_a_frame_asked_for_again_while_another_is_taken_is_never_given_its_picture(tmp_path):
    folder = tmp_path / "frames"
    kept = journal(folder)
    devices = bench(folder, Seen())
    shoot, asked = devices.camera.shoot, []

    def shoot_while_a_hand_presses():
        taken = shoot()
        if kept.stand().next_frame == 3 and not asked:
            asked.append(taken.file.name)
            kept.tell(RunEvent(kind="retake", frame=1))
        return taken

    devices.camera.shoot = shoot_while_a_hand_presses
    Driver(kept, devices, FastClock(), lambda: False).run()
    stand = kept.stand()
    assert stand.state == "finished"
    assert set(stand.times_taken) == {1}
    # The picture that came meanwhile shows frame 4: it is counted as none, and frame 4 was taken anew.
    assert asked[0] not in stand.files
    assert len(set(stand.files)) == COUNT


def test_a_pause_is_heeded_between_two_frames(tmp_path):
    folder = tmp_path / "frames"
    kept = journal(folder)
    kept._on_taken = lambda done, count, name: done == 3 and kept.tell(RunEvent(kind="paused"))
    Driver(kept, bench(folder, Seen()), FastClock(), lambda: False).run()
    assert sum(kept.stand().times_taken) == 3
    assert kept.stand().state == "paused"


def test_a_hand_moves_and_the_camera_releases(tmp_path):
    folder, seen, clock = tmp_path / "frames", Seen(), FastClock()
    folder.mkdir()
    kept, hand = journal(folder), HandRail(39.0)
    shooter = SimulatedCamera(Set(seen, 0.01, 50.0, 1.0), hand, clock, folder)
    devices = Devices(None, shooter, clock, lambda step: hand.move_to(reading_of(step)))
    turns = iter(range(400))

    class Room(FastClock):
        def sleep(self, seconds):
            # The driver waits for the hand; at every third look it has set the next frame.
            if next(turns) % 3 == 2:
                kept.tell(RunEvent(kind="set", frame=kept.stand().next_frame, reading_mm=None))

    Driver(kept, devices, Room(), lambda: False).run()
    assert kept.stand().times_taken == (1,) * COUNT
    assert seen.places == pytest.approx([40 + 0.5 * k for k in range(COUNT)], abs=0.03)


def test_with_everything_wrong_that_can_be_the_run_ends_with_the_right_frames(tmp_path):
    folder, count = tmp_path / "frames", 24
    made = plan(count)
    wrong = DevicesAsked(rail="simulated", camera="simulated", faults=[
        "rail_play", "rail_slips", "rail_drifts_sideways", "rail_swings", "rail_gone", "flash_misfires", "bump",
        "light_drifts", "set_creeps", "camera_hangs", "frame_missed", "card_full", "battery_flat", "dust",
    ])  # fmt: skip
    kept = MemoryJournal(made)
    kept.tell(RunEvent(kind="watching", folder=str(folder)))
    for _ in range(8):
        stand = kept.stand()
        if stand.state == "finished":
            break
        if stand.state == "paused":
            kept.tell(RunEvent(kind="went_on"))
        taken = sum(stand.times_taken)
        devices = bench(
            folder, Seen(), rail_faults(made, wrong), camera_faults(made, wrong), stand.reading or 39.0, taken
        )
        Driver(kept, devices, FastClock(), lambda: False).run()
    assert kept.stand().times_taken == (1,) * count
    assert sorted(kept.stand().files) == sorted(path.name for path in folder.iterdir())


def test_readings_run_the_way_the_marks_do():
    assert direction(plan()) == 1
    assert direction(plan(grows=-1)) == -1
