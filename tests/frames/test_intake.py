"""Which files of a folder are frames, and what is said of the others."""

import cv2
import numpy as np
import pytest
from PIL import Image

from just_plane.contract.stack_numbers import NamedPlace, StackNumbers
from just_plane.frames.checking import with_pitch
from just_plane.frames.intake import FolderError, natural, take_in
from just_plane.frames.sensor import crop_of, places_of
from just_plane.pictures.frames import frame_facts

PICTURE = (np.random.default_rng(1).uniform(40, 200, (64, 96, 3))).astype(np.uint8)


def put(folder, name, picture=PICTURE, exif=None):
    image = Image.fromarray(picture)
    image.save(folder / name, **({"exif": exif.tobytes()} if exif is not None else {}))
    return folder / name


def notes(**values):
    exif = Image.Exif()
    exif.get_ifd(0x8769).update({{"taken": 36867, "f_number": 33437, "iso": 34855}[k]: v for k, v in values.items()})
    return exif


def test_nine_comes_before_ten_and_case_does_not_matter():
    names = ["P10.jpg", "p9.JPG", "P100.jpg", "P1.jpg"]
    assert sorted(names, key=natural) == ["P1.jpg", "p9.JPG", "P10.jpg", "P100.jpg"]


def test_frames_come_in_the_order_of_their_names_whatever_else_lies_there(tmp_path):
    for name in ("a10.jpg", "a9.jpg", "a8.png", "a11.tif", ".hidden.jpg"):
        put(tmp_path, name)
    (tmp_path / "notes.txt").write_text("f/8")
    put(tmp_path, "set-proof-depth.tif")
    put(tmp_path, "set-depth.png")
    assert take_in(tmp_path).names == ["a8.png", "a9.jpg", "a10.jpg", "a11.tif"]


@pytest.mark.parametrize("name", ["a2.jpg", "a2.png", "a2.tif"])
def test_a_file_cut_in_half_is_refused_by_itself(tmp_path, name):
    for other in ("a1.jpg", "a3.jpg"):
        put(tmp_path, other)
    path = put(tmp_path, name)
    whole = path.read_bytes()
    path.write_bytes(whole[: len(whole) // 2])
    intake = take_in(tmp_path)
    assert [one is None for one in intake.facts] == [False, True, False]
    assert intake.refused[0].name == name
    assert "cut short" in intake.refused[0].reason or "no picture" in intake.refused[0].reason


def test_other_sizes_turned_frames_and_grey_ones_are_refused_with_their_reason(tmp_path):
    for k in range(3):
        put(tmp_path, f"a{k}.jpg")
    put(tmp_path, "b1.jpg", PICTURE[:50])
    put(tmp_path, "b2.jpg", np.ascontiguousarray(PICTURE.swapaxes(0, 1)))
    put(tmp_path, "b3.jpg", PICTURE[..., 0])
    put(tmp_path, "b4.jpg", exif=_turned())
    (tmp_path / "b5.jpg").write_bytes(b"")
    reasons = {one.name: one.reason for one in take_in(tmp_path).refused}
    assert "96 x 50" in reasons["b1.jpg"]
    assert "96 x 64" in reasons["b1.jpg"]
    assert "upright" in reasons["b2.jpg"]
    assert "grey" in reasons["b3.jpg"]
    assert "upright" in reasons["b4.jpg"]
    assert "no picture" in reasons["b5.jpg"]
    assert len(reasons) == 5


def _turned():
    exif = Image.Exif()
    exif[274] = 6
    return exif


def test_frames_that_are_all_grey_are_a_stack_like_any_other(tmp_path):
    for k in range(3):
        put(tmp_path, f"a{k}.png", PICTURE[..., 0])
    assert take_in(tmp_path).refused == []


@pytest.mark.parametrize("frames", [0, 1])
def test_fewer_than_two_frames_are_no_stack(tmp_path, frames):
    for k in range(frames):
        put(tmp_path, f"a{k}.jpg")
    with pytest.raises(FolderError, match="at least two"):
        take_in(tmp_path)


def test_a_folder_that_is_not_there_is_said_to_be_missing(tmp_path):
    with pytest.raises(FolderError, match="There is no folder"):
        take_in(tmp_path / "nowhere")


def test_a_jpeg_beside_its_raw_frame_is_the_one_that_counts(tmp_path):
    for k in range(2):
        put(tmp_path, f"a{k}.jpg")
        (tmp_path / f"A{k}.DNG").write_bytes(b"raw")
    intake = take_in(tmp_path)
    assert intake.names == ["a0.jpg", "a1.jpg"]
    assert "raw" in intake.said[0]


def test_a_clock_that_runs_backward_and_a_stop_that_changed_are_said(tmp_path):
    put(tmp_path, "a1.jpg", exif=notes(taken="2026:05:03 10:00:20", f_number=8.0))
    put(tmp_path, "a2.jpg", exif=notes(taken="2026:05:03 10:00:10", f_number=8.0))
    put(tmp_path, "a3.jpg", exif=notes(taken="2026:05:03 10:00:30", f_number=11.0))
    said = " ".join(take_in(tmp_path).said)
    assert "clock" in said
    assert "a2.jpg before a1.jpg" in said
    assert "a3.jpg has another stop" in said


def test_a_few_bytes_that_claim_a_hundred_megapixels_are_not_unpacked(tmp_path):
    for k in range(2):
        put(tmp_path, f"a{k}.jpg")
    Image.new("RGB", (11_000, 9_000)).save(tmp_path / "a9.png", compress_level=9)
    (refused,) = take_in(tmp_path).refused
    assert "99 megapixels" in refused.reason


def test_sixteen_bits_stay_sixteen_and_colours_in_their_places(tmp_path):
    from just_plane.pictures.frames import frame_facts, read_colour, read_grey

    deep = np.random.default_rng(2).integers(0, 65535, (64, 96, 3)).astype(np.uint16)
    cv2.imwrite(str(tmp_path / "deep.tif"), deep, [cv2.IMWRITE_TIFF_COMPRESSION, 1])
    facts = frame_facts(tmp_path / "deep.tif")
    assert (read_colour(facts) == deep).all()
    assert read_grey(facts, 2).shape == (32, 48)
    assert read_grey(facts, 2).dtype == np.uint16


def test_a_frame_is_turned_upright_before_anything(tmp_path):
    from just_plane.pictures.frames import frame_facts, read_grey

    path = put(tmp_path, "turned.png", exif=_turned())
    facts = frame_facts(path)
    assert (facts.width, facts.height) == (64, 96)
    upright = read_grey(facts)
    # Orientation 6: the first column from below is the first row.
    plain = cv2.cvtColor(PICTURE[..., ::-1].copy(), cv2.COLOR_BGR2GRAY)
    assert np.abs(upright.astype(int) - np.rot90(plain, -1).astype(int)).max() <= 1


@pytest.mark.parametrize("reduction", [2, 4, 8])
def test_a_reduced_jpeg_has_its_middles_where_they_belong(tmp_path, reduction):
    from just_plane.pictures.frames import frame_facts, read_grey

    ramp = np.tile(np.linspace(20, 230, 328), (200, 1)).astype(np.uint8)
    path = put(tmp_path, "ramp.jpg", np.dstack([ramp] * 3))
    small = read_grey(frame_facts(path), reduction).astype(float)
    x = np.arange(small.shape[1])
    expected = np.interp(reduction * x + (reduction - 1) / 2, np.arange(328), ramp[0])
    assert np.abs(small.mean(axis=0) - expected)[2:-2].max() < 1.3


def with_pixels(path, per_unit, unit, noted=300):
    """A frame of 300 pixels across whose camera noted how many pixels of the sensor go to a unit of length."""
    exif = Image.Exif()
    exif.get_ifd(34665).update({41486: per_unit, 41488: unit, 40962: noted})
    Image.new("RGB", (300, 200), (90, 90, 90)).save(path, exif=exif.tobytes())
    return frame_facts(path).pitch_mm


def test_the_pitch_of_pixels_is_read_from_the_cameras_notes_in_every_unit(tmp_path):
    path = tmp_path / "a.jpg"
    assert with_pixels(path, 100.0, 4) == pytest.approx(0.01)
    assert with_pixels(path, 1000.0, 3) == pytest.approx(0.01)
    assert with_pixels(path, 2540.0, 2) == pytest.approx(0.01)
    # Of a picture that was made smaller since, or of no pixel that there can be, nothing is believed.
    assert with_pixels(path, 100.0, 4, noted=3000) is None
    assert with_pixels(path, 1.0, 2) is None


def test_frames_of_the_middle_of_the_sensor_are_judged_by_their_own_pixels_and_points_are_found_in_them(tmp_path):
    for name in ("a.jpg", "b.jpg"):
        with_pixels(tmp_path / name, 100.0, 4)
    numbers = with_pitch(StackNumbers(sensor_width_mm=12.0), take_in(tmp_path))
    assert numbers.pixel_pitch_mm == pytest.approx(0.01)
    # 300 px of 0.01 mm are a quarter of 12 mm.
    assert crop_of(numbers, 300) == pytest.approx(4.0)
    assert crop_of(StackNumbers(sensor_width_mm=12.0, pixel_pitch_mm=0.0405), 300) == 1.0
    assert crop_of(StackNumbers(), 300) == 1.0
    assert with_pitch(StackNumbers(pixel_pitch_mm=0.02), take_in(tmp_path)).pixel_pitch_mm == 0.02


def test_a_point_is_looked_for_where_it_lies_in_a_frame_of_the_middle_of_the_sensor():
    points = [NamedPlace(name="A", from_left=0.5, from_top=0.5), NamedPlace(name="B", from_left=0.55, from_top=0.4)]
    numbers = StackNumbers(sensor_width_mm=12.0, pixel_pitch_mm=0.01, points=[*points])
    # The sensor is 1200 px wide, and 800 high: a twentieth of it is 60 px, a tenth 80.
    assert places_of(numbers, 300, 200) == pytest.approx(np.array([[149.5, 99.5], [209.5, 19.5]]))
    whole = StackNumbers(sensor_width_mm=3.0, pixel_pitch_mm=0.01, points=[*points])
    assert places_of(whole, 300, 200) == pytest.approx(np.array([[149.5, 99.5], [164.5, 79.5]]))
