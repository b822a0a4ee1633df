"""A frame of grey read from its file."""

import numpy as np
import pytest
from PIL import Image

from just_plane.frames.grey import grey_frame
from just_plane.pictures.camera_files import Notes, write_dng, write_jpeg
from just_plane.pictures.reading import PictureError

NOTES = Notes(1 / 60, 8.0, 100, "2026:11:02 10:00:00", "body A")


def light(red, green, blue):
    return np.ones((240, 360, 1)) * np.array([red, green, blue])


@pytest.mark.parametrize(("write", "name"), [(write_jpeg, "grey.jpg"), (write_dng, "grey.dng")])
def test_what_was_in_the_light_comes_out_of_either_file(tmp_path, write, name):
    write(tmp_path / name, light(0.30, 0.24, 0.12), NOTES)
    white = grey_frame(tmp_path, name)
    assert (white.red, white.blue) == pytest.approx((0.8, 2.0), rel=0.03)
    assert f"Red × {white.red:.2f} and blue × {white.blue:.2f}" in white.words
    assert white.file == name


def test_neutral_and_uneven_are_said(tmp_path):
    write_jpeg(tmp_path / "a.jpg", light(0.3, 0.3, 0.3), NOTES)
    assert grey_frame(tmp_path, "a.jpg").words == "The frames are neutral as they are."
    write_jpeg(tmp_path / "b.jpg", light(0.3, 0.3, 0.3) * np.linspace(0.3, 2.5, 360)[None, :, None], NOTES)
    assert "brighter on one side" in grey_frame(tmp_path, "b.jpg").words


def test_what_is_no_frame_of_grey_says_what_to_do(tmp_path):
    Image.fromarray(np.full((80, 120), 120, np.uint8)).save(tmp_path / "bw.png")
    with pytest.raises(PictureError, match="no colours"):
        grey_frame(tmp_path, "bw.png")
    write_jpeg(tmp_path / "dark.jpg", light(0.001, 0.001, 0.001), NOTES)
    with pytest.raises(PictureError, match="nearly black"):
        grey_frame(tmp_path, "dark.jpg")
    with pytest.raises(PictureError, match="gone"):
        grey_frame(tmp_path, "none.jpg")
