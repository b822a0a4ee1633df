"""Shots of version 1 are read as the shots they were."""

import json
from pathlib import Path

import pytest
from pydantic import ValidationError

from just_plane.contract.json_file import FileError
from just_plane.contract.older import newer_shot
from just_plane.contract.shot import Shot
from just_plane.contract.shot_file import read_shot
from just_plane.planning.plan import plan_shot

OLD = (Path(__file__).parents[1] / "data" / "shot-version-1.json").read_text()


def test_lens_and_tubes_become_a_row_from_the_subject():
    shot = read_shot(OLD)
    assert [(placed.gear.kind, placed.reversed) for placed in shot.rig] == [
        ("lens", False),
        ("tube", False),
        ("tube", False),
    ]
    assert [placed.gear.length_mm for placed in shot.rig[1:]] == [20.0, 12.0]
    assert shot.rig[0].gear.focal_length_mm == 100
    assert (shot.version, shot.measured, shot.put_aside) == (2, None, [])


def test_it_plans_as_the_new_form_of_it_does():
    shot = read_shot(OLD)
    assert plan_shot(shot) == plan_shot(Shot.model_validate(shot.model_dump()))
    assert plan_shot(shot).reach.magnification == 0.5


@pytest.mark.parametrize(
    "document", [None, 3, [], {}, {"version": 1}, {"version": 1, "lens": 3, "tubes_mm": 4, "body": {}}]
)
def test_what_is_no_such_shot_is_left_for_the_refusal(document):
    assert newer_shot(document) == document


def test_an_old_shot_with_a_bad_value_is_refused_where_it_now_stands():
    with pytest.raises(FileError, match="Focal length must be more than 0 mm") as refusal:
        read_shot(OLD.replace('"focal_length_mm": 100.0', '"focal_length_mm": 0'))
    assert refusal.value.field == "/rig/0/gear/focal_length_mm"


def test_a_shot_that_mixes_both_is_refused():
    mixed = json.loads(OLD) | {"rig": []}
    with pytest.raises(ValidationError):
        Shot.model_validate(mixed)
