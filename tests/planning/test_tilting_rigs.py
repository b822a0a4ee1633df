"""Any rig as one tilting lens: what it says without tilt must be what depth of field says."""

import math

import numpy as np
import pytest

from just_plane.core.defocus import View
from just_plane.core.frame import Frame
from just_plane.core.plane import tilt_for_plane
from just_plane.core.rig import Rig
from just_plane.planning.plan import plan_shot
from just_plane.planning.rig.rigging import build_rig, rig_asked
from just_plane.planning.setup.tilting import tilting_lens
from just_plane.planning.words.numbers import Wording

TUBE = {"gear": {"kind": "tube", "length_mm": 20.0}}
CONVERTER = {"gear": {"kind": "converter", "factor": 1.4, "thickness_mm": 20.0}}
CLOSE_UP = {"gear": {"kind": "close_up", "dioptres": 2.0}}


def rows(shot):
    lens = shot.rig[0].model_dump()
    return {
        "alone": [lens],
        "tube": [lens, TUBE],
        "converter": [lens, CONVERTER],
        "tube and converter": [lens, TUBE, CONVERTER],
        "close-up": [CLOSE_UP, lens],
        "close-up and tube": [CLOSE_UP, lens, TUBE],
    }


def built(shot, changed, row, magnification, **more):
    made = changed(
        shot,
        {
            "/rig": rows(shot)[row],
            "/framing": {"by": "magnification", "magnification": magnification},
            "/plane/points": [],
        }
        | more,
    )
    return made, build_rig(rig_asked(made), Wording())


SIZES = {
    "alone": 0.3,
    "tube": 0.4,
    "converter": 0.4,
    "tube and converter": 0.5,
    "close-up": 0.35,
    "close-up and tube": 0.5,
}


@pytest.mark.parametrize("row", SIZES)
@pytest.mark.parametrize("pupil", [0.7, 1.0, 1.4])
def test_without_tilt_it_blurs_as_depth_of_field_has_it(tray, changed, row, pupil):
    _, rigged = built(tray, changed, row, SIZES[row], **{"/rig": _with_pupil(rows(tray)[row], pupil)})
    lens, imaging = tilting_lens(rigged), rigged.imaging
    effective = float(imaging.effective_f_number(8.0))
    view = View(imaging.magnification, imaging.pupil_distance, 0.03, 1.0)
    for offset in (-0.4, 0.4):
        point = np.array([[0.0, 0.0, lens.distance + offset]])
        wedge = abs(float(lens.blur(lens.straight, point, effective)[0]))
        assert wedge == pytest.approx(float(view.blur_at(offset, effective)), rel=0.004)


def _with_pupil(row, pupil):
    return [
        {**placed, "gear": {**placed["gear"], "pupil_magnification": pupil}}
        if placed["gear"]["kind"] == "lens"
        else placed
        for placed in row
    ]


@pytest.mark.parametrize("row", SIZES)
def test_its_plane_of_focus_is_where_the_rig_focuses(tray, changed, row):
    _, rigged = built(tray, changed, row, SIZES[row])
    lens, imaging = tilting_lens(rigged), rigged.imaging
    assert lens.distance == pytest.approx(float(imaging.subject_to_first_lens), rel=1e-9)
    assert lens.magnification * lens.scale_behind == pytest.approx(float(imaging.magnification))
    point = np.array([[0.0, 0.0, lens.distance]])
    assert float(lens.blur(lens.straight, point, 8.0)[0]) == pytest.approx(0, abs=1e-9)


def test_a_converter_asks_for_the_tilt_of_the_smaller_picture(tray, changed):
    # The converter only enlarges: the lens in front works at m/k, and so does the tangent rule.
    _, rigged = built(tray, changed, "converter", 0.4)
    lens = tilting_lens(rigged)
    assert lens.magnification == pytest.approx(0.4 / 1.4, rel=1e-6)
    slope = 0.3
    wanted = tilt_for_plane(lens.focal_length, lens.distance, 0.0, slope)
    assert math.tan(wanted.tilt) == pytest.approx(slope * lens.magnification / (1 + lens.magnification), rel=0.01)


def test_a_tube_lets_a_lens_follow_less(tray, changed):
    alone, tube = (tilting_lens(built(tray, changed, row, 0.4)[1]) for row in ("alone", "tube"))
    assert tube.steepest == pytest.approx(alone.steepest, rel=0.02)
    larger = tilting_lens(built(tray, changed, "tube", 0.7)[1])
    assert larger.steepest < alone.steepest


def test_lenses_that_do_not_tilt_have_no_limit_to_reach(catalogue):
    for name in ("sugar", "praline", "cut"):
        rigged = build_rig(rig_asked(catalogue[name]), Wording())
        lens = tilting_lens(rigged)
        assert lens.limit == 0
        assert lens.pivot_behind_node is None
        assert lens.distance > 0


def test_behind_an_objective_things_keep_their_size_through_focus(catalogue):
    rigged = build_rig(rig_asked(catalogue["sugar"]), Wording())
    lens = tilting_lens(rigged)
    frame = Frame(36, 24, float(rigged.imaging.magnification), float(rigged.imaging.pupil_distance), lens.distance)
    near, far = (float(frame.scale_at(lens.distance + place)) for place in (-0.5, 0.5))
    assert near == pytest.approx(far, rel=1e-5)
    assert near == pytest.approx(1 / rigged.imaging.magnification, rel=1e-5)


def test_places_on_the_frame_come_back_from_the_subject():
    frame = Frame(36.0, 24.0, 0.25, 430.0, 450.0)
    for left, top, z in ((0.1, 0.9, 400.0), (0.5, 0.5, 450.0), (0.83, 0.02, 600.0)):
        x, y = frame.across_up(left, top, z)
        assert frame.place(x, y, z) == pytest.approx((left, top))
    assert frame.scale_at(450.0) * 0.25 == pytest.approx(1)


def test_what_lies_farther_stands_smaller():
    frame = Frame(36.0, 24.0, 0.25, 430.0, 450.0)
    sizes = [1 / frame.scale_at(z) for z in (400, 450, 500)]
    assert sizes == sorted(sizes, reverse=True)
    # From the entrance pupil: 430 mm before the plane of focus.
    assert sizes[0] / sizes[2] == pytest.approx(480 / 380)


@pytest.mark.parametrize("row", ["alone", "tube", "close-up", "converter", "close-up and tube"])
def test_the_ring_stands_where_its_mark_says_whatever_else_is_in_the_row(tray, changed, row):
    # A point on the axis in a plane square to the camera: what is sharp there is plain focusing.
    square = [
        {"id": f"p{i}", "from_left": left, "from_top": top, "depth": {"by": "rail", "readings_mm": [50.0]}}
        for i, (left, top) in enumerate([(0.5, 0.5), (0.2, 0.2), (0.8, 0.2), (0.2, 0.8)])
    ]
    shot, rigged = built(tray, changed, row, SIZES[row], **{"/plane/points": square})
    section = plan_shot(shot).plane
    mark, distance = section.points[0].expected_ring_mm, -section.lens_behind_nearest_mm
    lens = rigged.rig.lens
    settings = np.linspace(0.01, lens.closest_magnification, 4000)
    alone = Rig((lens.focused(settings),)).imaging().subject_to_sensor
    own = settings[int(np.argmin(np.abs(alone - mark)))]
    focused = rigged.rig.focused(float(own)).imaging()
    assert section.setting.tilt_deg == pytest.approx(0, abs=1e-6)
    assert focused.magnification == pytest.approx(SIZES[row], rel=2e-3)
    assert distance == pytest.approx(tilting_lens(rigged).distance, rel=1e-6)


def test_readings_of_the_ring_are_believed_with_a_tube_in_the_row(tray, changed):
    shot = changed(tray, {"/rig": rows(tray)["tube"], "/framing/frame_width_mm": 36 / SIZES["tube"]})
    section = plan_shot(shot).plane
    read = [
        {"point": p.id, "reading_mm": p.expected_ring_mm}
        for p in section.points
        if p.wanted == "sharp" and p.expected_ring_mm is not None
    ]
    assert len(read) >= 3
    back = {"by": "ring", "tilt_deg": section.setting.tilt_deg, "faces_deg": section.setting.faces_deg}
    told = plan_shot(changed(shot, {"/plane/read_back": {**back, "readings": read}})).plane.correction
    assert told.within
    # The ring nearer at the far points than expected: it tilts too little, or too much the other way.
    off = [{**each, "reading_mm": each["reading_mm"] * (1 + 0.004 * i)} for i, each in enumerate(read)]
    other = plan_shot(changed(shot, {"/plane/read_back": {**back, "readings": off}})).plane.correction
    assert abs(other.more_deg) > abs(told.more_deg)


def oblique(tray, changed, clicks, recedes=70.0):
    """A flat part that recedes beside the upright click, for a lens that stays on clicks only, or anywhere."""
    flat = {"by": "angle", "angle_deg": 25.0, "recedes_deg": recedes, "length_mm": 60.0, "width_mm": 40.0}
    gear = {**tray.rig[0].gear.model_dump(), "rotates": "clicks", "click_apart_deg": clicks}
    points = [{"id": "flat", "from_left": 0.5, "from_top": 0.5, "depth": flat}]
    return changed(tray, {"/rig/0/gear": gear, "/plane/points": points})


def test_a_mechanism_with_clicks_is_set_to_one(tray, changed):
    section = plan_shot(oblique(tray, changed, 30.0)).plane
    free = plan_shot(oblique(tray, changed, None)).plane
    assert not section.limited
    assert section.setting.rotation_deg == pytest.approx(30)
    assert free.setting.rotation_deg == pytest.approx(20)
    assert section.left_over_mm > free.left_over_mm + 0.1
    assert "30° clockwise, 1 click," in section.steps[1]
    assert "click" not in free.steps[1]


def test_how_sure_the_tilt_is_is_said_for_the_plane_of_the_points_only(tray, changed):
    clicks = changed(tray, {"/rig/0/gear/rotates": "clicks", "/rig/0/gear/click_apart_deg": 30.0})
    free, held = (plan_shot(shot).plane.setting for shot in (tray, clicks))
    assert free.tilt_uncertainty_deg > 0
    assert held.tilt_uncertainty_deg is None
    assert held.tilt_deg != pytest.approx(free.tilt_deg, abs=1e-3)


def test_what_the_clicks_cost_is_said_with_the_turn_that_saves_it(tray, changed):
    plan = plan_shot(oblique(tray, changed, 30.0))
    said = {each.code: each for each in plan.findings}["plane.between_clicks"]
    assert "10° beside the nearest click" in said.message
    # Turned about its axis as told, the camera sees the part recede along the click.
    assert "10° anticlockwise" in said.remedy
    turned = plan_shot(oblique(tray, changed, 30.0, recedes=60.0))
    assert turned.plane.left_over_mm == pytest.approx(0, abs=1e-3)
    assert "plane.between_clicks" not in {each.code for each in turned.findings}


def test_beyond_its_tilt_a_mechanism_with_clicks_still_stands_on_one(tray, changed):
    shot = changed(oblique(tray, changed, 30.0), {"/plane/points/0/depth/angle_deg": 65.0})
    section = plan_shot(shot).plane
    assert section.limited
    assert section.setting.rotation_deg % 30 == pytest.approx(0, abs=1e-6)
    assert section.setting.tilt_deg == pytest.approx(tray.rig[0].gear.tilt_deg, abs=0.05)


def test_readings_back_leave_the_click_alone(tray, changed):
    shot = oblique(tray, changed, 30.0)
    marks = [(0.3, 0.3, 46.0), (0.7, 0.3, 47.5), (0.3, 0.7, 55.0), (0.7, 0.7, 53.0)]
    points = [
        {"id": f"p{i}", "from_left": left, "from_top": top, "depth": {"by": "rail", "readings_mm": [mark]}}
        for i, (left, top, mark) in enumerate(marks)
    ]
    shot = changed(shot, {"/plane/points": points})
    section = plan_shot(shot).plane
    read = [{"point": p.id, "reading_mm": p.expected_rail_mm + 0.3 * i} for i, p in enumerate(section.points)]
    back = {"by": "rail", "tilt_deg": section.setting.tilt_deg, "faces_deg": section.setting.faces_deg}
    told = plan_shot(changed(shot, {"/plane/read_back": {**back, "readings": read}})).plane.correction
    assert told.set_faces_deg == pytest.approx(section.setting.faces_deg)
    assert abs(told.more_deg) > 0.05
    assert told.set_tilt_deg == pytest.approx(back["tilt_deg"] + told.more_deg)


def test_a_measured_size_moves_the_camera_and_hardly_the_tilt(tray, changed):
    base = plan_shot(tray).plane.setting
    measured = {"magnification": 0.252, "uncertainty": 0.001, "modelled": 0.24}
    told = plan_shot(changed(tray, {"/measured": measured})).plane.setting
    assert told.tilt_deg == pytest.approx(base.tilt_deg, abs=0.01)
    assert told.hinge_mm != pytest.approx(base.hinge_mm, abs=0.1)
    assert told.magnification == pytest.approx(base.magnification, rel=0.02)


def test_turned_round_a_tilting_lens_does_not_tilt(tray, changed):
    ring = {"gear": {"kind": "reversing_ring", "thread_mm": 77.0, "thickness_mm": 10.0}}
    lens = {**tray.rig[0].model_dump(), "reversed": True}
    shot = changed(tray, {"/rig": [lens, ring], "/framing": {"by": "closest"}})
    plan = plan_shot(shot)
    assert plan.plane is None or plan.plane.steepest_deg is None
