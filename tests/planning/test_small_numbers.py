"""Numbers that stand at the edge of a plan and are easily lost: each worked out by hand."""

import math

import numpy as np
import pytest

from just_plane.planning.plan import plan_shot


def way_of(plan, way_id):
    return next(way for way in plan.ways if way.id == way_id)


def test_a_focus_behind_the_lens_is_said_at_its_field(pod, changed):
    plan = plan_shot(changed(pod, {"/focus_behind_nearest_mm": 5000.0}))
    said = next(finding for finding in plan.findings if finding.code == "focus.behind_pupil")
    assert said.field == "/focus_behind_nearest_mm"
    assert plan.verdict.way is None
    # As far as it got: the size does not hang on the focus.
    assert plan.reach.magnification == pytest.approx(0.5)
    assert plan.ways == []


def test_farther_back_the_background_is_that_of_the_smaller_size(catalogue, changed):
    shot = changed(catalogue["ganache"], {"/subject/background_mm": 300.0})
    way = way_of(plan_shot(shot), "back_off")
    back = way.back_off
    behind = shot.subject.depth_mm + 300.0 - max(way.focuses_mm)
    u = back.entrance_pupil_mm
    blur = back.magnification**2 * u * behind / (way.effective_f_number * (u + behind))
    assert way.steady.background_um == pytest.approx(blur * 1000)
    # Of the cropped frame: the crop enlarges it.
    assert way.steady.background_share == pytest.approx(blur * back.factor / shot.body.sensor_width_mm)


@pytest.mark.parametrize(("thread", "dark"), [(1.02, False), (0.98, True)])
def test_corners_go_dark_where_the_thread_in_front_is_narrower_than_their_light(pod, changed, thread, dark):
    """The ray from the corner of the field to the entrance pupil, where it passes the close-up lens's thread."""
    shot = changed(pod, {"/framing": {"by": "magnification", "magnification": 0.3}})
    close_up = {"gear": {"kind": "close_up", "dioptres": 2.0, "thread_mm": 60.0, "thickness_mm": 6.0}}
    row = [close_up, *(placed.model_dump() for placed in shot.rig)]
    reach = plan_shot(changed(shot, {"/rig": row})).reach
    half_diagonal = math.hypot(36, 24) / 2 / reach.magnification
    to_front = reach.subject_to_sensor_mm - reach.lens_front_to_sensor_mm
    height = half_diagonal * (reach.entrance_pupil_mm - to_front) / reach.entrance_pupil_mm
    opening = 2 * (height * thread + 1.5)  # a rim of 1.5 mm stands round the glass
    narrow = {"gear": {**close_up["gear"], "thread_mm": opening}}
    plan = plan_shot(changed(shot, {"/rig": [narrow, *row[1:]], "/rig/1/gear/thread_mm": None}))
    assert ("corners.thread" in {finding.code for finding in plan.findings}) == dark


def test_the_side_view_is_as_high_as_the_frame_where_the_plane_recedes_upward(tray, changed):
    flat = {"by": "angle", "angle_deg": 20.0, "recedes_deg": 90.0, "length_mm": 40.0, "width_mm": 40.0}
    point = {"id": "flat", "from_left": 0.5, "from_top": 0.5, "depth": flat}
    upright = plan_shot(changed(tray, {"/plane/points": [point]}))
    m = upright.reach.magnification
    assert upright.plane.half_field_mm == pytest.approx(24 / 2 / m)
    aside = plan_shot(changed(tray, {"/plane/points": [{**point, "depth": {**flat, "recedes_deg": 0.0}}]}))
    assert aside.plane.half_field_mm == pytest.approx(36 / 2 / m)


@pytest.mark.parametrize("times", [2, 3, 5])
def test_reading_a_point_again_makes_it_surer_by_the_root(tray, changed, times):
    readings = [50.0 + 0.2 * (-1) ** index for index in range(times)]
    points = [
        {"id": f"p{i}", "from_left": left, "from_top": 0.5, "depth": {"by": "rail", "readings_mm": readings}}
        for i, left in enumerate((0.2, 0.8))
    ]
    section = plan_shot(changed(tray, {"/plane/points": points})).plane
    spread = np.std(readings, ddof=1)
    assert section.points[0].uncertainty_mm == pytest.approx(spread / math.sqrt(times))
