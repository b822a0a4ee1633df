"""Frames as a camera writes them: notes that others read, light that is light."""

import errno

import numpy as np
import pytest
import tifffile
from PIL import Image

from just_plane.pictures.camera_files import Notes, write_dng, write_jpeg
from just_plane.pictures.frames import frame_facts
from just_plane.pictures.frames_out import WriteError

NOTES = Notes(1 / 8, 5.6, 200, "2026:05:03 10:00:07", "simulated camera", 100.0)


def scene():
    ramp = np.linspace(0.02, 0.9, 240)[None, :, None]
    return np.broadcast_to(ramp, (160, 240, 3)).astype(np.float32)


@pytest.mark.parametrize(("write", "name", "kind"), [(write_jpeg, "a.jpg", "JPEG"), (write_dng, "a.dng", "raw")])
def test_a_frame_says_of_itself_what_was_set(tmp_path, write, name, kind):
    write(tmp_path / name, scene(), NOTES)
    facts = frame_facts(tmp_path / name)
    assert (facts.kind, facts.width, facts.height) == (kind, 240, 160)
    if kind == "JPEG":
        assert (facts.exposure_s, facts.f_number, facts.iso) == (0.125, 5.6, 200)
        assert facts.focal_length_mm == 100
        assert (facts.taken, facts.camera) == ("2026:05:03 10:00:07", "simulated camera")


def test_a_frame_tells_how_wide_its_pixels_are_on_the_sensor_and_a_smaller_copy_of_it_does_not(tmp_path):
    write_jpeg(tmp_path / "a.jpg", scene(), NOTES._replace(pitch_mm=0.0105))
    assert frame_facts(tmp_path / "a.jpg").pitch_mm == pytest.approx(0.0105, rel=1e-4)
    with Image.open(tmp_path / "a.jpg") as whole:
        whole.resize((120, 80)).save(tmp_path / "b.jpg", exif=whole.getexif().tobytes())
    assert frame_facts(tmp_path / "b.jpg").pitch_mm is None
    write_jpeg(tmp_path / "c.jpg", scene(), NOTES)
    assert frame_facts(tmp_path / "c.jpg").pitch_mm is None


def test_a_jpeg_is_toned_as_screens_are(tmp_path):
    write_jpeg(tmp_path / "a.jpg", scene(), NOTES)
    with Image.open(tmp_path / "a.jpg") as picture:
        row = np.asarray(picture, dtype=float)[80, :, 1] / 255
    light = np.where(row <= 0.04045, row / 12.92, ((row + 0.055) / 1.055) ** 2.4)
    assert light == pytest.approx(scene()[80, :, 1], abs=0.01)


def test_a_dng_holds_sixteen_bits_as_they_were(tmp_path):
    write_dng(tmp_path / "a.dng", scene(), NOTES)
    values = tifffile.imread(tmp_path / "a.dng")[80].ravel()
    expected = np.rint(scene()[80].ravel() * 65535)
    assert values.tolist() == expected.tolist()


@pytest.mark.parametrize("shutter", [1 / 8000, 0.3, 30.0])
def test_any_shutter_is_noted_as_it_was(tmp_path, shutter):
    write_jpeg(tmp_path / "a.jpg", scene(), NOTES._replace(shutter_s=shutter))
    assert frame_facts(tmp_path / "a.jpg").exposure_s == pytest.approx(shutter, rel=1e-3)


@pytest.mark.parametrize("write", [write_jpeg, write_dng])
def test_a_full_disk_leaves_nothing_half_written(tmp_path, monkeypatch, write):
    def full(*arguments):
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr("just_plane.pictures.frames_out.os.replace", full)
    with pytest.raises(WriteError, match="No room is left on the disk"):
        write(tmp_path / "a.file", scene(), NOTES)
    assert list(tmp_path.iterdir()) == []
