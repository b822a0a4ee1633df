"""Each section of a plan, one by one."""

import itertools
import math

import pytest

from just_plane.contract.plan import StopAnswer
from just_plane.contract.shot import Shot
from just_plane.core.contrast import contrast
from just_plane.core.depth import depth_of_field, near_far_limits
from just_plane.core.errors import OutOfDomainError, Quantity
from just_plane.core.stack import rail_stack
from just_plane.planning.plan import plan_shot
from just_plane.planning.words.findings import caution, gathered, refused, trouble
from just_plane.planning.words.numbers import Wording


def ways_of(shot):
    return {way.id: way for way in plan_shot(shot).ways}


# --- reach


def test_pieces_stand_end_to_end_from_the_sensor(catalogue):
    reach = plan_shot(catalogue["praline"]).reach
    assert [piece.kind for piece in reach.pieces] == ["body", "tube", "lens"]
    at = 0.0
    for piece in reach.pieces:
        assert piece.from_sensor_mm == pytest.approx(at)
        at += piece.length_mm
    assert reach.lens_front_to_sensor_mm == pytest.approx(at)
    assert reach.working_distance_mm == pytest.approx(reach.subject_to_sensor_mm - at)


def test_a_barrel_that_grows_takes_room(catalogue, changed):
    praline = catalogue["praline"]
    stiff = plan_shot(changed(praline, {"/rig/0/gear/barrel_growth_mm": 0.0})).reach
    grown = plan_shot(praline).reach
    share = grown.own_magnification / praline.rig[0].gear.closest_magnification
    assert stiff.working_distance_mm - grown.working_distance_mm == pytest.approx(6 * share)


def test_framing_by_width_and_by_size_are_the_same(pod, changed):
    by_width = changed(pod, {"/framing": {"by": "frame_width", "frame_width_mm": 72.0}})
    assert plan_shot(by_width).reach.magnification == pytest.approx(plan_shot(pod).reach.magnification)


def test_two_tubes_do_what_one_of_their_length_does(catalogue, changed):
    praline = catalogue["praline"]
    one = plan_shot(changed(praline, {"tubes_mm": [20.0]})).reach
    two = plan_shot(changed(praline, {"tubes_mm": [8.0, 12.0]})).reach
    assert two.own_magnification == pytest.approx(one.own_magnification)
    assert two.working_distance_mm == pytest.approx(one.working_distance_mm)


def test_infinity_is_told_as_lost_or_kept(pod, changed):
    assert plan_shot(pod).reach.farthest_focus_mm is None
    assert plan_shot(changed(pod, {"tubes_mm": [12.0]})).reach.farthest_focus_mm < 1300


# --- aperture


def test_every_stop_is_the_core_s(pod):
    plan = plan_shot(pod)
    circle, m = plan.sharpness.circle_um / 1000, plan.reach.magnification
    for stop in plan.aperture.stops:
        assert stop.depth_of_field_mm == pytest.approx(
            depth_of_field("contrast", circle, stop.effective_f_number, m), abs=1e-12
        )
        assert stop.perfect_contrast == pytest.approx(contrast(1 / circle, stop.effective_f_number, 0.0))
        assert stop.shutter_s == pytest.approx(0.25 * (stop.f_number / 8) ** 2)
    assert {2.8, 5.6, 32.0} <= {stop.f_number for stop in plan.aperture.stops}


def test_frames_by_stop_are_those_of_the_stack(pod):
    for stop in plan_shot(pod).aperture.stops:
        assert isinstance(stop, StopAnswer)
        if stop.frames is not None:
            stack = rail_stack(34.0, stop.depth_of_field_mm, 0.5, spare_before=1, spare_after=1, smallest_step=0.001)
            assert stop.frames == stack.frames
        else:
            assert stop.depth_of_field_mm == 0


def test_exact_limits_are_those_of_the_lens(pod):
    plan = plan_shot(pod)
    near, far = near_far_limits(87.5, 5.6, 0.5, plan.sharpness.circle_um / 1000, 0.8)
    geometric = next(school for school in plan.aperture.schools if school.school == "geometric")
    assert (geometric.near_mm, geometric.far_mm) == pytest.approx((near, far), rel=1e-9)


def test_the_school_in_use_sets_the_depth(pod, changed):
    for school in ("geometric", "budget", "wave", "microscopy"):
        plan = plan_shot(changed(pod, {"/sharp/depth_school": school}))
        told = {each.school: each.total_mm for each in plan.aperture.schools}
        assert plan.aperture.depth_of_field_mm == pytest.approx(told[school])


def test_a_stop_between_clicks_is_worked_out_but_never_called_best(pod, changed):
    plan = plan_shot(changed(pod, {"/aperture/f_number": 6.0}))
    assert plan.aperture.f_number == 6.0
    assert plan.aperture.stops[-1].f_number == 6.0
    assert plan.aperture.best_f_number == plan_shot(pod).aperture.best_f_number


# --- sharpness


def test_cropping_asks_for_finer_detail(pod, changed):
    whole, half = plan_shot(pod), plan_shot(changed(pod, {"/picture/share_of_frame": 0.5}))
    assert half.sharpness.circle_um == pytest.approx(whole.sharpness.circle_um / 2)


def test_detail_in_the_subject_is_that_on_the_sensor_over_size(pod):
    plan = plan_shot(pod)
    assert plan.sharpness.smallest_detail_um == pytest.approx(plan.sharpness.circle_um / 0.5)


# --- light


@pytest.mark.parametrize(("iso", "stops"), [(100.0, 0.0), (200.0, -1.0), (50.0, 1.0)])
def test_sensitivity_trades_stop_for_stop(pod, changed, iso, stops):
    base = plan_shot(pod).light.stops_from_metered
    assert plan_shot(changed(pod, {"/light/iso": iso})).light.stops_from_metered - base == pytest.approx(stops)


# --- ways


def test_a_dark_frame_doubles_the_exposure_only(pod, changed):
    plain, dark = ways_of(pod)["rail"], ways_of(changed(pod, {"/stack/noise_reduction": True}))["rail"]
    exposure = 0.25 * (5.6 / 8) ** 2
    assert dark.time_s - plain.time_s == pytest.approx(plain.frames * exposure)


def test_spare_frames_lie_outside_and_change_nothing_else(pod, changed):
    bare = ways_of(changed(pod, {"/stack/spare_before": 0, "/stack/spare_after": 0}))["rail"]
    more = ways_of(changed(pod, {"/stack/spare_before": 3, "/stack/spare_after": 2}))["rail"]
    assert more.frames == bare.frames + 5
    assert more.focuses_mm[3:-2] == pytest.approx(bare.focuses_mm)
    assert more.stack.covering_frames == bare.frames


def test_more_overlap_never_takes_fewer_frames_nor_leaves_less_contrast(pod, changed):
    stacks = [ways_of(changed(pod, {"/stack/overlap": overlap}))["rail"] for overlap in (0.0, 0.25, 0.5, 0.75)]
    assert [way.frames for way in stacks] == sorted(way.frames for way in stacks)
    assert [way.worst_contrast for way in stacks] == sorted(way.worst_contrast for way in stacks)


def test_too_many_frames_a_depth_are_warned_of(pod, changed):
    against = ways_of(changed(pod, {"/stack/overlap": 0.85}))["rail"].against
    assert any("only gets softer" in reason for reason in against)


def test_a_rail_that_would_run_the_lens_into_the_subject_is_told(pod, changed):
    deep = ways_of(changed(pod, {"/rig/0/gear/barrel_mm": 330.0, "/subject/depth_mm": 60.0}))["rail"]
    assert any("touch the subject" in reason for reason in deep.against)


def test_focus_put_outside_the_subject_is_said(pod, changed):
    one = ways_of(changed(pod, {"/focus_behind_nearest_mm": -40.0}))["one"]
    assert one.cover == 0
    assert "the focus lies outside" in one.note


def test_a_stop_that_is_chosen_best_and_narrowest_at_once_is_said_once(pod, changed):
    shot = changed(
        pod, {"/rig/0/gear/widest_f_number": 8.0, "/rig/0/gear/narrowest_f_number": 8.0, "/aperture/f_number": 8.0}
    )
    assert [way.id for way in plan_shot(shot).ways] == ["one", "tilt", "back_off", "rail", "ring"]


# --- verdict


def test_a_stack_that_takes_too_long_is_told_with_both_times(pod, changed):
    verdict = plan_shot(changed(pod, {"/subject/hold_still_s": 40.0})).verdict
    # Forty frames would take three times as long: what can be done is one frame, with what it leaves.
    assert verdict.headline.startswith("Nothing here holds all of it. The most that can be done: one frame at f/")
    assert "the subject holds 40 s; first to last frame take " in verdict.detail
    assert "enough for a picture " in verdict.detail


def test_a_stack_a_little_too_long_is_still_the_plan_and_says_so(pod, changed):
    took = next(way.hold_s for way in plan_shot(pod).ways if way.recommended)
    verdict = plan_shot(changed(pod, {"/subject/hold_still_s": took / 1.4})).verdict
    assert "hold all of it" in verdict.headline
    assert "Close: the subject holds" in verdict.detail


def test_where_nothing_covers_the_most_there_is_is_told(pod, changed):
    shot = changed(
        pod, {"/stack/rail_smallest_step_mm": 20.0, "/framing": {"by": "magnification", "magnification": 1.0}}
    )
    verdict = plan_shot(shot).verdict
    assert verdict.headline.startswith("Nothing here holds all of it. The most that can be done:")
    rail = next(way for way in plan_shot(shot).ways if way.id == "rail")
    assert rail.cover < 1
    assert "the rail's smallest step, 20 mm, is coarser than the" in rail.against[0]
    assert "between two frames is in neither" in rail.against[0]


def test_trouble_with_the_rig_comes_before_any_way(pod, changed):
    verdict = plan_shot(changed(pod, {"/aperture/f_number": 64.0})).verdict
    assert verdict.way is None
    assert "f/64 marked cannot be set" in verdict.headline


# --- findings


def test_a_finding_is_said_once_a_field():
    error = OutOfDomainError("x.y", quantity="x", message="x is odd.", remedy="Make it even.")
    said = gathered(refused(error, field, Wording()) for field in ("/a", "/a", "/b"))
    assert [each.field for each in said] == ["/a", "/b"]
    assert (said[0].message, said[0].remedy) == ("X is odd.", "Make it even.")


def test_what_was_put_aside_is_marked_and_trouble_cannot_be():
    said = gathered([caution("a", "/a", "A."), trouble("b", "/b", "B.")], put_aside=["a", "b"])
    assert [each.put_aside for each in said] == [True, False]


def test_a_refusal_is_spoken_in_the_unit_in_use():
    error = OutOfDomainError(
        "step.fine",
        quantity="step",
        message="The step of {step} is too fine for {size}.",
        remedy="Take {other}.",
        step=Quantity(25.4, "mm"),
        size=Quantity(2.0, "x"),
        other=Quantity(50.8, "mm", 6),
    )
    assert str(error) == "The step of 25.4 mm is too fine for 2x. Take 50.8 mm."
    inches = refused(error, "/a", Wording("in"))
    assert inches.message == "The step of 1 in is too fine for 2×."
    assert inches.remedy == "Take 2 in."


def test_every_way_s_time_counts_its_own_exposure(pod):
    for way in plan_shot(pod).ways:
        exposure = 0.25 * (way.f_number / 8) ** 2
        each = exposure + 1.0 + (2.0 if way.kind != "one_frame" else 0.0)
        assert way.time_s == pytest.approx(way.frames * each)
        assert math.isfinite(way.time_s)


# --- light, room, slabs


def test_a_reading_that_was_never_taken_warns_of_nothing(pod, changed):
    hurried = {"/subject/moves_mm_s": 5.0, "/light/metered_shutter_s": 4.0}
    assumed, read = (plan_shot(changed(pod, {**hurried, "/light/read": read})) for read in (False, True))
    assert not any("no longer than" in clause for way in assumed.ways for clause in way.against)
    assert any("no longer than" in clause for way in read.ways for clause in way.against)
    assert (assumed.light.read, read.light.read) == (False, True)


def test_a_shot_kept_before_readings_were_marked_has_read_what_differs(pod):
    document = pod.model_dump()
    del document["light"]["read"]
    assert not Shot.model_validate(document).light.read
    document["light"]["metered_shutter_s"] = 0.5
    assert Shot.model_validate(document).light.read


def test_a_shutter_wanted_asks_for_its_iso(pod, changed):
    light = plan_shot(pod).light
    quick = plan_shot(changed(pod, {"/light/wanted_shutter_s": light.shutter_s / 8})).light
    assert quick.iso_for_wanted == pytest.approx(800)
    assert "ISO 800" in quick.words[0]
    too_quick = plan_shot(changed(pod, {"/light/wanted_shutter_s": 1e-5}))
    assert "past what cameras have" in next(f.message for f in too_quick.findings if f.code == "iso.too_high")


def test_a_correction_of_one_stop_doubles_the_time(pod, changed):
    lighter = plan_shot(changed(pod, {"/light/compensation_stops": 1.0})).light
    assert lighter.shutter_s == pytest.approx(2 * plan_shot(pod).light.shutter_s)


def test_flash_by_its_guide_number_counts_what_extension_takes(pod, changed):
    """Guide number 20 at 0.4 m: works as f/50. At half life size the pod's lens works as N(1 + m/P) marked."""
    flash = {"/light/flash_guide_number_m": 20.0, "/light/flash_distance_mm": 400.0}
    plan = plan_shot(changed(pod, flash))
    factor = plan.aperture.effective_f_number / plan.aperture.f_number
    assert plan.light.flash_f_number == pytest.approx(50 / factor)
    stops = 2 * math.log2(50 / plan.aperture.effective_f_number)
    assert plan.light.flash_down_stops == pytest.approx(stops)
    weak = plan_shot(changed(pod, {**flash, "/light/flash_guide_number_m": 1.0}))
    assert "stops short" in next(f.message for f in weak.findings if f.code == "flash.too_weak")


def test_a_converter_s_stops_are_read_as_the_camera_shows_them(pod, changed):
    doubled = pod.model_dump()
    doubled["rig"].append({"gear": {"kind": "converter", "factor": 2.0, "thickness_mm": 40.0}})
    shown = doubled | {"aperture": {"f_number": 16.0, "reading": "with_converter"}}
    assert plan_shot(Shot.model_validate(shown)).aperture.f_number == 8.0


def test_a_diffuser_thicker_than_the_room_is_said_and_no_way_there_is_recommended(pod, changed):
    cup = {"kind": "diffuser", "name": "cup", "width_mm": 90.0, "height_mm": 90.0, "thickness_mm": 400.0}
    plan = plan_shot(changed(pod, {"/on_set": [{"gear": cup}]}))
    said = next(f for f in plan.findings if f.code == "light.diffuser_too_thick")
    assert said.field == "/on_set/0"
    assert said.message.startswith("Cup is 400 mm thick")
    assert not any(way.feasible for way in plan.ways if way.id in ("one", "rail"))
    assert plan.verdict.headline.startswith("As things are this cannot be done")


def test_a_light_in_the_shade_of_the_lens_is_said_with_where_to_bring_it(pod, changed):
    """The cone is atan(r/w): the front's radius over the working distance."""
    plan = plan_shot(pod)
    front = plan.reach.pieces[-1].width_mm / 2
    shade = math.degrees(math.atan(front / plan.reach.working_distance_mm))
    lamp = {"kind": "light", "width_mm": 40.0, "height_mm": 40.0}

    def codes(degrees):
        shot = changed(pod, {"/on_set": [{"gear": lamp, "from_axis_deg": degrees}]})
        return {finding.code for finding in plan_shot(shot).findings}

    assert "light.in_shade" in codes(shade - 0.5)
    assert "light.in_shade" not in codes(shade + 0.5)
    assert "light.in_shade" not in codes(None)


def test_slabs_come_where_parts_cross_or_are_asked_for(pod, changed):
    def slabs(**values):
        named = {"/" + name.replace("__", "/"): value for name, value in values.items()}
        return next(way for way in plan_shot(changed(pod, named)).ways if way.id == "rail").stack.slabs

    assert slabs() == []  # forty frames, nothing crosses
    crossing = slabs(subject__crosses=True)
    assert crossing[0][0] == 1
    assert crossing[-1][1] == 40
    assert all(earlier[1] >= later[0] for earlier, later in itertools.pairwise(crossing))
    assert slabs(stack__slabs="always") == crossing
    assert slabs(subject__crosses=True, stack__slabs="never") == []


def test_every_third_frame_kept_says_what_overlap_is_left(pod, changed):
    plan = plan_shot(changed(pod, {"/stack/keep_every": 3, "/stack/overlap": 0.8}))
    way = next(way for way in plan.ways if way.id == "rail")
    assert way.stack.kept_frames == len({*range(0, way.frames, 3), way.frames - 1})
    assert way.stack.kept_overlap == pytest.approx(1 - 3 * 0.2, abs=0.02)
    gaps = plan_shot(changed(pod, {"/stack/keep_every": 3, "/stack/overlap": 0.5}))
    assert any("every 3rd frame leaves gaps" in c for c in next(w for w in gaps.ways if w.id == "rail").against)


def test_magnification_past_what_light_carries_is_called_empty(catalogue, changed):
    """10x at NA 0.1 works as f/50: periods of 27.5 um, 6.3 pixels of 4.36; at 0.28 9.8 um, where two would do."""
    poor = changed(catalogue["sugar"], {"/rig/0/gear/numerical_aperture": 0.1})
    said = next(finding for finding in plan_shot(poor).findings if finding.code == "magnification.empty")
    assert "no detail finer than 6 pixels" in said.message
    assert "magnification.empty" not in {finding.code for finding in plan_shot(catalogue["sugar"]).findings}


def test_a_diffuser_is_too_thick_for_the_ways_exactly_where_it_is_said_to_be(pod, changed):
    """The room is that before the nearest point: what the Light station says and what ranks the ways are one."""
    plan = plan_shot(pod)
    room = plan.reach.working_distance_mm - plan.focus_behind_nearest_mm
    for thick, fits in ((room - 0.5, True), (room + 0.5, False)):
        cup = {"kind": "diffuser", "width_mm": 90.0, "height_mm": 90.0, "thickness_mm": thick}
        said = plan_shot(changed(pod, {"/on_set": [{"gear": cup}]}))
        assert ("light.diffuser_too_thick" in {finding.code for finding in said.findings}) is not fits
        assert next(way for way in said.ways if way.id == "one").feasible is fits


def on_set(shot, changed, kind, width, *, from_axis, away, side="left"):
    """The plan with one thing on the set."""
    gear = {"kind": kind, "name": "it", "width_mm": width, "height_mm": 40.0}
    thing = {"gear": gear, "from_axis_deg": from_axis, "away_mm": away, "side": side}
    return plan_shot(changed(shot, {"/on_set": [thing]}))


def test_the_room_is_the_rig_seen_from_above(pod, changed):
    plan = on_set(pod, changed, "light", 200.0, from_axis=90.0, away=400.0, side="right")
    room, reach = plan.room, plan.reach
    assert room.front_mm == pytest.approx(reach.working_distance_mm)
    assert room.free_mm == pytest.approx(reach.nearest_point_mm)
    assert room.nearest_mm - room.farthest_mm == pytest.approx(plan.depth_mm)
    assert room.frame_width_mm == pytest.approx(reach.frame_width_mm)
    # What is seen narrows straight toward the entrance pupil.
    left = 1 - reach.working_distance_mm / reach.entrance_pupil_mm
    assert room.seen_at_front_mm == pytest.approx(reach.frame_width_mm * left)
    (light,) = room.things
    assert sorted([light.one, light.other]) == [pytest.approx([-100.0, 400.0]), pytest.approx([100.0, 400.0])]
    assert light.looks_deg == pytest.approx(2 * math.degrees(math.atan(0.25)))
    assert not light.in_the_way


def test_a_thing_whose_place_is_not_known_is_named_and_not_drawn(pod, changed):
    for known in ({"from_axis": 90.0, "away": None}, {"from_axis": None, "away": 300.0}):
        room = on_set(pod, changed, "diffuser", 300.0, **known).room
        assert (room.things, room.unplaced) == ([], ["it"])


def test_paper_in_the_picture_or_in_the_lens_is_said(pod, changed):
    """300 mm of paper 100 mm from the axis, facing across it: 50 mm of it are on the other side."""
    front = plan_shot(pod).reach.working_distance_mm
    half = plan_shot(pod).room.frame_width_mm / 2
    clear = on_set(pod, changed, "diffuser", 60.0, from_axis=90.0, away=half + 5)
    assert not clear.room.things[0].in_the_way
    inside = on_set(pod, changed, "diffuser", 60.0, from_axis=90.0, away=half - 5)
    (said,) = [each for each in inside.findings if each.code == "light.in_picture"]
    assert "reaches 5 mm into the picture" in said.message
    # Square before the lens, as far away as its barrel is deep, and wider than it.
    stuck = on_set(pod, changed, "diffuser", 60.0, from_axis=0.0, away=front + 20.0)
    assert "light.touches_rig" in {each.code for each in stuck.findings}
    assert stuck.room.things[0].in_the_way
