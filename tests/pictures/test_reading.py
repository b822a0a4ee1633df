"""Photographs as people send them: read when they can be, refused in words when not."""

import base64
import io
import struct
import zlib

import numpy as np
import pytest
from PIL import Image

from just_plane.core.frames.ruler import find_ruler
from just_plane.core.frames.ruler_picture import ruler_picture
from just_plane.pictures.reading import F_NUMBER, FOCAL_LENGTH, FULL_WIDTH, NOTES, TAKEN, PictureError, read_picture
from just_plane.pictures.writing import jpeg

RULER = ruler_picture(600, 400, 20.0, angle=0.1)


def saved(kind, mode="L", picture=RULER, **options):
    image = Image.fromarray((picture * 255).astype(np.uint8)).convert(mode)
    content = io.BytesIO()
    image.save(content, kind, **options)
    return content.getvalue()


@pytest.mark.parametrize(
    ("kind", "mode"), [("JPEG", "RGB"), ("PNG", "RGBA"), ("PNG", "P"), ("TIFF", "L"), ("TIFF", "RGB"), ("PNG", "L")]
)
def test_the_kinds_that_cameras_and_programs_write_are_read(kind, mode):
    picture = read_picture(saved(kind, mode))
    assert (picture.facts.kind, picture.facts.width_px, picture.facts.height_px) == (kind, 600, 400)
    assert find_ruler(picture.brightness).spacing == pytest.approx(20.0, rel=2e-3)


def test_sixteen_bits_of_a_dark_frame_are_not_black():
    content = io.BytesIO()
    Image.fromarray((RULER * 900).astype(np.uint16)).save(content, "TIFF")
    assert find_ruler(read_picture(content.getvalue()).brightness).spacing == pytest.approx(20.0, rel=2e-3)


def test_a_frame_taken_on_its_side_is_put_upright():
    exif = Image.Exif()
    exif[0x0112] = 6  # to be turned a quarter
    picture = read_picture(saved("JPEG", exif=exif.tobytes()))
    assert (picture.facts.width_px, picture.facts.height_px) == (400, 600)
    assert picture.brightness.shape == (600, 400)


def test_the_cameras_notes_are_told():
    facts = read_picture(jpeg(RULER, focal_length_mm=105.0, f_number=11.0)).facts
    assert (facts.focal_length_mm, facts.f_number, facts.taken) == (105.0, 11.0, "")


@pytest.mark.parametrize(
    "notes",
    [
        {FOCAL_LENGTH: (100, 0), F_NUMBER: (0, 0)},
        {FOCAL_LENGTH: -3, F_NUMBER: 1e9, FULL_WIDTH: 4_000_000_000},
        {FOCAL_LENGTH: "long", TAKEN: "\x01\x02"},
    ],
    ids=["divided by nothing", "absurd", "no numbers"],
)
def test_notes_that_cannot_be_are_left_out(notes):
    exif = Image.Exif()
    exif.get_ifd(NOTES).update(notes)
    facts = read_picture(saved("JPEG", exif=exif.tobytes())).facts
    assert (facts.focal_length_mm, facts.f_number, facts.full_width_px, facts.taken) == (None, None, None, "")


def test_a_broken_block_of_notes_does_not_keep_the_picture_out():
    content = bytearray(jpeg(RULER, focal_length_mm=50.0))
    at = content.index(b"Exif\0\0")
    content[at + 8 : at + 20] = b"\xff" * 12
    assert read_picture(bytes(content)).facts.focal_length_mm is None


def test_the_preview_is_a_small_picture_of_it():
    big = ruler_picture(3000, 2000, 60.0)
    preview = read_picture(saved("JPEG", picture=big)).facts.preview
    head, _, text = preview.partition(",")
    assert head == "data:image/jpeg;base64"
    with Image.open(io.BytesIO(base64.b64decode(text))) as small:
        assert small.size == (1400, 933)


def bomb(width, height):
    """A PNG that says it is huge and holds next to nothing."""

    def chunk(name, body):
        return struct.pack(">I", len(body)) + name + body + struct.pack(">I", zlib.crc32(name + body))

    header = struct.pack(">IIBBBBB", width, height, 8, 0, 0, 0, 0)
    return (
        b"\x89PNG\r\n\x1a\n"
        + chunk(b"IHDR", header)
        + chunk(b"IDAT", zlib.compress(b"\0" * 1000))
        + chunk(b"IEND", b"")
    )


REFUSED = [
    (b"", "The file is empty"),
    (b"a holiday story, no picture", "no picture that the program can read"),
    (b"%PDF-1.7 and so on", "no picture that the program can read"),
    (bomb(20_000, 10_000), "200 megapixels; the program unpacks up to 120"),
    (bomb(60_000, 60_000), "3,600 megapixels"),
    (saved("JPEG", picture=ruler_picture(63, 200, 20.0)), "only 63 × 200 pixels"),
    (saved("JPEG")[:2000], "cut short or damaged"),
    (bomb(400, 400), "cut short or damaged"),
    (saved("GIF"), "no picture that the program can read"),
]


@pytest.mark.parametrize(("content", "words"), REFUSED, ids=[words[:24] for _, words in REFUSED])
def test_what_is_no_picture_is_refused_in_words(content, words):
    with pytest.raises(PictureError) as refusal:
        read_picture(content)
    assert words in refusal.value.message
    assert refusal.value.remedy.endswith(".")


def test_a_small_file_that_says_it_is_huge_is_refused_before_it_is_unpacked(monkeypatch):
    """119 megapixels of one grey, half a megabyte: to unpack it would take a minute and a gigabyte."""
    content = io.BytesIO()
    Image.new("L", (10900, 10900), 128).save(content, "PNG", compress_level=9)
    assert len(content.getvalue()) < 600_000
    unpacked = []
    monkeypatch.setattr("just_plane.pictures.reading.ImageOps.exif_transpose", unpacked.append)
    with pytest.raises(PictureError, match="no photograph is so small"):
        read_picture(content.getvalue())
    assert unpacked == []


def test_a_header_without_its_pixels_is_refused():
    content = io.BytesIO()
    Image.fromarray(np.random.default_rng(1).integers(0, 255, (2000, 3000), dtype=np.uint8)).save(content, "JPEG")
    with pytest.raises(PictureError):
        read_picture(content.getvalue()[:900])


def test_a_picture_drawn_in_a_thousand_passes_is_refused_before_it_takes_an_hour():
    content = io.BytesIO()
    Image.fromarray(np.random.default_rng(0).integers(0, 255, (128, 128), dtype=np.uint8)).save(
        content, "JPEG", progressive=True
    )
    plain = content.getvalue()
    assert read_picture(plain).facts.kind == "JPEG"
    # The last pass once more, a thousand times.
    last = plain.rindex(b"\xff\xda")
    many = plain[:last] + plain[last:-2] * 1000 + plain[-2:]
    with pytest.raises(PictureError, match="passes over the whole picture"):
        read_picture(many)


def test_a_large_picture_is_read_in_half_the_room_that_floats_would_take():
    content = io.BytesIO()
    Image.fromarray(np.zeros((600, 800), np.uint8)).save(content, "PNG")
    brightness = read_picture(content.getvalue()).brightness
    assert brightness.nbytes == 600 * 800
