"""Points in the shot file: old files open, ids are told apart, what cannot be is refused at its place."""

import json

import pytest
from pydantic import ValidationError

from just_plane.contract.shot import Shot
from just_plane.contract.shot_file import read_shot, write_shot
from just_plane.contract.words import first_problem


def test_a_file_without_points_opens_with_none(pod):
    document = json.loads(write_shot(pod))
    for name in ("plane", "steadiness", "pinned"):
        del document[name]
    shot = read_shot(json.dumps(document).encode())
    assert shot.plane.points == []
    assert shot.steadiness.held == "support"
    assert shot == pod


def test_a_file_with_points_comes_back_as_it_went(tray):
    assert read_shot(write_shot(tray).encode()) == tray


def test_two_points_of_one_id_are_told_apart(tray, changed):
    points = [point.model_dump() for point in tray.plane.points]
    for point in points:
        point["id"] = "same"
    ids = [point.id for point in changed(tray, {"/plane/points": points}).plane.points]
    assert ids[0] == "same"
    assert len(set(ids)) == len(ids)


@pytest.mark.parametrize(
    ("pointer", "value", "field"),
    [
        ("/plane/points/0/from_left", 1.2, "/plane/points/0/from_left"),
        ("/plane/points/0/depth", {"by": "guess"}, "/plane/points/0/depth"),
        ("/plane/points/0/depth/readings_mm", [1e9], "/plane/points/0/depth/readings_mm/0"),
        ("/plane/points/1/id", "With Spaces", "/plane/points/1/id"),
        ("/pinned", ["one"] * 5, "/pinned"),
        ("/steadiness/stabiliser_stops", -1.0, "/steadiness/stabiliser_stops"),
    ],
)
def test_what_cannot_be_is_refused_at_its_place(tray, changed, pointer, value, field):
    with pytest.raises(ValidationError) as refused:
        changed(tray, {pointer: value})
    assert first_problem(refused.value).field == field


def test_an_angle_of_ninety_is_refused_with_its_limit(catalogue):
    document = catalogue["foil"].model_dump()
    document["plane"]["points"][0]["depth"]["angle_deg"] = 90.0
    with pytest.raises(ValidationError) as refused:
        Shot.model_validate(document)
    assert "at most 90°" in first_problem(refused.value).message
