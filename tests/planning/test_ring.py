"""The throw of a focus ring: what is read from its table is what the rig itself says there."""

import numpy as np
import pytest

from just_plane.core.depth import depth_of_field
from just_plane.core.throw import throw_over
from just_plane.planning.plan import plan_shot
from just_plane.planning.rig.rigging import build_rig, rig_asked
from just_plane.planning.words.numbers import Wording


def table_of(shot, focus=5.0, circle=0.02, f_number=8.0):
    rigged = build_rig(rig_asked(shot), Wording())
    table = throw_over(
        rigged.rig,
        rigged.settings,
        rigged.over_throw.subject_to_sensor,
        to_nearest_point=rigged.imaging.subject_to_sensor - focus,
        depth=shot.subject.depth_mm,
        f_number=f_number,
        school="contrast",
        circle_of_confusion=circle,
    )
    return rigged, table


def exact(rigged, place, focus):
    """The rig focused on a place, found by trying settings ever finer."""
    wanted = rigged.imaging.subject_to_sensor - focus + place
    low, high = 0.0, rigged.rig.lens.closest_magnification
    for _ in range(80):
        middle = 0.5 * (low + high)
        if rigged.rig.focused(middle).imaging().subject_to_sensor > wanted:
            low = middle
        else:
            high = middle
    return rigged.rig.focused(low).imaging()


@pytest.mark.parametrize("place", [0.0, 3.3, 17.0, 34.0])
def test_the_table_agrees_with_the_rig_itself(pod, place):
    rigged, table = table_of(pod)
    there = exact(rigged, place, 5.0)
    view = table.view(np.array([place]))
    assert view.magnification[0] == pytest.approx(there.magnification, rel=3e-5)
    assert view.pupil_distance[0] == pytest.approx(there.pupil_distance, rel=3e-5)
    assert view.effective_f_number[0] == pytest.approx(8 * there.f_number_factor, rel=3e-5)
    depth = depth_of_field("contrast", 0.02, 8 * there.f_number_factor, there.magnification)
    assert table.depth_at()(place) == pytest.approx(depth, rel=1e-4)


def test_size_falls_and_depth_grows_away_from_the_camera(pod):
    _, table = table_of(pod)
    assert np.all(np.diff(table.places) > 0)
    assert np.all(np.diff(table.magnifications) < 0)
    at = table.depth_at()
    assert at(0.0) < at(17.0) < at(34.0)


def size_of_one_thing(rigged, focused_at, stands_at, focus=5.0):
    """How large a thing at a place stands on the sensor with the ring focused elsewhere: angle at the pupil."""
    there = exact(rigged, focused_at, focus)
    return there.chief_scale / (there.pupil_distance + stands_at - focused_at)


def test_the_crop_is_the_change_of_size_of_one_thing_from_end_to_end(pod):
    rigged, table = table_of(pod)
    crops = [
        1 - min(sizes) / max(sizes)
        for thing in (0.0, 34.0)
        for sizes in [[size_of_one_thing(rigged, place, thing) for place in (0.0, 34.0)]]
    ]
    assert table.crop(np.array([0.0, 10.0, 34.0])) == pytest.approx(max(crops), rel=1e-3)
    assert table.crop(np.array([4.0])) == 0


def test_spare_frames_are_where_the_ring_puts_them_and_cost_their_crop(pod, changed):
    """Six to either side of a shallow subject lie far off it: nothing of them is frozen at the table's end."""
    spared = changed(pod, {"/stack/spare_before": 6, "/stack/spare_after": 6, "/subject/depth_mm": 2.0})
    plan = plan_shot(spared)
    stack = next(way for way in plan.ways if way.id == "ring").stack
    rigged = build_rig(rig_asked(spared), Wording())
    focus = plan.focus_behind_nearest_mm
    for place, size in ((stack.first_mm, stack.magnifications[0]), (stack.last_mm, stack.magnifications[-1])):
        assert size == pytest.approx(exact(rigged, place, focus).magnification, rel=1e-4)
    sizes = [size_of_one_thing(rigged, place, 2.0, focus) for place in (stack.first_mm, stack.last_mm)]
    assert stack.crop == pytest.approx(1 - min(sizes) / max(sizes), rel=0.05)


def test_a_lens_that_does_not_breathe_is_not_followed_past_life_size(pod, changed):
    # 100 mm with a closest focus that leaves 100 mm: at 2x on tubes the plane hardly moves and then comes back.
    shot = changed(
        pod,
        {
            "/rig/0/gear/minimum_focus_distance_mm": 400.0,
            "tubes_mm": [36.0, 36.0, 36.0],
            "/framing": {"by": "magnification", "magnification": 1.8},
            "/subject/depth_mm": 2.0,
            "/rig/0/gear/barrel_mm": 60.0,
        },
    )
    _, table = table_of(shot)
    assert table is None
    ring = next(way for way in plan_shot(shot).ways if way.id == "ring")
    assert ring.frames == 0
    assert "use the rail" in ring.against[0]


def test_a_ring_that_ends_too_soon_says_by_how_much(pod, changed):
    near = changed(pod, {"/framing": {"by": "magnification", "magnification": 1.0}, "/focus_behind_nearest_mm": 10.0})
    _, table = table_of(near, focus=10.0)
    assert table.nearest == pytest.approx(10.0, abs=1e-6)
    ring = next(way for way in plan_shot(near).ways if way.id == "ring")
    assert "ends 10 mm behind the nearest point" in ring.against[0]


def test_a_tube_takes_the_far_end_away(pod, changed):
    far = changed(
        pod,
        {
            "tubes_mm": [36.0],
            "/framing": {"by": "magnification", "magnification": 0.37},
            "/subject/depth_mm": 200.0,
            "/focus_behind_nearest_mm": 150.0,
        },
    )
    ring = next(way for way in plan_shot(far).ways if way.id == "ring")
    assert "before the farthest point" in ring.against[0]


def test_a_stack_by_ring_works_as_its_first_frame_does(pod):
    """The f-number that is told is the one at the nearest point, where exposure is set."""
    ring = next(way for way in plan_shot(pod).ways if way.id == "ring")
    rigged, _ = table_of(pod)
    focus = plan_shot(pod).focus_behind_nearest_mm
    there = exact(rigged, 0.0, focus)
    assert ring.effective_f_number == pytest.approx(ring.f_number * there.f_number_factor, rel=1e-4)
    framed = rigged.imaging.f_number_factor
    assert there.f_number_factor > framed * 1.005  # nearer than the middle: longer extension
