"""Turn, shift, join, strip and image circle, in the planner's numbers."""

import math

import pytest

from just_plane.planning.plan import plan_shot
from just_plane.planning.setup.setup import make_setup


def section(shot):
    return plan_shot(shot).plane


def said(shot):
    return {finding.code: finding for finding in plan_shot(shot).findings}


def test_turned_square_the_camera_stands_over_the_subject(tray):
    turn = section(tray).turn
    assert turn.toward == "straight up"
    assert turn.angle_deg == pytest.approx(section(tray).angle_deg)
    assert turn.depth_left_mm < 1
    distance = 2 * turn.walk_mm / (4 * math.sin(math.radians(turn.angle_deg / 2)))
    assert 400 < distance < 500
    assert not turn.shift_possible
    assert "the lens has 12 mm" in turn.words


def test_the_longer_the_slope_the_more_the_view_loses(tray, changed):
    points = [point.model_dump() for point in tray.plane.points]
    for point in points:
        point["depth"]["readings_mm"] = [62 + (mark - 62) / 2 for mark in point["depth"]["readings_mm"]]
    gentle = section(changed(tray, {"/plane/points": points})).turn
    steep = section(tray).turn
    assert 1 < gentle.stretch < steep.stretch
    assert 1 < gentle.keystone < steep.keystone


def test_square_already_is_said(tray, changed):
    points = [point.model_dump() for point in tray.plane.points]
    for point in points:
        point["depth"]["readings_mm"] = [62.0]
    assert (
        section(changed(tray, {"/plane/points": points})).turn.words == "The camera stands square to the plane already."
    )


@pytest.mark.parametrize(("right", "up", "words"), [(8.0, 0.0, "straight right"), (0.0, -8.0, "straight down")])
def test_shift_goes_to_where_the_subject_lies(tray, changed, right, up, words):
    shift = section(changed(tray, {"/plane/shift/right_mm": right, "/plane/shift/up_mm": up})).shift
    assert (shift.right_mm, shift.up_mm) == pytest.approx((right * 36 / 150, up * 36 / 150))
    assert words in shift.words
    assert shift.possible


def test_tilt_and_shift_share_the_lit_circle(tray, changed):
    tilted = section(tray)
    # The tilt swings the circle up: shifting up as well needs more of it, shifting down less.
    up = section(changed(tray, {"/plane/shift/up_mm": 20.0})).circle.needed_mm
    down = section(changed(tray, {"/plane/shift/up_mm": -20.0})).circle.needed_mm
    assert down < tilted.circle.needed_mm < up
    swing = tilted.setting.image_distance_mm * math.tan(math.radians(tilted.setting.tilt_deg))
    toward = math.radians(tilted.azimuth_deg)
    beside, above = abs(swing * math.cos(toward)), abs(swing * math.sin(toward))
    assert tilted.circle.needed_mm == pytest.approx(math.hypot(18 + beside, 12 + above), rel=1e-3)


def test_a_lens_without_shift_says_nothing_of_it(pod):
    assert section(pod).shift is None


def test_a_lens_without_shift_refuses_one_that_is_asked(pod, changed):
    shot = changed(pod, {"/plane/shift/right_mm": 5.0})
    assert not section(shot).shift.possible
    assert "shift.beyond" in said(shot)


@pytest.mark.parametrize(("width", "frames"), [(90.0, 1), (110.0, 2), (140.0, 2), (159.0, 2)])
def test_joined_frames_for_a_wider_picture(catalogue, changed, width, frames):
    join = section(changed(catalogue["foil"], {"/plane/shift/joined_mm": width})).join
    assert join.frames == frames
    assert join.shifts_mm[0] == pytest.approx(-join.shifts_mm[-1])
    if frames > 1:
        assert join.shifts_mm[-1] - join.shifts_mm[0] == pytest.approx(width * 36 / 96 - 36)


def test_frames_are_joined_along_the_height_as_well(catalogue, changed):
    shift = {"/plane/shift/joined_along": "height", "/plane/shift/joined_mm": 110.0}
    join = section(changed(catalogue["foil"], shift)).join
    m = 36 / 96
    assert join.frames == 3
    assert join.shifts_mm == pytest.approx([-(110 * m - 24) / 2, 0, (110 * m - 24) / 2])
    assert join.pixels_wide == 8256
    assert join.pixels_high == pytest.approx(8256 / 36 * 110 * m, abs=1)
    assert "down" in join.words
    assert "left" not in join.words


def test_more_in_common_takes_more_frames(catalogue, changed):
    few, many = (
        section(
            changed(catalogue["foil"], {"/plane/shift/joined_mm": 155.0, "/plane/shift/joined_overlap": overlap})
        ).join.frames
        for overlap in (0.3, 0.8)
    )
    assert many > few


def test_pixels_that_are_not_known_are_not_made_up(catalogue, changed):
    assert section(changed(catalogue["foil"], {"/body/pixels_across": None})).join.pixels_wide is None


@pytest.mark.parametrize("tilt", [2.0, 6.0, 40.0])
def test_the_strip_uses_no_more_tilt_than_there_is(tray, changed, tilt):
    strip = {"first": "back-left", "second": "back-right", "tilt_deg": tilt}
    found = section(changed(tray, {"/plane/strip": strip})).strip
    assert found.tilt_deg == pytest.approx(min(tilt, 10.0))


def test_more_tilt_is_a_narrower_strip(tray, changed):
    widths = [
        section(
            changed(tray, {"/plane/strip": {"first": "back-left", "second": "back-right", "tilt_deg": tilt}})
        ).strip.width_mm
        for tilt in (1.0, 4.0, 10.0)
    ]
    assert widths == sorted(widths, reverse=True)


def test_a_wider_stop_is_a_narrower_strip(tray, changed):
    strip = {"first": "back-left", "second": "back-right", "tilt_deg": None}
    wide, narrow = (
        section(changed(tray, {"/plane/strip": strip, "/aperture/f_number": stop})).strip.width_mm
        for stop in (16.0, 2.8)
    )
    assert narrow < wide / 3


def test_no_strip_without_tilt(tray, changed):
    strip = {"first": "back-left", "second": "back-right", "tilt_deg": None}
    shot = changed(tray, {"/plane/strip": strip, "/rig/0/gear/tilt_deg": 0.0})
    assert section(shot).strip is None
    assert "does not tilt" in said(shot)["strip.none"].message


def test_the_ring_that_ends_before_the_plane_is_said(tray, changed):
    """At half size the lens is one of 86.7 mm, 130 mm from the sensor; a plane that leans asks for more."""
    shot = changed(tray, {"/framing/frame_width_mm": 72.1})
    assert section(shot).setting.image_distance_mm > 130.3
    assert "plane.ring_ends" in said(shot)
    tilted = [way for way in plan_shot(shot).ways if way.id in ("tilt", "tilt_best", "tilt_rail") and way.frames]
    assert tilted
    assert all("ring ends before the plane" in way.against[0] for way in tilted)
    # What cannot be done as things are is not advised before what can.
    assert not any(way.feasible for way in tilted)
    first = next(way for way in plan_shot(shot).ways if way.rank == 1)
    assert first.feasible
    assert all("ring ends before the plane" in way.reason for way in tilted)
    assert section(tray).setting.image_distance_mm < 130
    assert "plane.ring_ends" not in said(tray)
    assert not any("ring ends" in clause for way in plan_shot(tray).ways for clause in way.against if way.frames)


def test_a_ring_is_not_sent_where_it_cannot_go(tray, changed):
    """Points that lie 7 mm and more off what ten degrees can do: the frames left over need the ring past its end."""
    points = [
        {**point.model_dump(), "depth": {"by": "rail", "readings_mm": [mark]}, "wanted": "sharp"}
        for point, mark in zip(tray.plane.points[:3], (30.0, 31.5, 66.0), strict=True)
    ]
    for point, (left, top) in zip(points, ((0.25, 0.85), (0.8, 0.8), (0.5, 0.15)), strict=True):
        point.update(from_left=left, from_top=top)

    def by_ring(width):
        shot = changed(tray, {"/plane/points": points, "/framing/frame_width_mm": width})
        return next(way for way in plan_shot(shot).ways if way.id == "tilt_ring")

    closest = by_ring(72.0)
    assert closest.frames == 0
    assert "ring ends before every point is reached" in closest.against[0]
    # From farther off there is room to turn it: the plane itself asks for 124 mm of 130.
    assert by_ring(95.0).frames > 1


def test_unread_points_are_noted_and_left_out(tray, changed):
    points = [point.model_dump() for point in tray.plane.points]
    points[2]["depth"]["readings_mm"] = []
    shot = changed(tray, {"/plane/points": points})
    assert "has no reading yet" in said(shot)["points.not_read"].message
    unread = next(point for point in section(shot).points if point.id == "centre")
    assert unread.behind_nearest_mm is None
    assert unread.fine is None
    assert section(shot).setting.tilt_deg == pytest.approx(section(tray).setting.tilt_deg, abs=0.1)


def test_a_flat_part_beside_points_wants_a_reading(tray, changed):
    flat = {
        "id": "lid", "name": "lid", "wanted": "sharp", "from_left": 0.5, "from_top": 0.5,
        "depth": {"by": "angle", "angle_deg": 36.0, "recedes_deg": 90.0, "length_mm": 40.0, "width_mm": 30.0,
                  "readings_mm": []},
    }  # fmt: skip
    points = [point.model_dump() for point in tray.plane.points]
    loose = changed(tray, {"/plane/points": [*points, flat]})
    assert "lid has no reading yet" in said(loose)["points.not_read"].message
    flat["depth"]["readings_mm"] = [62.0]
    tied = section(changed(tray, {"/plane/points": [*points, flat]}))
    corners = [point for point in tied.points if point.id == "lid"]
    assert len(corners) == 4
    assert all(abs(corner.off_plane_mm) < 1.5 for corner in corners)
    assert tied.setting.tilt_deg == pytest.approx(section(tray).setting.tilt_deg, abs=0.3)


def test_words_speak_inches_when_asked(tray):
    plan = plan_shot(tray, "in")
    assert " in " in plan.plane.turn.words
    assert plan.plane.setting == plan_shot(tray).plane.setting


def test_turned_on_its_place_the_subject_is_beside_the_axis_by_the_tangent(catalogue):
    plan = plan_shot(catalogue["foil"])
    turn, m = plan.plane.turn, plan.reach.magnification
    f = plan.reach.focal_length_now_mm
    beside = f * (1 + 1 / m) * math.cos(math.radians(7))
    # Image distance for a subject so much nearer in depth, times the tangent of the angle.
    assert turn.shift_mm == pytest.approx(f * beside / (beside - f) * math.tan(math.radians(7)), rel=1e-3)


def test_the_ends_of_a_joined_picture_need_the_circle_that_tilt_and_shift_leave(catalogue, changed):
    foil = catalogue["foil"]
    low = section(changed(foil, {"/plane/shift/up_mm": 0.0})).join.circle.needed_mm
    high = section(changed(foil, {"/plane/shift/up_mm": 30.0})).join.circle.needed_mm
    assert high > low
    assert not section(
        changed(foil, {"/plane/shift/up_mm": 30.0, "/rig/0/gear/image_circle_mm": 44.0})
    ).join.circle.inside


def test_backed_off_the_background_softens_less(tray):
    ways = {way.id: way for way in plan_shot(tray).ways}
    back = ways["back_off"]
    far = back.back_off.entrance_pupil_mm
    m, ne = back.back_off.magnification, back.effective_f_number
    behind = 51.6 + 240 - max(back.focuses_mm)
    expected = m**2 * far * behind / (ne * (far + behind)) * 1000
    assert back.steady.background_um == pytest.approx(expected, rel=1e-6)
    assert back.steady.background_um < ways["one"].steady.background_um


def test_the_corners_of_a_flat_part_are_told_apart(pod, changed):
    flat = {
        "id": "bar", "name": "the bar", "wanted": "sharp", "from_left": 0.5, "from_top": 0.5,
        "depth": {"by": "angle", "angle_deg": 30.0, "recedes_deg": 90.0, "length_mm": 40.0, "width_mm": 20.0},
    }  # fmt: skip
    cloud = make_setup(changed(pod, {"/plane/points": [flat]})).plane.cloud
    names = {cloud.name(index): cloud.xyz[index] for index in range(4)}
    assert set(names) == {f"the {which} corner of the bar" for which in
                          ("near left", "near right", "far left", "far right")}  # fmt: skip
    assert names["the near left corner of the bar"][0] < 0 < names["the near right corner of the bar"][0]
    assert names["the far left corner of the bar"][2] > names["the near left corner of the bar"][2]
    # Receding to the right, its edges lie above and below.
    flat["depth"]["recedes_deg"] = 0.0
    cloud = make_setup(changed(pod, {"/plane/points": [flat]})).plane.cloud
    upper = next(index for index in range(4) if cloud.name(index) == "the far upper corner of the bar")
    assert cloud.xyz[upper][1] > 0
    assert cloud.xyz[upper][0] > 0


def test_nobody_is_sent_to_name_points_for_a_lens_that_cannot_tilt(pod, changed):
    tilt = next(way for way in plan_shot(pod).ways if way.id == "tilt")
    assert tilt.against == ["this lens does not tilt"]
