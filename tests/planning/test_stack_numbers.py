"""The numbers that a check of frames goes by: those of the stack that the shot plans."""

import pytest

from just_plane.planning.plan import plan_shot
from just_plane.planning.stack_numbers import numbers_of, stack_numbers
from just_plane.planning.ways.step_table import spares_of, step_rows


@pytest.mark.parametrize("spare", [(0, 0), (1, 1), (3, 0), (0, 2)])
@pytest.mark.parametrize("kind", ["rail", "ring"])
def test_spare_frames_are_told_from_those_that_hold_the_subject(pod, changed, kind, spare):
    before, after = spare
    shot = changed(pod, {"/chosen_way": kind, "/stack/spare_before": before, "/stack/spare_after": after})
    bare = stack_numbers(changed(pod, {"/chosen_way": kind, "/stack/spare_before": 0, "/stack/spare_after": 0}))
    numbers = stack_numbers(shot)
    assert (numbers.spare_before, numbers.spare_after) == spare
    assert numbers.planned_frames == bare.planned_frames + before + after
    assert (numbers.kind, bare.first_mm) == (kind, 0.0)
    assert (numbers.first_mm < 0) == (before > 0)
    plan = plan_shot(shot)
    way = next(each for each in plan.ways if each.id == kind)
    rows = step_rows(way, plan.reach.magnification)
    assert [row.spare for row in rows] == [True] * before + [False] * bare.planned_frames + [True] * after


def test_frames_that_hold_the_subject_are_none_to_spare_wherever_they_are_focused(pod):
    """A tilted plane may meet the axis in front of the nearest point, in every frame."""
    way = next(each for each in plan_shot(pod).ways if each.id == "rail")
    focuses = [focus - 10 for focus in way.focuses_mm]
    stack = way.stack.model_copy(update={"covering_frames": way.stack.frames})
    assert spares_of(way.model_copy(update={"stack": stack, "focuses_mm": focuses})) == (0, 0)


def test_a_shot_without_a_stack_gives_what_is_known_all_the_same(pod, changed):
    numbers = numbers_of(changed(pod, {"/subject/depth_mm": 34.0}), plan_shot(pod), "in")
    assert (numbers.depth_mm, numbers.units, numbers.wavelength_nm) == (34.0, "in", pod.sharp.wavelength_nm)
    plan = plan_shot(pod).model_copy(update={"ways": []})
    alone = numbers_of(pod, plan)
    assert (alone.step_mm, alone.planned_frames, alone.spare_before, alone.units) == (None, None, 0, "mm")
    assert alone.depth_mm == 34.0
