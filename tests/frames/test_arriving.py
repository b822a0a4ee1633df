"""Pictures as they come into a folder: whole or half written, RAW beside JPEG, at another stop, gone again."""

import os
import time

import numpy as np
import pytest
from PIL import Image

from just_plane.frames.arriving import AT_REST_S, arrived, pictures_in

PICTURE = np.random.default_rng(1).uniform(40, 200, (64, 96, 3)).astype(np.uint8)


def put(folder, name, *, f_number=None, age_s=5.0):
    exif = Image.Exif()
    if f_number is not None:
        exif.get_ifd(0x8769)[33437] = f_number
    path = folder / name
    Image.fromarray(PICTURE).save(path, exif=exif.tobytes())
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


@pytest.mark.parametrize(("noted", "said"), [(8.0, ""), (5.657, "f/5.66; the plan says f/8"), (None, "")])
def test_another_stop_than_the_plan_is_said_at_once(tmp_path, noted, said):
    put(tmp_path, "a1.jpg", f_number=noted)
    (told,) = arrived(str(tmp_path), set(), 8.0).files
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
