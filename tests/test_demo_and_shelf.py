"""The made-up catalogue and the generic gear: honest data, told in full."""

import re

import pytest

from just_plane.contract.gear import KINDS
from just_plane.core.data_sheet import prime_from_data_sheet
from just_plane.core.rig import Rig
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.kit.check import check_kit
from just_plane.planning.plan import plan_shot
from just_plane.shelf.starter import starter_shelf

PLAIN_WORDS = """
mm cm W f MP NA body macro aperture ring tilts and shifts as a tube lens to bare bellows converter close up step
reversing coupling objective finite motor hand rail soft box with flash tungsten lamp cool panel tracing paper plastic
cup column stand low tripod
"""
SHOTS = demo_shots()
SHELF = [piece.gear for piece in starter_shelf().pieces]
LENSES = [gear for gear in SHELF if gear.kind == "lens"]
named = {"ids": lambda each: each.name}


@pytest.mark.parametrize("shot", SHOTS, **named)
def test_every_demo_shot_is_planned_without_trouble(shot):
    plan = plan_shot(shot)
    assert [finding for finding in plan.findings if finding.severity == "trouble"] == []
    assert any(way.cover == 1 for way in plan.ways)
    assert plan.reach.nearest_point_mm > 5


@pytest.mark.parametrize("shot", SHOTS, **named)
def test_every_demo_shot_uses_gear_from_the_shelf(shot):
    for gear in (shot.body, *(each.gear for each in (*shot.rig, *shot.on_set))):
        assert gear in SHELF
        assert gear.kit_id is not None


def test_the_catalogue_shows_one_frame_and_stacks_and_a_tube():
    recommended = {way.kind for shot in SHOTS for way in plan_shot(shot).ways if way.recommended}
    assert recommended == {"one_frame", "rail"}
    assert {placed.gear.kind for shot in SHOTS for placed in shot.rig} >= {"lens", "tube", "objective"}
    assert any(shot.subject.hold_still_s for shot in SHOTS)


@pytest.mark.parametrize("lens", LENSES, **named)
def test_every_lens_on_the_shelf_focuses_where_its_data_say(lens):
    prime = prime_from_data_sheet(
        lens.focal_length_mm, lens.minimum_focus_distance_mm, lens.closest_magnification, lens.pupil_magnification
    )
    rig = Rig((prime,)).focused(lens.closest_magnification)
    imaging = rig.imaging()
    assert imaging.subject_to_sensor == pytest.approx(lens.minimum_focus_distance_mm)
    # The subject and the entrance pupil lie where glass of this length can have them.
    front = 18 + lens.barrel_mm + lens.barrel_growth_mm
    assert lens.minimum_focus_distance_mm > front
    assert imaging.subject_to_sensor - imaging.pupil_distance < front


@pytest.mark.parametrize("gear", SHELF, **named)
def test_gear_is_named_by_what_it_is_alone(gear):
    """Generic: numbers, units and plain words, none that could be a maker's."""
    words = set(re.findall(r"[A-Za-z]+", gear.name))
    assert words <= set(re.findall(r"\w+", PLAIN_WORDS))


def test_the_shelf_has_every_kind_of_gear():
    assert {gear.kind for gear in SHELF} == set(KINDS)


def test_nothing_on_the_shelf_is_in_trouble():
    assert [finding for finding in check_kit(starter_shelf()) if finding.severity == "trouble"] == []
