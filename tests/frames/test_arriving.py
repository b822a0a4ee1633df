"""Pictures as they come into a folder: whole or half written, RAW beside JPEG, at another stop, gone again."""

import hashlib
import os
import time
import zlib

import numpy as np
import pytest
from PIL import Image

from just_plane.frames.arriving import AT_REST_S, Counted, arrived, pictures_in, place_of
from just_plane.frames.camera_notes import Settings, dark_frame
from just_plane.pictures.camera_files import Notes, write_dng
from just_plane.pictures.fingerprint import fingerprint
from just_plane.pictures.frames import frame_facts

NOTED = {"f_number": 33437, "shutter_s": 33434, "iso": 34855, "focal_length_mm": 37386, "taken": 36867,
         "exposure_mode": 41986, "white": 41987, "flash": 37385, "lens": 42036}  # fmt: skip
PLAN = Settings(f_number=8.0, shutter_s=1 / 60, iso=100.0)


def put(folder, name, *, age_s=5.0, size=(96, 64), camera=None, **notes):
    """A picture that is no other, with what a camera notes of it."""
    exif = Image.Exif()
    if camera is not None:
        exif[272] = camera
    exif.get_ifd(0x8769).update({NOTED[note]: value for note, value in notes.items() if value is not None})
    path = folder / name
    picture = np.random.default_rng(zlib.crc32(name.encode())).uniform(40, 200, (size[1], size[0], 3)).astype(np.uint8)
    Image.fromarray(picture).save(path, exif=exif.tobytes())
    then = time.time() - age_s
    os.utime(path, (then, then))
    return path


def test_only_what_is_new_is_told_in_the_order_of_names(tmp_path):
    for name in ("a9.jpg", "a10.jpg", "a2.jpg", "notes.txt"):
        put(tmp_path, name) if name.endswith("jpg") else (tmp_path / name).write_text("f/8")
    told = arrived(str(tmp_path), {"a2.jpg"})
    assert [(one.name, one.whole, one.said) for one in told.files] == [("a9.jpg", True, ""), ("a10.jpg", True, "")]
    assert pictures_in(tmp_path) == ["a2.jpg", "a9.jpg", "a10.jpg"]


def test_a_picture_that_is_being_written_is_waited_for(tmp_path):
    path = put(tmp_path, "a1.jpg", age_s=0)
    assert not arrived(str(tmp_path), set()).files[0].whole
    then = time.time() - AT_REST_S - 1
    os.utime(path, (then, then))
    assert arrived(str(tmp_path), set()).files[0].whole


def test_a_picture_cut_short_is_not_whole_and_says_why(tmp_path):
    path = put(tmp_path, "a1.jpg")
    whole = path.read_bytes()
    path.write_bytes(whole[: len(whole) // 2])
    then = time.time() - 5
    os.utime(path, (then, then))
    (told,) = arrived(str(tmp_path), set()).files
    assert not told.whole
    assert "cut short" in told.said


@pytest.mark.parametrize(("noted", "said"), [(8.0, ""), (5.657, "at f/5.66; the plan says f/8"), (None, "")])
def test_another_stop_than_the_plan_is_said_at_once(tmp_path, noted, said):
    put(tmp_path, "a1.jpg", f_number=noted)
    (told,) = arrived(str(tmp_path), set(), PLAN).files
    assert said in told.said
    assert bool(said) == bool(told.said)


def test_a_raw_frame_beside_its_jpeg_is_one_picture(tmp_path):
    put(tmp_path, "a1.jpg")
    (tmp_path / "a1.DNG").write_bytes(b"raw")
    assert pictures_in(tmp_path) == ["a1.jpg"]


def test_a_folder_that_is_gone_is_said_and_counts_nothing(tmp_path):
    told = arrived(str(tmp_path / "card"), set())
    assert told.files == []
    assert "goes on when the folder is back" in told.trouble


def counted(folder, *names):
    return [Counted(frame, name, fingerprint(folder / name)) for frame, name in enumerate(names)]


def told_of(folder, name, frames, settings=PLAN):
    known = {each.name for each in frames}
    return next(one for one in arrived(str(folder), known, settings, frames).files if one.name == name)


@pytest.mark.parametrize(
    ("notes", "said"),
    [
        ({"shutter_s": 1 / 64}, ""),
        ({"shutter_s": 1 / 50}, "with 1/50 s; the plan says 1/60 s"),
        ({"iso": 125}, "at ISO 125; the plan says ISO 100"),
        ({"f_number": 8.0, "shutter_s": 1 / 60, "iso": 100}, ""),
    ],
)
def test_exposure_of_the_first_frame_is_held_against_the_plan(tmp_path, notes, said):
    put(tmp_path, "a1.jpg", **notes)
    one = told_of(tmp_path, "a1.jpg", [])
    assert said in one.said
    assert bool(said) == bool(one.said)
    assert not one.doubt


def test_later_frames_are_held_against_the_first_and_the_plan_is_not_said_again(tmp_path):
    put(tmp_path, "a1.jpg", f_number=11.0, iso=200, focal_length_mm=100.0)
    put(tmp_path, "a2.jpg", f_number=11.0, iso=200, focal_length_mm=100.0)
    put(tmp_path, "a3.jpg", f_number=8.0, iso=400, focal_length_mm=92.0)
    frames = counted(tmp_path, "a1.jpg")
    assert told_of(tmp_path, "a2.jpg", frames).said == ""
    said = told_of(tmp_path, "a3.jpg", frames).said
    for part in ("at f/8; the frames before at f/11", "ISO 400; the frames before at ISO 200", "Was the zoom touched?"):
        assert part in said


@pytest.mark.parametrize(
    ("notes", "why"),
    [
        ({"camera": "body B"}, "another camera, body B; the run's frames come from body A"),
        ({"camera": "body A", "size": (64, 64)}, "64 x 64 pixels; the run's frames have 96 x 64"),
        ({"camera": "body A", "taken": "2026:11:02 09:59:00"}, "before the frame that was counted last"),
        ({"camera": "body A", "size": (64, 96)}, ""),
        ({"camera": "body A", "taken": "2026:11:02 10:00:05"}, ""),
        ({}, ""),
    ],
)
def test_what_may_be_none_of_the_run_is_asked_about(tmp_path, notes, why):
    put(tmp_path, "a1.jpg", camera="body A", taken="2026:11:02 10:00:00")
    put(tmp_path, "a2.jpg", **notes)
    one = told_of(tmp_path, "a2.jpg", counted(tmp_path, "a1.jpg"))
    assert one.whole
    assert one.doubt is bool(why)
    assert why in one.said


def test_the_same_file_under_another_name_is_asked_about(tmp_path):
    first = put(tmp_path, "a1.jpg")
    (tmp_path / "copy.jpg").write_bytes(first.read_bytes())
    then = time.time() - 5
    os.utime(tmp_path / "copy.jpg", (then, then))
    one = told_of(tmp_path, "copy.jpg", counted(tmp_path, "a1.jpg"))
    assert one.doubt
    assert "the same file as frame 1, a1.jpg" in one.said


def test_a_frame_is_found_again_under_the_name_it_was_given_later(tmp_path):
    put(tmp_path, "a1.jpg")
    put(tmp_path, "a2.jpg")
    (frame, _) = counted(tmp_path, "a1.jpg", "a2.jpg")
    (tmp_path / "a1.jpg").rename(tmp_path / "hero.jpg")
    assert place_of(tmp_path, frame.name, frame.sha256) == tmp_path / "hero.jpg"
    assert place_of(tmp_path, frame.name, None) == tmp_path / "a1.jpg"
    (tmp_path / "hero.jpg").unlink()
    assert place_of(tmp_path, frame.name, frame.sha256) == tmp_path / "a1.jpg"


@pytest.mark.parametrize(("first", "later"), [("a1.dng", "a1.jpg"), ("a1.JPG", "a1.NEF")])
def test_a_twin_that_comes_later_is_no_frame_of_its_own(tmp_path, first, later):
    (tmp_path / later).write_bytes(b"later")
    assert arrived(str(tmp_path), {first}).files == []
    assert [one.name for one in arrived(str(tmp_path), {"b1.jpg"}).files] == [later]


def test_content_is_read_anew_when_the_file_was_written_to(tmp_path):
    path = put(tmp_path, "a1.jpg")
    before = fingerprint(path)
    assert before == hashlib.sha256(path.read_bytes()).hexdigest()
    path.write_bytes(path.read_bytes() + b"more")
    assert fingerprint(path) != before


def test_what_the_camera_chose_itself_is_said_of_the_first_frame_alone(tmp_path):
    for name in ("a1.jpg", "a2.jpg"):
        put(tmp_path, name, exposure_mode=0, white=0)
    said = told_of(tmp_path, "a1.jpg", []).said
    assert "chose the exposure itself" in said
    assert "White balance is on automatic" in said
    assert told_of(tmp_path, "a2.jpg", counted(tmp_path, "a1.jpg")).said == ""
    put(tmp_path, "b1.jpg", exposure_mode=1, white=1)
    assert told_of(tmp_path, "b1.jpg", []).said == ""


@pytest.mark.parametrize(
    ("before", "now", "said"),
    [
        ({"flash": 1}, {"flash": 16}, "did not fire; before it did"),
        ({"flash": 16}, {"flash": 9}, "The flash fired; before it did not"),
        ({"flash": 1}, {"flash": 9}, ""),
        ({}, {"flash": 1}, ""),
        ({"lens": "100 mm"}, {"lens": "60 mm"}, "through 60 mm; the frames before through 100 mm"),
    ],
)
def test_flash_and_lens_are_held_against_the_first_frame(tmp_path, before, now, said):
    put(tmp_path, "a1.jpg", **before)
    put(tmp_path, "a2.jpg", **now)
    told = told_of(tmp_path, "a2.jpg", counted(tmp_path, "a1.jpg")).said
    assert said in told
    assert bool(said) == bool(told)


def test_a_raw_file_says_what_its_camera_noted(tmp_path):
    notes = Notes(1 / 50, 5.6, 400, "2026:11:02 10:00:00", "body A")
    path = tmp_path / "a1.dng"
    write_dng(path, np.random.default_rng(3).uniform(0.1, 0.5, (64, 96, 3)), notes)
    facts = frame_facts(path)
    assert (facts.f_number, facts.iso, facts.camera) == (pytest.approx(5.6), 400, "body A")
    assert facts.exposure_s == pytest.approx(1 / 50)
    then = time.time() - 5
    os.utime(path, (then, then))
    said = told_of(tmp_path, "a1.dng", []).said
    for part in ("f/5.6; the plan says f/8", "1/50 s; the plan says 1/60 s", "ISO 400; the plan says ISO 100"):
        assert part in said


@pytest.mark.parametrize(
    ("shutter_s", "between_s", "said"),
    # Planned is a frame every 7 s: 4 s of exposure, the rest for the move.
    [(4.0, 7, False), (4.0, 11, True), (4.0, 30, False), (4.0, 8, False), (0.5, 8, False)],
)
def test_a_dark_frame_is_seen_from_the_times_of_the_first_two(tmp_path, shutter_s, between_s, said):
    first, second = (
        frame_facts(put(tmp_path, f"a{k}.jpg", shutter_s=shutter_s, taken=f"2026:11:02 10:00:{k * between_s:02d}"))
        for k in range(2)
    )
    words = dark_frame(first, second, Settings(shutter_s=shutter_s, every_s=7.0))
    assert bool(words) is said
    assert ("dark frame" in words) is said
