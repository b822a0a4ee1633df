"""The ways table: ranks, reasons, movement and background."""

import pytest

from just_plane.core.ranking import CRITERIA, Merit, deciding, ranked
from just_plane.planning.pictures.preview import preview
from just_plane.planning.plan import plan_shot


def ways(shot):
    return {way.id: way for way in plan_shot(shot).ways}


@pytest.mark.parametrize("name", ["bonbon", "cut", "praline", "ganache", "sugar", "foil"])
def test_ranks_and_reasons_are_complete(catalogue, name):
    compared = plan_shot(catalogue[name]).ways
    possible = sorted(way.rank for way in compared if way.frames)
    assert possible == list(range(1, len(possible) + 1))
    assert sum(way.recommended for way in compared) == 1
    assert next(way for way in compared if way.recommended).rank == 1
    assert all(way.reason.endswith(".") for way in compared)
    assert all(way.against for way in compared if not way.frames)


def test_a_way_that_changes_the_picture_comes_after_one_that_keeps_it(tray):
    compared = ways(tray)
    assert compared["turn"].rank > compared["tilt"].rank
    assert "changes the view" in compared["turn"].reason
    assert "gives up pixels" in compared["back_off"].reason


def test_without_tilt_or_time_turning_or_standing_back_is_what_is_left(tray, changed):
    hurried = changed(tray, {"/rig/0/gear/tilt_deg": 0.0, "/subject/hold_still_s": 1.6, "/subject/moves_mm_s": 0.5})
    compared = ways(hurried)
    best = min(compared.values(), key=lambda way: way.rank)
    assert best.id in ("turn", "back_off")


def test_the_first_difference_decides():
    good = Merit(0.0, True, True, True, True, 0.0, True, 0.5, -1.0)
    late = good._replace(steady=False, contrast=0.9)
    assert ranked([late, good]) == [1, 0]
    assert deciding(good, late) == "steady"
    assert deciding(good, good) is None
    assert Merit._fields == CRITERIA


def test_longest_shutters_stand_at_every_way(tray, changed):
    shot = changed(tray, {"/subject/moves_mm_s": 0.2, "/steadiness/held": "hand", "/steadiness/stabiliser_stops": 3.0})
    compared = ways(shot)
    circle = plan_shot(shot).sharpness.circle_um / 1000
    steady = compared["one"].steady
    assert steady.subject_s == pytest.approx(circle / (2 * 0.2 * 36 / 150))
    assert 0 < steady.hand_s < 0.1
    assert any("the subject moves" in reason for reason in compared["one_best"].against)
    assert any("by hand" in reason for reason in compared["one"].against)


def test_a_rail_that_swings_longer_than_it_rests_is_said(tray, changed):
    shot = changed(tray, {"/steadiness/rail_swings_um": 5000.0, "/steadiness/rail_calms_s": 3.0})
    compared = ways(shot)
    assert compared["rail"].steady.settle_s > 2
    assert any("the rail swings" in reason for reason in compared["rail"].against)
    assert compared["one"].steady.settle_s is None


def test_a_wider_stop_softens_the_background_more(tray):
    compared = ways(tray)
    assert compared["one"].steady.background_um > 3 * compared["one_best"].steady.background_um
    assert compared["tilt"].steady.background_share == pytest.approx(compared["tilt"].steady.background_um / 36000)


def test_no_background_no_number(pod):
    assert ways(pod)["one"].steady.background_um is None


@pytest.mark.parametrize("way", ["one", "tilt", "turn", "back_off", "rail", "ring"])
@pytest.mark.parametrize("zoom", ["frame", "pixels", "double"])
def test_every_way_has_its_picture(tray, way, zoom):
    made = preview(tray, way, zoom, 0.5, 0.2)
    assert made.light.shape == ((320, 480, 3) if zoom == "double" else (640, 960, 3))
    assert 0 <= made.light.min() < made.light.max() <= 1


def detail(picture):
    """Fine contrast of a picture: how much neighbours differ."""
    light = picture.light[..., 1]
    return float(abs(light[:, 1:] - light[:, :-1]).mean())


def test_the_pictures_tell_the_ways_apart(tray):
    sharp = {way: detail(preview(tray, way, "pixels", 0.5, 0.08)) for way in ("one", "one_best", "tilt", "rail")}
    assert sharp["tilt"] > 1.5 * sharp["one_best"] > sharp["one_best"] > 1.3 * sharp["one"]
    assert sharp["rail"] > sharp["one"] * 2


def test_what_has_no_picture_says_why(tray, changed):
    assert "not possible" in preview(tray, "tilt_rail", "frame", 0.5, 0.5)
    assert "pixels are not known" in preview(changed(tray, {"/body/pixels_across": None}), "one", "pixels", 0.5, 0.5)
    broken = preview(changed(tray, {"/framing/frame_width_mm": 1.0}), "one", "frame", 0.5, 0.5)
    assert isinstance(broken, str)
    assert broken.endswith(".")


def test_a_shot_without_points_has_a_slope_through_its_depth(pod):
    assert detail(preview(pod, "rail", "frame", 0.5, 0.5)) > detail(preview(pod, "one", "frame", 0.5, 0.5))


def test_tilt_and_stack_is_pictured_frame_by_frame(tray, changed):
    short = changed(tray, {"/rig/0/gear/tilt_deg": 4.0})
    one, both = (detail(preview(short, way, "pixels", 0.5, 0.06)) for way in ("tilt", "tilt_rail"))
    assert both > one


def test_points_at_one_depth_are_held_and_said_so(tray, changed):
    points = [point.model_dump() for point in tray.plane.points if point.wanted == "sharp"]
    for point in points:
        point["depth"]["readings_mm"] = [60.0]
    compared = ways(changed(tray, {"/plane/points": points}))
    assert compared["one"].points_held == 6
    assert "to spare" in compared["one"].note
    assert compared["one_narrowest"].points_held == 0
    assert compared["one_narrowest"].note == "nothing is wholly sharp for a picture of this size"


def test_of_what_cannot_be_done_two_things_in_the_way_are_worse_than_one(pod, changed):
    """Two seconds by hand: a stack by hand sways besides. One frame is nearer to what can be done."""
    dark = changed(pod, {"/steadiness/held": "hand", "/light/metered_shutter_s": 8.0, "/aperture/f_number": 8.0})
    plan = plan_shot(dark)
    assert plan.verdict.headline.startswith("As things are this cannot be done: by hand no longer than")
    assert "Put the camera on a support" in plan.verdict.detail
    assert next(way for way in plan.ways if way.rank == 1).frames == 1


def test_times_that_a_camera_marks_alike_do_not_stand_against_each_other(pod, changed):
    circle = plan_shot(pod).sharpness.circle_um / 1000
    time = plan_shot(pod).light.shutter_s
    # So fast that the longest shutter is 4 % under what it takes: both are the same mark.
    speed = circle / (2 * time / 1.04 * 0.5)
    compared = ways(changed(pod, {"/subject/moves_mm_s": speed}))
    assert not any("the subject moves" in clause for clause in compared["one"].against)
    quicker = ways(changed(pod, {"/subject/moves_mm_s": speed * 1.4}))
    assert any("the subject moves" in clause for clause in quicker["one"].against)


def test_a_coarse_rail_is_told_of_tilt_and_stack_too(tray, changed):
    short = changed(tray, {"/rig/0/gear/tilt_deg": 4.0, "/stack/rail_smallest_step_mm": 30.0})
    tilted = ways(short)["tilt_rail"]
    assert any("the rail's smallest step, 30 mm, is coarser than the" in clause for clause in tilted.against)
    fine = ways(changed(tray, {"/rig/0/gear/tilt_deg": 4.0, "/stack/overlap": 0.5, "/stack/keep_every": 2}))[
        "tilt_ring"
    ]
    # Steps are evened out over the stretch, so the overlap kept is a little more than every second of half.
    assert 0 <= fine.stack.kept_overlap < 0.5
