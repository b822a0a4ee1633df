"""The plane section: from readings to the setting, in the planner's words."""

import math

import numpy as np
import pytest

from just_plane.core.plane import fit_plane, tilt_for_plane
from just_plane.core.plane.tilting_lens import UP, TiltingLens, lay_plane
from just_plane.planning.plan import plan_shot
from just_plane.planning.plane.maps import blur_maps
from just_plane.planning.plane.words import direction, rotation


def findings(plan):
    return {finding.code: finding for finding in plan.findings}


def way(plan, way_id):
    return next(each for each in plan.ways if each.id == way_id)


def points_moved(shot, changed, move):
    """The shot with every rail reading changed by a function of the reading."""
    points = [point.model_dump() for point in shot.plane.points]
    for point in points:
        point["depth"]["readings_mm"] = [move(reading) for reading in point["depth"]["readings_mm"]]
    return changed(shot, {"/plane/points": points})


def kept(shot, changed, names):
    points = [point.model_dump() for point in shot.plane.points if point.id in names]
    return changed(shot, {"/plane/points": points})


def test_the_tray_is_held_by_one_tilted_frame(tray):
    plan = plan_shot(tray)
    assert plan.verdict.way == "tilt"
    assert way(plan, "tilt").points_held == 6
    assert way(plan, "one").points_held < 6
    assert plan.depth_from_points
    assert plan.depth_mm == pytest.approx(95.9 - 44.3)


def test_the_setting_is_the_cores_own_for_the_same_points(tray):
    section = plan_shot(tray).plane
    lens_to_nearest = -section.lens_behind_nearest_mm
    points = np.array([
        (point.x_mm, point.y_mm, point.behind_nearest_mm + lens_to_nearest)
        for point in section.points if point.wanted == "sharp"
    ])  # fmt: skip
    fit = fit_plane(points)
    wanted = tilt_for_plane(plan_shot(tray).reach.focal_length_now_mm, *fit[:3])
    assert section.setting.tilt_deg == pytest.approx(math.degrees(wanted.tilt), rel=1e-6)
    assert section.largest_deviation_mm == pytest.approx(fit.largest_deviation)
    assert sum(point.carries for point in section.points) >= 4


def test_every_point_knows_its_blur_and_slack(tray):
    section = plan_shot(tray).plane
    for point in section.points:
        assert (point.slack_mm >= 0) == (point.wanted == "sharp")
        assert point.fine
        assert abs(point.off_plane_mm) <= section.largest_deviation_mm + 1e-6 or point.wanted == "soft"


def test_the_covering_stop_just_covers(tray, changed):
    wide = plan_shot(changed(tray, {"/sharp/school": "pixel", "/sharp/pixel_factor": 1.2}))
    cover = wide.plane.covering_f_number
    strict = {"/sharp/school": "pixel", "/sharp/pixel_factor": 1.2}
    assert way(plan_shot(changed(tray, strict | {"/aperture/f_number": cover})), "tilt").cover == 1


def test_readings_count_from_anywhere_and_either_way(tray, changed):
    base = plan_shot(tray).plane.setting
    moved = plan_shot(points_moved(tray, changed, lambda mark: mark + 500)).plane.setting
    turned = plan_shot(changed(points_moved(tray, changed, lambda mark: 200 - mark), {"/plane/rail_counts": "away"}))
    assert moved.tilt_deg == pytest.approx(base.tilt_deg)
    assert turned.plane.setting.tilt_deg == pytest.approx(base.tilt_deg)
    wrong = plan_shot(points_moved(tray, changed, lambda mark: 200 - mark)).plane.setting
    assert wrong.faces == "straight up"


def test_tape_gives_what_the_rail_gives(tray, changed):
    points = [point.model_dump() for point in tray.plane.points]
    for point in points:
        mean = sum(point["depth"]["readings_mm"]) / len(point["depth"]["readings_mm"])
        point["depth"] = {"by": "tape", "readings_mm": [500 + mean]}
    by_tape = plan_shot(changed(tray, {"/plane/points": points})).plane
    assert by_tape.setting.tilt_deg == pytest.approx(plan_shot(tray).plane.setting.tilt_deg)
    assert by_tape.checks[0].rail_mm is None


def test_tape_and_rail_mix_when_they_are_tied(tray, changed):
    plan = plan_shot(tray)
    stands = 60.0
    points = [point.model_dump() for point in tray.plane.points]
    mark = sum(points[0]["depth"]["readings_mm"]) / 2
    points[0]["depth"] = {"by": "tape", "readings_mm": [plan.reach.subject_to_sensor_mm + mark - stands]}
    loose = plan_shot(changed(tray, {"/plane/points": points}))
    assert findings(loose)["points.not_tied"].field == "/plane/rail_at_mm"
    tied = plan_shot(changed(tray, {"/plane/points": points, "/plane/rail_at_mm": stands}))
    assert tied.plane.setting.tilt_deg == pytest.approx(plan.plane.setting.tilt_deg)


def test_a_flat_subject_is_told_by_its_angle(catalogue):
    section = plan_shot(catalogue["foil"]).plane
    assert section.angle_deg == pytest.approx(7.0)
    assert section.setting.faces == "straight left"
    assert section.setting.rotation_deg == pytest.approx(90)
    m = 36 / 96
    slope = math.tan(math.radians(7))
    assert math.tan(math.radians(section.setting.size_held_tilt_deg)) == pytest.approx(slope * m / (1 + m), rel=2e-3)


def test_repeated_readings_carry_an_uncertainty_into_the_answer(tray, changed):
    sure = plan_shot(tray).plane.setting
    assert 0 < sure.tilt_uncertainty_deg < 0.2
    once = [point.model_dump() for point in tray.plane.points]
    for point in once:
        point["depth"]["readings_mm"] = point["depth"]["readings_mm"][:1]
    assert plan_shot(changed(tray, {"/plane/points": once})).plane.setting.tilt_uncertainty_deg is None
    rough = points_moved(tray, changed, lambda mark: mark)
    points = [point.model_dump() for point in rough.plane.points]
    for point in points:
        mean = sum(point["depth"]["readings_mm"]) / len(point["depth"]["readings_mm"])
        point["depth"]["readings_mm"] = [mean - 0.5, mean + 0.5]
    rough = plan_shot(changed(tray, {"/plane/points": points})).plane.setting
    assert rough.tilt_uncertainty_deg > sure.tilt_uncertainty_deg * 2


def test_readings_that_contradict_each_other_are_named(tray, changed):
    points = [point.model_dump() for point in tray.plane.points]
    points[1]["depth"]["readings_mm"] = [44.2, 54.4, 44.3]
    said = findings(plan_shot(changed(tray, {"/plane/points": points})))["points.contradict"]
    assert "front row, right" in said.message
    assert "44.2 and 54.4" in said.message
    assert said.field == "/plane/points/1/depth/readings_mm"


def test_three_readings_of_one_point_show_the_odd_one(tray, changed):
    points = [point.model_dump() for point in tray.plane.points]
    for point in points:
        point["depth"]["readings_mm"] = point["depth"]["readings_mm"][:1]
    points[4]["depth"]["readings_mm"] = [79.8, 79.9, 97.9]
    said = findings(plan_shot(changed(tray, {"/plane/points": points})))["points.contradict"]
    assert "back row, right" in said.message


def test_two_points_at_one_place_are_named(tray, changed):
    points = [point.model_dump() for point in tray.plane.points]
    points[1] |= {"from_left": 0.1, "from_top": 0.743}
    points[1]["depth"]["readings_mm"] = [60.0]
    said = findings(plan_shot(changed(tray, {"/plane/points": points})))["points.same_place"]
    assert "front row, left" in said.message
    assert "front row, right" in said.message


def test_one_point_waits_for_more(tray, changed):
    plan = plan_shot(kept(tray, changed, ["centre"]))
    assert "1 more is" in findings(plan)["points.too_few"].message
    assert plan.plane.setting is None
    assert way(plan, "tilt").against


def upright(tray, *places):
    """Points one above the other in the middle of the frame: (share from top, mark of the rail) each."""
    return [
        tray.plane.points[2].model_dump()
        | {"id": f"p{i}", "from_left": 0.5, "from_top": top, "depth": {"by": "rail", "readings_mm": [mark]}}
        for i, (top, mark) in enumerate(places)
    ]


def test_two_points_give_the_plane_along_them_and_it_is_square_across(tray, changed):
    plan = plan_shot(changed(tray, {"/plane/points": upright(tray, (0.9, 50.0), (0.1, 60.0))}))
    reach, section = plan.reach, plan.plane
    # The camera focuses 10 mm of depth best from the middle; the frame grows with the distance from the pupil.
    near = reach.entrance_pupil_mm - plan.focus_behind_nearest_mm
    high = 0.4 * reach.frame_height_mm * (near + (near + 10)) / reach.entrance_pupil_mm
    assert section.angle_deg == pytest.approx(math.degrees(math.atan(10 / high)), rel=1e-3)
    assert section.azimuth_deg == pytest.approx(90, abs=0.01)
    assert section.across_assumed
    assert "square to the camera" in findings(plan)["points.across_assumed"].message
    assert section.setting.tilt_uncertainty_deg is None
    assert way(plan, "tilt").points_held == 2


def test_a_third_point_square_across_changes_nothing_and_says_so_no_more(tray, changed):
    two = upright(tray, (0.9, 50.0), (0.1, 60.0))
    beside = two[0] | {"id": "beside", "from_left": 0.8}
    one, other = (plan_shot(changed(tray, {"/plane/points": points})) for points in (two, [*two, beside]))
    assert other.plane.setting.tilt_deg == pytest.approx(one.plane.setting.tilt_deg, abs=1e-6)
    assert "points.across_assumed" not in findings(other)


def test_three_in_a_line_that_bends_share_the_bend(tray, changed):
    plan = plan_shot(changed(tray, {"/plane/points": upright(tray, (0.9, 50.0), (0.5, 56.0), (0.1, 60.0))}))
    # Straight from end to end it would pass the middle a little before 5 mm, the far end standing wider of the axis;
    # what the middle point is behind that is shared between it and the ends.
    near = plan.reach.entrance_pupil_mm - plan.focus_behind_nearest_mm
    straight = 10 * near / (near + near + 10)
    assert plan.plane.largest_deviation_mm == pytest.approx((6 - straight) / 2, rel=1e-3)
    assert plan.plane.across_assumed


def test_two_points_at_one_place_say_nothing(tray, changed):
    plan = plan_shot(changed(tray, {"/plane/points": upright(tray, (0.5, 50.0), (0.5, 50.0))}))
    assert "one place" in findings(plan)["points.one_place"].message
    assert plan.plane.setting is None


def test_points_at_one_depth_need_no_tilt(tray, changed):
    plan = plan_shot(points_moved(tray, changed, lambda mark: 50.0))
    assert "points.one_depth" in findings(plan)
    assert plan.plane.setting.tilt_deg == pytest.approx(0, abs=1e-6)


def test_a_slope_past_eighty_degrees_is_refused(catalogue, changed):
    plan = plan_shot(changed(catalogue["foil"], {"/plane/points/0/depth/angle_deg": 84.0}))
    said = findings(plan)["slope.too_steep"]
    assert "84° from square" in said.message
    assert "Turn the camera" in said.remedy
    assert plan.plane.setting is None


def test_a_plane_through_the_lens_is_refused():
    lens = TiltingLens(90.0, 450.0, 0.25, 1.0, math.radians(10), UP, turns=True, click=None, pivot_behind_node=None)
    through = np.array([(x, y, 4.0 * x - 5.0) for x in (60.0, 110.0) for y in (-20.0, 20.0)])
    laid = lay_plane(lens, through)
    assert laid.asked is None
    assert laid.limited
    assert laid.why_not.code == "z0.not_positive"
    assert laid.fit.largest_deviation > 1


def test_a_lens_without_tilt_says_what_the_plane_asks_for(tray, changed):
    plan = plan_shot(changed(tray, {"/rig/0/gear/tilt_deg": 0.0}))
    said = way(plan, "tilt").against[0]
    assert said.startswith("this lens does not tilt; the plane asks for 8.2")
    assert plan.plane.steepest_deg is None
    assert plan.plane.turn.angle_deg == pytest.approx(36, abs=0.5)
    assert plan.verdict.way == "one_best"


def test_a_lens_with_too_little_tilt_does_its_best_and_names_the_turn(tray, changed):
    plan = plan_shot(changed(tray, {"/rig/0/gear/tilt_deg": 5.0}))
    section = plan.plane
    assert section.limited
    assert section.setting.tilt_deg == pytest.approx(5, abs=0.01)
    assert section.left_over_mm > section.largest_deviation_mm
    reach = math.degrees(math.atan(section.laid.slope))
    # The slope stays limited while the camera turns: what is left is the rest, to what the points' bulge shifts.
    assert section.turn_rest.angle_deg == pytest.approx(section.angle_deg - reach, abs=0.6)
    assert section.turn_rest.left_over_mm == pytest.approx(section.largest_deviation_mm, abs=0.3)
    assert "left over" in findings(plan)["plane.beyond_limit"].message
    rail, ring = way(plan, "tilt_rail"), way(plan, "tilt_ring")
    assert 1 < rail.frames < way(plan, "rail").frames
    assert ring.frames > 1
    assert rail.points_held == ring.points_held == 6


def test_a_mechanism_that_does_not_turn_says_so(catalogue, changed):
    plan = plan_shot(changed(catalogue["foil"], {"/rig/0/gear/rotates": "no"}))
    said = findings(plan)["plane.no_rotation"]
    assert "does not turn" in said.message
    assert plan.plane.setting.tilt_deg == pytest.approx(0, abs=1e-6)
    # The foil recedes sideways: on its side the mechanism leans that way, and that costs least.
    assert said.remedy.startswith("Turn the camera on its side: tilted ")
    on_its_side = plan_shot(changed(catalogue["foil"], {"/rig/0/gear/rotates": "no", "/camera_on_its_side": True}))
    assert "plane.no_rotation" not in findings(on_its_side)


def test_the_reachable_angle_is_always_in_view(tray, changed):
    section = plan_shot(changed(tray, {"/plane/points": []})).plane
    m = 36 / 150
    assert section.steepest_deg == pytest.approx(
        math.degrees(math.atan(math.tan(math.radians(10)) * (1 + m) / m)), rel=1e-3
    )
    assert plan_shot(tray).plane.steepest_deg == pytest.approx(section.steepest_deg)


def test_a_known_pivot_tells_how_far_the_picture_moves(tray, changed):
    setting = plan_shot(changed(tray, {"/rig/0/gear/pivot_behind_node_mm": 22.0})).plane.setting
    moved = 22 * math.sin(math.radians(setting.tilt_deg)) * (1 + setting.magnification)
    assert abs(setting.picture_moves_mm) == pytest.approx(moved, rel=1e-6)
    assert plan_shot(tray).plane.setting.picture_moves_mm is None


def test_a_small_image_circle_goes_dark_and_counts_against_the_way(tray, changed):
    plan = plan_shot(changed(tray, {"/rig/0/gear/image_circle_mm": 44.0}))
    assert plan.plane.circle.inside is False
    assert "corner" in findings(plan)["plane.out_of_circle"].message
    assert any("image circle" in reason for reason in way(plan, "tilt").against)
    unknown = plan_shot(changed(tray, {"/rig/0/gear/image_circle_mm": None})).plane.circle
    assert unknown.inside is None


def test_after_tilting_every_point_has_its_mark(tray):
    section = plan_shot(tray).plane
    marks = {check.point: check.rail_mm for check in section.checks}
    assert section.checks[0].name.startswith("front")
    assert section.checks[1].point == "rim"
    # On the plane all come sharp at one mark, the deviations apart.
    assert max(marks.values()) - min(marks.values()) == pytest.approx(2 * section.largest_deviation_mm, rel=1e-6)


def test_the_steps_say_where_the_rail_stands_for_focusing_and_for_the_picture(tray, changed):
    section = plan_shot(tray).plane
    first = section.checks[0]
    assert f"Set the rail to {first.rail_mm:.2f} mm and focus again on {first.name}." in section.steps
    # Moved from the one mark to the other the first point leaves the plane by as much as it lies off it.
    picture = next(step for step in section.last_steps if "for the picture" in step)
    stands = float(picture.split(" to ")[1].split(" mm")[0])
    point = next(each for each in section.points if each.id == first.point)
    assert first.rail_mm - stands == pytest.approx(point.off_plane_mm, abs=0.006)
    taped = [{**each, "depth": {"by": "tape", "readings_mm": [500.0 + 10 * i]}}
             for i, each in enumerate(tray.model_dump()["plane"]["points"])]  # fmt: skip
    by_tape = plan_shot(changed(tray, {"/plane/points": taped})).plane
    assert not any("rail" in step for step in [*by_tape.steps, *by_tape.last_steps])


def marks_of(plan):
    return {way.id: way.stack.first_rail_mm for way in plan.ways if way.stack}


@pytest.mark.parametrize("counts", ["toward", "away"])
def test_a_stack_by_rail_begins_where_its_first_frame_is_sharp(tray, changed, counts):
    sign = 1 if counts == "toward" else -1
    points = tray.model_dump()["plane"]["points"]
    for point in points:
        point["depth"]["readings_mm"] = [sign * mark for mark in point["depth"]["readings_mm"]]
    plan = plan_shot(changed(tray, {"/plane/points": points, "/plane/rail_counts": counts}))
    nearest = next(point for point in points if point["id"] == "front-right")["depth"]["readings_mm"]
    stack = way(plan, "rail").stack
    # A frame focused on the nearest point is taken where that was read; the first lies before it.
    assert marks_of(plan)["rail"] == pytest.approx(sum(nearest) / len(nearest) + sign * stack.first_mm, abs=1e-6)
    assert marks_of(plan)["ring"] is None


def test_tilt_and_stack_begins_at_the_mark_of_its_first_place(tray, changed):
    points = tray.model_dump()["plane"]["points"]
    points[2]["depth"]["readings_mm"] = [72.0]
    plan = plan_shot(changed(tray, {"/plane/points": points, "/aperture/f_number": 2.8}))
    stack = way(plan, "tilt_rail").stack
    stands = float(plan.plane.last_steps[0].split(" to ")[1].split(" mm")[0])
    on_axis = plan.plane.laid.at_axis_mm
    assert marks_of(plan)["tilt_rail"] - stands == pytest.approx(stack.first_mm - on_axis, abs=0.006)


def test_depths_by_tape_give_no_marks(pod):
    assert marks_of(plan_shot(pod))["rail"] is None


def scattered(tray, changed, by):
    """Every reading taken twice, so far apart about its mean."""
    points = tray.model_dump()["plane"]["points"]
    for point in points:
        middle = sum(point["depth"]["readings_mm"]) / len(point["depth"]["readings_mm"])
        point["depth"]["readings_mm"] = [middle - by / 2, middle + by / 2]
    return changed(tray, {"/plane/points": points, "/aperture/f_number": 2.8})


def test_a_slack_that_the_readings_do_not_bear_out_is_doubted(tray, changed):
    sure, unsure = (plan_shot(scattered(tray, changed, by)) for by in (0.05, 1.5))
    assert "points.slack_unsure" not in findings(sure)
    said = findings(unsure)["points.slack_unsure"]
    assert "to spare, and the readings leave ±" in said.message
    doubted = unsure.plane.points[int(said.field.rsplit("/", 1)[1])]
    assert 0 <= doubted.slack_mm < 2 * doubted.slack_uncertainty_mm
    assert doubted.slack_mm == pytest.approx(
        min(point.slack_mm for point in unsure.plane.points if point.wanted == "sharp"), abs=0.5
    )
    for one, other in zip(sure.plane.points, unsure.plane.points, strict=True):
        if one.wanted == "sharp":
            assert other.slack_uncertainty_mm == pytest.approx(30 * one.slack_uncertainty_mm, rel=1e-6)


def test_points_read_once_are_neither_sure_nor_doubted(tray, changed):
    points = tray.model_dump()["plane"]["points"]
    for point in points:
        point["depth"]["readings_mm"] = point["depth"]["readings_mm"][:1]
    plan = plan_shot(changed(tray, {"/plane/points": points, "/aperture/f_number": 2.8}))
    assert all(point.slack_uncertainty_mm is None for point in plan.plane.points)
    assert "points.slack_unsure" not in findings(plan)


def read_back(shot, changed, extra_slope, by="rail"):
    """The shot with readings as a lens that tilts too much would give them: the far ones early."""
    section = plan_shot(shot).plane
    readings = [
        {"point": point.id, "reading_mm": point.expected_rail_mm - extra_slope * point.across_mm}
        for point in section.points if point.wanted == "sharp"
    ]  # fmt: skip
    back = {
        "by": by,
        "tilt_deg": section.setting.tilt_deg,
        "faces_deg": section.setting.faces_deg,
        "readings": readings,
    }
    return changed(shot, {"/plane/read_back": back})


def test_readings_as_expected_need_nothing_more(tray, changed):
    correction = plan_shot(read_back(tray, changed, 0.0)).plane.correction
    assert correction.within
    assert correction.more_deg == pytest.approx(0, abs=0.02)


def test_the_far_ones_early_mean_less_tilt(tray, changed):
    correction = plan_shot(read_back(tray, changed, 0.1)).plane.correction
    assert correction.more_deg < -0.5
    assert "less" in correction.words
    late = plan_shot(read_back(tray, changed, -0.1)).plane.correction
    assert late.more_deg > 0.5


@pytest.mark.parametrize(("extra", "f_number", "within", "said"), [
    (0.0, 8.0, True, "as near as the scale tells. Leave it"),
    (0.02, 8.0, True, "every point still lies within its slack"),
    (0.3, 8.0, False, "then focus and read again"),
    (0.02, 2.8, False, "then focus and read again"),
    (0.0, 2.8, True, "as near as the scale tells"),
])  # fmt: skip
def test_what_was_read_is_weighed_by_what_the_points_may_take(tray, changed, extra, f_number, within, said):
    # The same error of the tilt is nothing stopped down and too much wide open.
    shot = changed(read_back(tray, changed, extra), {"/aperture/f_number": f_number})
    correction = plan_shot(shot).plane.correction
    assert correction.within is within
    assert said in correction.words


def test_one_reading_back_says_nothing(tray, changed):
    shot = changed(read_back(tray, changed, 0.1), {})
    back = shot.plane.read_back.model_dump()
    back["readings"] = back["readings"][:1]
    plan = plan_shot(changed(shot, {"/plane/read_back": back}))
    assert plan.plane.correction is None
    assert "read_back.too_few" in findings(plan)


def test_ring_readings_off_the_scale_are_said(tray, changed):
    plan = plan_shot(read_back(tray, changed, 0.0, by="ring"))
    assert "read_back.no_ring_scale" in findings(plan)


def test_ring_readings_as_expected_need_nothing_more(tray, changed):
    section = plan_shot(tray).plane
    readings = [{"point": p.id, "reading_mm": p.expected_ring_mm} for p in section.points if p.wanted == "sharp"]
    set_to = {"tilt_deg": section.setting.tilt_deg, "faces_deg": section.setting.faces_deg}
    back = {"by": "ring", **set_to, "readings": readings}
    correction = plan_shot(changed(tray, {"/plane/read_back": back})).plane.correction
    assert correction.within
    assert correction.more_deg == pytest.approx(0, abs=0.05)


def test_the_foil_is_squared_shifted_and_joined(catalogue):
    section = plan_shot(catalogue["foil"]).plane
    assert section.shift.up_mm == pytest.approx(18 * 36 / 96)
    assert section.join.frames == 2
    assert section.join.pixels_wide == pytest.approx(8256 * 126 / 96, abs=1)
    assert section.turn.angle_deg == pytest.approx(7, abs=1e-6)
    assert section.turn.toward == "straight right"


def test_more_shift_than_the_lens_has_is_said(catalogue, changed):
    plan = plan_shot(changed(catalogue["foil"], {"/plane/shift/up_mm": 50.0}))
    assert not plan.plane.shift.possible
    assert "the lens has 12 mm" in findings(plan)["shift.beyond"].message
    wide = plan_shot(changed(catalogue["foil"], {"/plane/shift/joined_mm": 400.0}))
    assert findings(wide)["shift.beyond"].field == "/plane/shift/joined_mm"
    assert wide.plane.join is None


def test_the_strip_goes_against_the_slope(tray, changed):
    shot = changed(tray, {"/plane/strip": {"first": "back-left", "second": "back-right", "tilt_deg": None}})
    plan = plan_shot(shot)
    strip = plan.plane.strip
    assert strip.tilt_deg == pytest.approx(10)
    assert strip.faces.startswith(("up", "straight up"))
    assert 0 < strip.width_mm < 20
    narrow = way(plan, "strip")
    assert narrow.points_held < 6
    assert not narrow.recommended
    assert {found.way for found in blur_maps(shot).maps} == {"one", "one_best", "tilt", "strip"}


@pytest.mark.parametrize("strip", [{"first": "rim", "second": "rim"}, {"first": "rim", "second": "gone"}])
def test_a_strip_through_nothing_is_said(tray, changed, strip):
    plan = plan_shot(changed(tray, {"/plane/strip": strip | {"tilt_deg": None}}))
    assert plan.plane.strip is None
    assert "two points" in findings(plan)["strip.none"].message


def test_every_single_frame_has_its_own_map(tray):
    plan = plan_shot(tray)
    maps = {found.way: np.array(found.percent) for found in blur_maps(tray).maps}
    assert set(maps) == {"one", "one_best", "tilt"}  # the narrowest stop has nothing left to allow
    # Stopped down to where one frame just holds all of it, nothing that must be sharp blurs past what may.
    asked = [p for p in plan.plane.points if p.wanted == "sharp"]
    for point in asked:
        cell = int(point.from_top * 24) * 36 + int(point.from_left * 36)
        assert abs(maps["one_best"][cell]) <= 110
    assert max(abs(maps["one"][int(p.from_top * 24) * 36 + int(p.from_left * 36)]) for p in asked) > 150


def test_where_the_plane_cuts_the_map_changes_sign(tray):
    maps = {found.way: np.array(found.percent).reshape(found.rows, found.columns) for found in blur_maps(tray).maps}
    assert (maps["one"][0] > 100).all()  # behind the focus at the top
    assert (maps["one"][-1] < -100).all()
    assert np.abs(maps["tilt"][8:-2]).max() <= 100
    assert maps["tilt"][0, 28] > 100  # the card behind, that should stay soft


@pytest.mark.parametrize(
    ("degrees", "words"),
    [(0, "straight right"), (-90, "straight down"), (90.4, "straight up"), (-104, "down, 14° toward the left"),
     (-76, "down, 14° toward the right"), (100, "up, 10° toward the left"), (170, "left, 10° toward up"),
     (540, "straight left")],
)  # fmt: skip
def test_directions_in_words(degrees, words):
    assert direction(degrees) == words


@pytest.mark.parametrize(("faces", "turn"), [(-90, 0), (90, 0), (0, -90), (180, 90), (-104, 14), (-76, -14), (76, 14)])
def test_rotation_of_the_mechanism_from_behind(faces, turn):
    assert abs(rotation(faces)) == pytest.approx(abs(turn))
    if abs(turn) not in (0, 90):
        assert math.copysign(1, rotation(faces)) == math.copysign(1, turn)
