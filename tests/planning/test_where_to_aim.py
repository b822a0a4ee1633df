"""Where to aim one frame, backing off by a factor of one's own, a flat thing by its angle: by hand and brute force."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.aim import aim_at, presses_that_hold
from just_plane.planning.plan import plan_shot


def test_the_eye_alone_has_the_whole_depth_as_slack():
    aim = aim_at([3.0], 0.4, 0.6)
    # Held from 0.6 before it (it lies at the far end) to 0.4 behind it.
    assert (aim.place, aim.slack) == pytest.approx((2.9, 0.5))


def test_what_matters_more_is_never_given_up_for_several_that_matter_less():
    # Depth 1: the eye at 0 and the tail at 0.9 go together; 1.2, 1.3 and 1.4 would go with the tail.
    aim = aim_at([0.0, 0.9, 1.2, 1.3, 1.4], 0.5, 0.5)
    assert aim.held == (0, 1)
    assert aim.place == pytest.approx(0.45)
    assert aim.slack == pytest.approx(0.05)


def test_an_endless_far_limit_holds_all_behind():
    aim = aim_at([5.0, 100.0, 3.0], 1.0, math.inf)
    assert aim.held == (0, 1, 2)
    assert math.isfinite(aim.place)


@given(st.lists(st.floats(-20, 20), min_size=1, max_size=8), st.floats(0.01, 5), st.floats(0.01, 5))
def test_what_is_held_is_held_all_over_the_slack_and_no_more_of_the_list_could_be(depths, near, far):
    aim = aim_at(depths, near, far)
    assert 0 in aim.held

    def holds(focus):
        return {i for i, z in enumerate(depths) if focus - near - 1e-9 <= z <= focus + far + 1e-9}

    for focus in (aim.place - aim.slack, aim.place, aim.place + aim.slack):
        assert set(aim.held) <= holds(focus)
    # By trying: no focus holds the same beginning of the list and one more of it.
    for tried in np.concatenate([np.array(depths) + near, np.array(depths) - far]):
        better = holds(float(tried))
        first_missed = next((i for i in range(len(depths)) if i not in aim.held), None)
        if first_missed is not None:
            needed = {i for i in aim.held if i < first_missed} | {first_missed}
            # Within rounding of the edge either answer is right.
            edge = min(abs(float(tried) - z - near) for z in depths) < 1e-7
            assert (
                not needed <= better
                or edge
                or aim.slack < 1e-7
                or min(abs(depths[first_missed] - z) for z in depths) < 1e-7
                or _tight(depths, needed, near, far)
            )


def _tight(depths, needed, near, far):
    chosen = [depths[i] for i in needed]
    return max(chosen) - min(chosen) > (near + far) * (1 - 1e-7)


def test_presses_within_one_standard_deviation():
    assert presses_that_hold(0.4, 0.4) == pytest.approx(0.6827, abs=1e-4)


def test_the_first_point_of_the_list_comes_first_in_words(tray, changed):
    hand = changed(tray, {"/steadiness/held": "hand", "/aperture/f_number": 4.0})
    aim = plan_shot(hand).aim
    assert aim.first == tray.plane.points[0].name == aim.held[0]
    assert aim.missed
    assert tray.plane.points[0].name in aim.words[0]
    assert "Of your presses about" in aim.words[0]
    assert "turn the camera" in aim.words[1]
    # What is said to be held is sharp with the focus there, by the plan's own single frame.
    there = plan_shot(changed(hand, {"/focus_behind_nearest_mm": aim.behind_nearest_mm}))
    way = next(way for way in there.ways if way.id == "one")
    assert way.points_held == len(aim.held)


def test_a_point_put_first_is_held_whatever_it_costs(tray, changed):
    points = [point.model_dump() for point in tray.plane.points if point.wanted == "sharp"]
    last = points[-1:] + points[:-1]
    aim = plan_shot(changed(tray, {"/plane/points": last, "/aperture/f_number": 4.0})).aim
    assert aim.first == points[-1]["name"]


def test_no_points_no_aim(pod):
    assert plan_shot(pod).aim is None


def back_off(plan):
    return next(way for way in plan.ways if way.id == "back_off")


def test_back_off_by_a_factor_of_ones_own(pod, changed):
    way = back_off(plan_shot(changed(pod, {"/back_off_factor": 2.0})))
    answer = way.back_off
    assert answer.factor == pytest.approx(2.0)
    assert answer.magnification == pytest.approx(0.25)
    assert answer.pixels_across == 8256 // 2
    assert answer.room_gained_mm > 0
    assert way.cover < 1
    assert "misses" in way.note
    # As deep as stopping down to the equal stop from here, to what the nearer pupil changes.
    stopped = plan_shot(changed(pod, {"/aperture/f_number": answer.equal_f_number}))
    here = next(way for way in stopped.ways if way.id == "one")
    depth = [each.bands_mm[0][1] - each.bands_mm[0][0] for each in (here, way)]
    assert depth[1] == pytest.approx(depth[0], rel=0.02)


def test_a_factor_within_reach_is_never_refused(pod, changed):
    # 0.5 times over 3 is well within a macro's range, 0.5 times 3 would not be.
    assert back_off(plan_shot(changed(pod, {"/back_off_factor": 3.0}))).back_off.magnification == pytest.approx(0.5 / 3)


def test_a_factor_that_the_rig_does_not_reach_says_what_it_does(changed, pod):
    tubes = changed(pod, {"/rig": [pod.rig[0].model_dump(), _tube()], "/back_off_factor": 8.0})
    way = back_off(plan_shot(tubes))
    if way.frames == 0:
        assert "this rig gives" in way.against[0]
    else:
        # Without what only brings it nearer it can.
        assert way.back_off.without


def _tube():
    return {"gear": {"kind": "tube", "length_mm": 36.0}}


def test_a_flat_thing_by_its_angle_is_as_deep_as_the_sine_says(pod, changed):
    flat = {
        "id": "flat", "wanted": "sharp", "from_left": 0.5, "from_top": 0.5,
        "depth": {"by": "angle", "angle_deg": 45.0, "recedes_deg": 90.0, "length_mm": 120.0, "width_mm": 40.0},
    }  # fmt: skip
    plan = plan_shot(changed(pod, {"/plane/points": [flat], "/framing": {"by": "frame_width", "frame_width_mm": 160}}))
    assert plan.depth_mm == pytest.approx(120 * math.sin(math.radians(45)))
    assert plan.depth_from_points
    assert plan.plane.angle_deg == pytest.approx(45, abs=0.5)
