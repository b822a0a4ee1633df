import json
from pathlib import Path

import jsonschema
import pytest

from just_plane.contract.json_file import FileError
from just_plane.contract.shot_file import LARGEST_BYTES, read_shot, read_shot_and_photograph, write_shot
from just_plane.web.write_documents import documents

ROOT = Path(__file__).parents[2]


def test_a_written_shot_reads_back_the_same(catalogue):
    for shot in catalogue.values():
        assert read_shot(write_shot(shot)) == shot


def test_a_photograph_goes_with_the_file_and_not_into_the_shot(tray):
    text = write_shot(tray, b"\xff\xd8 whatever")
    shot, photograph = read_shot_and_photograph(text)
    assert photograph == b"\xff\xd8 whatever"
    assert shot == read_shot(text) == tray
    assert write_shot(shot) == write_shot(tray)
    assert read_shot_and_photograph(write_shot(tray)) == (tray, None)


@pytest.mark.parametrize("spoilt", ["not base64!", "abc", "äöü="])
def test_a_damaged_photograph_is_said_at_its_place(tray, spoilt):
    document = json.loads(write_shot(tray)) | {"photograph_jpeg": spoilt}
    with pytest.raises(FileError, match="framing photograph in the file is damaged") as caught:
        read_shot(json.dumps(document))
    assert caught.value.field == "/photograph_jpeg"


def test_a_byte_order_mark_is_no_obstacle(pod):
    assert read_shot(b"\xef\xbb\xbf" + write_shot(pod).encode()) == pod


def test_every_demo_shot_satisfies_the_published_schema(catalogue):
    schema = json.loads((ROOT / "docs" / "shot-file.schema.json").read_text())
    for shot in catalogue.values():
        jsonschema.validate(json.loads(write_shot(shot)), schema)


@pytest.mark.parametrize(
    "name",
    [
        "openapi.json",
        "shot-file.schema.json",
        "kit-file.schema.json",
        "check-report.schema.json",
        "notebook.schema.json",
        "run-file.schema.json",
    ],
)
def test_published_documents_are_those_of_the_models(name):
    """Run ``make api`` when this fails: a model changed and its documents did not."""
    assert (ROOT / "docs" / name).read_text(encoding="utf-8") == documents()[name]


def document(pod, **changes):
    return json.dumps(json.loads(write_shot(pod)) | changes)


@pytest.mark.parametrize(
    ("spoil", "sentence", "field"),
    [
        (lambda text: text[: len(text) // 2], "cut short or is not JSON", ""),
        (lambda text: b"\xff\xd8\xff\xe0 JFIF", "not text", ""),
        (lambda text: "[" * 100_000, "nested too deeply|not JSON", ""),
        (lambda text: "[1, 2]", "not a shot", "/format"),
        (lambda text: text + " " * LARGEST_BYTES, "6.0 MB; a shot file holds less than 6 MB", ""),
        (lambda text: text.replace('"depth_mm": 34.0', '"depth_mm": NaN'), "not JSON", ""),
        (lambda text: text.replace('"depth_mm": 34.0', '"depth_mm": 1e999'), "must be", "/subject/depth_mm"),
        (
            lambda text: text.replace('"depth_mm": 34.0', '"depth_mm": -2'),
            "Depth must be 0 mm or more",
            "/subject/depth_mm",
        ),
        (lambda text: text.replace('"depth_mm": 34.0', '"depth_mm": "34"'), "must be a number", "/subject/depth_mm"),
        (
            lambda text: text.replace('"f_number": 5.6', '"f_number": 0'),
            "Aperture must be 0.5 or more",
            "/aperture/f_number",
        ),
        (
            lambda text: text.replace('"magnification": 0.5', '"magnification": 0'),
            "more than 0",
            "/framing/magnification",
        ),
        (lambda text: text.replace('"depth_mm"', '"depth_inches"'), "missing", "/subject/depth_mm"),
        (lambda text: text.replace('"school": "viewing"', '"school": "gut"'), "one of", "/sharp/school"),
    ],
)
def test_a_spoilt_file_is_refused_with_what_and_where(pod, spoil, sentence, field):
    with pytest.raises(FileError, match=sentence) as refusal:
        read_shot(spoil(write_shot(pod)))
    assert refusal.value.field == field


def test_a_newer_file_is_refused_by_its_version(pod):
    with pytest.raises(FileError, match="version 7; this program reads up to version 2"):
        read_shot(document(pod, version=7, something_new=True))


def test_an_unknown_part_is_refused_by_name(pod):
    with pytest.raises(FileError, match="Tilt is not a part"):
        read_shot(document(pod, tilt=8))


def test_defaults_fill_what_a_short_file_leaves_out(pod):
    short = {key: json.loads(write_shot(pod))[key] for key in ("format", "version", "name", "subject", "body", "rig")}
    shot = read_shot(
        json.dumps(short | {"framing": {"by": "magnification", "magnification": 0.5}, "aperture": {"f_number": 8}})
    )
    assert (shot.sharp.school, shot.stack.overlap, shot.on_set) == ("viewing", 0.5, [])
