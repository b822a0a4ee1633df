"""Frames looked at as they come: what two neighbours show is said, and nothing on a clean run."""

import cv2
import numpy as np
import pytest
from PIL import Image

from just_plane.contract.stack_numbers import StackNumbers
from just_plane.frames.arriving import Counted
from just_plane.frames.as_they_come import Watching, Watchings
from just_plane.frames.camera_notes import Settings
from stacks.kept import stack_of

COUNT = 8


def picture(seed=1, shift=(0, 0), light=1.0):
    """A texture of a few scales; the same seed is the same subject."""
    made = np.random.default_rng(seed)
    total = np.zeros((400, 560))
    for size in (2, 4, 9, 20):
        grain = made.standard_normal((400 // size + 2, 560 // size + 2))
        total += np.kron(grain, np.ones((size, size)))[:400, :560]
    level = np.clip((0.35 + 0.05 * np.roll(total, shift, (0, 1))) * light, 0, 1)
    return level[40:360, 40:520]


def save(folder, k, level, seed=0):
    noisy = np.clip(level + np.random.default_rng(100 + k + seed).normal(0, 0.004, level.shape), 0, 1)
    coded = np.where(noisy <= 0.0031308, 12.92 * noisy, 1.055 * noisy ** (1 / 2.4) - 0.055)
    path = folder / f"F_{k:03d}.png"
    Image.fromarray(np.rint(coded * 255).astype(np.uint8)).convert("RGB").save(path)
    return path


def looks(folder, change):
    watching = Watching(StackNumbers())
    return [watching.look(save(folder, k, change(k))) for k in range(COUNT)]


def test_a_clean_run_is_left_in_peace(tmp_path):
    told = looks(tmp_path, lambda k: picture(shift=(0, k // 4)))
    assert [look.said for look in told] == [""] * COUNT
    assert max(abs(look.light_ev) for look in told) < 0.03


def test_a_frame_without_its_flash_is_said_at_once(tmp_path):
    told = looks(tmp_path, lambda k: picture(light=0.25 if k == 4 else 1.0))
    assert "stops darker" in told[4].said
    assert told[4].light_ev == pytest.approx(-2, abs=0.1)
    assert [look.said for k, look in enumerate(told) if k != 4] == [""] * (COUNT - 1)


def test_a_knock_is_said_at_once_and_only_once(tmp_path):
    told = looks(tmp_path, lambda k: picture(shift=(0, 12) if k >= 5 else (0, 0)))
    assert "jumped by 12 px" in told[5].said
    assert sum(bool(look.said) for look in told) == 1


def test_a_picture_of_something_else_is_said(tmp_path):
    told = looks(tmp_path, lambda k: picture(seed=9 if k == 3 else 1))
    assert "something else" in told[3].said


def test_light_that_drifts_is_said_once_for_each_step(tmp_path):
    told = looks(tmp_path, lambda k: picture(light=2 ** (-0.06 * k)))
    assert sum("drifted" in look.said for look in told) in (1, 2)


def test_the_same_file_twice_and_a_file_that_is_none(tmp_path):
    watching = Watching(StackNumbers())
    first = save(tmp_path, 0, picture())
    twin = tmp_path / "twin.png"
    twin.write_bytes(first.read_bytes())
    broken = tmp_path / "broken.jpg"
    broken.write_bytes(b"\xff\xd8\xff not a picture")
    watching.look(first)
    assert "same picture as F_000.png" in watching.look(twin).said
    assert watching.look(broken).said


def test_a_question_waits_for_a_few_frames_and_the_rest_is_asked_for_again(tmp_path):
    frames = [Counted(k, save(tmp_path, k, picture()).name, None) for k in range(5)]
    watchings = Watchings()
    told, more = watchings.looks("run", StackNumbers(), tmp_path, frames)
    assert (len(told), more) == (3, True)
    told, more = watchings.looks("run", StackNumbers(), tmp_path, frames)
    assert (len(told), more) == (5, False)
    # A frame that was taken once more changes the list: it is looked at anew.
    told, more = watchings.looks("run", StackNumbers(), tmp_path, frames[:2])
    assert ([look.file for look in told], more) == ([frame.name for frame in frames[:2]], False)


def test_a_setting_that_was_touched_is_said_of_its_frame(tmp_path):
    watching = Watching(StackNumbers(), Settings(iso=100.0))
    for k, iso in enumerate((100, 100, 400)):
        exif = Image.Exif()
        exif.get_ifd(0x8769)[34855] = iso
        path = tmp_path / f"N_{k}.png"
        Image.open(save(tmp_path, k, picture())).save(path, exif=exif.tobytes())
        watching.look(path)
    assert [look.said for look in watching.looks] == [
        "", "", "It was taken at ISO 400; the frames before at ISO 100."
    ]  # fmt: skip


def test_a_frame_taken_later_is_looked_at_beside_those_it_belongs_to(tmp_path):
    pictures = stack_of("plane", 4, count=14).frames
    order = [*range(6), *range(7, 14), 6, 6]
    files = []
    for place, frame in enumerate(order):
        bright = 0.5 if place == len(order) - 1 else 1.0
        # What came later is 9 px aside: the view was knocked since, as was said when it was.
        linear = np.roll(pictures[frame] / 255.0, 9 if place >= len(order) - 2 else 0, axis=1) ** 2.2 * bright
        cv2.imwrite(str(tmp_path / f"L_{place:02}.png"), np.rint(255 * linear ** (1 / 2.2)).astype(np.uint8))
        files.append(Counted(frame, f"L_{place:02}.png", None))

    def told(focuses):
        watchings, more = Watchings(), True
        while more:
            looks, more = watchings.looks("run", StackNumbers(), tmp_path, files, focuses_mm=focuses)
        return looks

    later, dark = told([1.3 * frame for frame in range(14)])[-2:]
    assert (later.said, later.moved_px) == ("", None)
    assert later.light_ev == pytest.approx(0, abs=0.05)
    assert "1.0 stops darker" in dark.said
    # Where nothing is known of the plan they are beside the last frame, from before the knock.
    assert "The view jumped by 9 px" in told(())[-2].said


def test_a_frame_taken_once_more_right_after_the_next_is_beside_that_one(tmp_path):
    files = [Counted(k, save(tmp_path, k, picture()).name, None) for k in range(4)]
    again = save(tmp_path, 9, picture())
    watchings = Watchings()
    for _ in range(2):
        told, _ = watchings.looks(
            "run", StackNumbers(), tmp_path, [*files, Counted(2, again.name, None)], focuses_mm=range(4)
        )
    assert told[-1].said == ""
    assert told[-1].moved_px is not None


def test_a_spare_frame_in_which_nothing_is_in_focus_shows_nothing_else(tmp_path):
    """In front of the subject: what is fine in it is noise."""

    def change(k):
        if k:
            return picture()
        return cv2.GaussianBlur(picture(), (0, 0), 7.0) + np.random.default_rng(3).normal(0, 0.03, picture().shape)

    assert [look.said for look in looks(tmp_path, change)] == [""] * COUNT
