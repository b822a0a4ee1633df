"""The made-up catalogue and the generic gear: honest data, told in full."""

import re

import pytest

from just_plane.core.lens import prime_from_data_sheet
from just_plane.core.rig import Rig
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.plan import plan_shot
from just_plane.shelf.starter import starter_shelf

SHOTS = demo_shots()
SHELF = starter_shelf()
named = {"ids": lambda each: each.name}


@pytest.mark.parametrize("shot", SHOTS, **named)
def test_every_demo_shot_is_planned_without_trouble(shot):
    plan = plan_shot(shot)
    assert [finding for finding in plan.findings if finding.severity == "trouble"] == []
    assert any(way.cover == 1 for way in plan.ways)
    assert plan.reach.nearest_point_mm > 5


@pytest.mark.parametrize("shot", SHOTS, **named)
def test_every_demo_shot_uses_gear_from_the_shelf(shot):
    assert shot.body in SHELF.bodies
    assert shot.lens in SHELF.lenses
    assert set(shot.tubes_mm) <= set(SHELF.tubes_mm)


def test_the_catalogue_shows_one_frame_and_stacks_and_a_tube():
    recommended = {way.kind for shot in SHOTS for way in plan_shot(shot).ways if way.recommended}
    assert recommended == {"one_frame", "rail"}
    assert any(shot.tubes_mm for shot in SHOTS)
    assert any(shot.subject.hold_still_s for shot in SHOTS)


@pytest.mark.parametrize("lens", SHELF.lenses, **named)
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


@pytest.mark.parametrize("gear", [*SHELF.bodies, *SHELF.lenses], **named)
def test_gear_is_named_by_its_numbers_alone(gear):
    """Generic: a number first, and no word that could be a maker's."""
    words = set(re.findall(r"[A-Za-z]+", gear.name))
    assert re.match(r"\d", gear.name)
    assert words <= {"mm", "body", "MP", "macro", "f"}


def test_names_on_the_shelf_are_unlike():
    names = [gear.name for gear in (*SHELF.bodies, *SHELF.lenses)]
    assert len(set(names)) == len(names)
