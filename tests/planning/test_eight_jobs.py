"""Eight jobs as someone brings them, from generic gear: a plan that can be believed, without arithmetic of one's own.

What is expected is worked out by hand, or is what anybody who has done the job would insist on.
"""

import math
import re
from fractions import Fraction

import pytest

from just_plane.contract.shot import Shot
from just_plane.planning.plan import plan_shot
from just_plane.shelf.starter import starter_shelf

GEAR = {piece.gear.kit_id: piece.gear.model_dump() for piece in starter_shelf().pieces}


def lens(kit_id, **more):
    return {"gear": GEAR[kit_id], **more}


def flat(angle, long, wide):
    depth = {"by": "angle", "angle_deg": angle, "recedes_deg": 90.0, "length_mm": long, "width_mm": wide}
    part = {"id": "flat", "name": "it", "wanted": "sharp", "from_left": 0.5, "from_top": 0.5, "depth": depth}
    return {"points": [part]}


def planned(rig, width=None, **changes):
    shot = {
        "format": "just-plane/shot",
        "version": 2,
        "name": "a job",
        "subject": {"depth_mm": 10.0},
        "body": GEAR["body-36-45"],
        "rig": rig,
        "framing": {"by": "closest"} if width is None else {"by": "frame_width", "frame_width_mm": width},
        "aperture": {"f_number": 8.0},
    }
    return plan_shot(Shot.model_validate(shot | changes))


def way(plan, way_id):
    return next(each for each in plan.ways if each.id == way_id)


def recommended(plan):
    (best,) = [each for each in plan.ways if each.recommended]
    return best


def troubles(plan):
    return [finding for finding in plan.findings if finding.severity == "trouble"]


def test_a_leaning_medal_by_three_rigs():
    medal = flat(35.0, 40.0, 40.0)
    by_macro = planned([lens("macro-100")], 60.0, plane=medal)
    assert by_macro.depth_mm == pytest.approx(40 * math.sin(math.radians(35)))
    assert recommended(by_macro).cover == 1
    assert recommended(by_macro).kind in ("rail", "ring")
    # A lens that tilts as far as it goes needs fewer frames for the rest, and says what is left over.
    by_tilt = planned([lens("tilt-90"), lens("tube-20")], 60.0, plane=medal)
    assert recommended(by_tilt).id.startswith("tilt")
    assert recommended(by_tilt).frames < way(by_tilt, "rail").frames
    # Out of reach is said with what the rig gives, and what to do.
    by_tube = planned([lens("prime-50"), lens("tube-20")], 60.0, plane=medal)
    assert "beyond this rig" in by_tube.verdict.headline
    assert "Add a tube" in by_tube.verdict.detail


def test_a_bee_on_a_cocoa_flower_from_the_hand():
    plan = planned(
        [lens("macro-100")],
        45.0,
        subject={"depth_mm": 12.0, "nature": "animal", "hold_still_s": 2.0, "moves_mm_s": 2.0, "background_mm": 500.0},
        steadiness={"held": "hand"},
        light={"read": True, "metered_f_number": 8.0, "metered_shutter_s": 1 / 60, "metered_iso": 400.0, "iso": 800.0},
    )
    best = recommended(plan)
    assert best.kind != "rail"
    assert best.hold_s <= 2.0
    assert best.feasible
    # Half a metre behind, at 0.8 times and f/8 (works as 14.4): m u_p D / (u_p + D) ... far softer than the detail.
    assert best.steady.background_um > 20 * plan.sharpness.circle_um
    assert "no chilling" in " ".join(finding.message for finding in plan.findings)


def test_a_long_bar_at_forty_five_degrees():
    plan = planned([lens("macro-100")], 140.0, plane=flat(45.0, 120.0, 15.0))
    assert plan.depth_mm == pytest.approx(120 * math.sqrt(0.5))
    assert recommended(plan).cover == 1
    assert "this lens does not tilt" in " ".join(way(plan, "tilt").against)
    assert way(plan, "turn").points_held == 4


def dark_box():
    """200 mm deep, by hand, where f/2.8 takes a quarter of a second at ISO 1600."""
    light = {"read": True, "metered_f_number": 2.8, "metered_shutter_s": 0.25, "metered_iso": 1600.0, "iso": 1600.0}
    return planned([lens("macro-60")], 250.0, subject={"depth_mm": 200.0}, steadiness={"held": "hand"}, light=light)


def test_a_deep_box_in_a_dark_room_without_a_tripod():
    plan = dark_box()
    # f/8 is three stops from f/2.8: two seconds, which nobody holds.
    assert plan.light.shutter_s == pytest.approx(2.04, rel=0.02)
    assert plan.verdict.headline.startswith("As things are this cannot be done: by hand")
    assert "Put the camera on a support" in plan.verdict.detail
    assert not any(each.feasible for each in plan.ways if each.frames)


def test_sugar_crystals_with_a_lens_that_goes_from_two_and_a_half_to_five_times_only():
    large = {
        "kind": "lens", "name": "65 mm, large sizes only", "focal_length_mm": 65.0, "closest_magnification": 5.0,
        "smallest_magnification": 2.5, "barrel_mm": 98.0, "widest_f_number": 2.8, "narrowest_f_number": 16.0,
        "working_distance_mm": 41.0,
    }  # fmt: skip
    plan = planned([{"gear": large}], 12.0, subject={"depth_mm": 1.5}, aperture={"f_number": 4.0})
    assert plan.reach.magnification == pytest.approx(3.0)
    assert plan.reach.working_distance_mm == pytest.approx(41 + 65 * (1 / 3 - 1 / 5))
    assert plan.aperture.effective_f_number == pytest.approx(16.0)
    assert recommended(plan).kind == "rail"
    assert recommended(plan).cover == 1


def test_bloom_with_a_ten_times_objective_on_a_rail_turned_by_hand():
    rig = [lens("objective-10"), lens("tube-lens-200")]
    plan = planned(rig, subject={"depth_mm": 0.3}, aperture={"f_number": 4.0}, stack={"rail_smallest_step_mm": 0.01})
    assert plan.reach.magnification == pytest.approx(10.0, rel=0.01)
    best = recommended(plan)
    assert (best.kind, best.cover) == ("rail", 1.0)
    # It is answered, not refused: with the step that there is, and what overlap that leaves.
    assert best.stack.step_mm == pytest.approx(0.01)
    assert "is coarser than" in best.against[0]


def test_a_wrapper_lying_away_under_a_lens_that_tilts():
    plan = planned([lens("tilt-90")], 250.0, plane=flat(70.0, 200.0, 150.0))
    # Stopped down the tilt holds it in one frame; who wants more contrast stacks, in fewer frames than without a tilt.
    assert recommended(plan).id == "tilt_best"
    assert way(plan, "tilt_ring").worst_contrast > 2 * recommended(plan).worst_contrast
    assert 1 < way(plan, "tilt_ring").frames < way(plan, "ring").frames
    said = " ".join(f"{finding.message} {finding.remedy}" for finding in plan.findings)
    assert "with 10° of tilt this lens follows" in said
    assert "Move the camera" in said


def test_corners_of_a_zoom_with_tubes_on_a_part_of_the_sensor():
    body = GEAR["body-36-45"]
    crop = body["crop_modes"][0]
    rig = [lens("zoom-70-200", at_focal_length_mm=70.0), lens("tube-20"), lens("tube-12")]
    whole, cropped = (planned(rig, crop_mode=mode) for mode in (None, crop["name"]))
    assert cropped.reach.magnification == pytest.approx(whole.reach.magnification)
    assert cropped.reach.frame_width_mm == pytest.approx(crop["width_mm"] / whole.reach.magnification)
    # A smaller sensor asks for finer detail of the same picture.
    assert cropped.sharpness.circle_um < whole.sharpness.circle_um
    assert "made for up to" in " ".join(finding.message for finding in cropped.findings)
    assert not troubles(cropped)


def in_focus(effective_f_number, detail_mm=0.0298):
    """What an unaberrated round aperture leaves of one period a detail, at 550 nm."""
    s = 550e-6 * effective_f_number / detail_mm
    return 2 / math.pi * (math.acos(s) - s * math.sqrt(1 - s * s))


def test_a_stack_softer_than_it_need_be_is_told_the_stop_that_keeps_half():
    large = GEAR["prime-50"] | {"smallest_magnification": 2.5, "closest_magnification": 5.0, "narrowest_f_number": 16.0}
    large |= {"minimum_focus_distance_mm": None, "pupil_magnification": 1.0}
    plan = planned([{"gear": large}], 12.0, subject={"depth_mm": 1.5})
    (said,) = [each for each in plan.findings if each.code == "f_number.pale_stack"]
    # 3x at f/8 works as f/32. Of the third stops f/5 is the narrowest that keeps half: f/5.6 is just under it.
    assert in_focus(4 * 5.6) < 0.5 < in_focus(4 * 5.04)
    frames = next(each.frames for each in plan.aperture.stops if abs(each.f_number - 5.04) < 0.05)
    assert f"leaves {in_focus(32) * 100:.0f} %" in said.message
    assert f"A stack at f/5, {frames} frames, keeps {in_focus(4 * 5.04) * 100:.0f} %" in said.message
    # What one frame holds, and a stop that keeps half, need no such word.
    for depth, stop in ((1.5, 4.0), (0.1, 8.0)):
        fine = planned([{"gear": large}], 12.0, subject={"depth_mm": depth}, aperture={"f_number": stop})
        assert not [each for each in fine.findings if each.code == "f_number.pale_stack"]


def test_where_nothing_can_be_done_nothing_is_said_to_be():
    plan = dark_box()
    assert "cannot be done" in plan.verdict.headline
    assert not any("can be done as things are" in each.reason for each in plan.ways)
    assert recommended(plan).reason.startswith("It comes nearest to what can be done")


def test_what_stands_against_the_most_that_can_be_done_is_in_the_sentence():
    rig = [lens("objective-10"), lens("tube-lens-200")]
    coarse = planned(rig, subject={"depth_mm": 0.3}, stack={"rail_smallest_step_mm": 0.05})
    assert "Nothing here holds all of it" in coarse.verdict.headline
    assert "The rail's smallest step, 50 µm, is coarser" in coarse.verdict.detail


@pytest.mark.parametrize("iso", [100.0, 400.0])
def test_a_shutter_too_long_by_hand_is_told_the_iso_that_makes_it_short_enough(iso):
    plan = planned(
        [lens("macro-100")],
        45.0,
        steadiness={"held": "hand"},
        light={"read": True, "metered_f_number": 8.0, "metered_shutter_s": 1 / 60, "metered_iso": 400.0, "iso": iso},
    )
    said = re.search(
        r"by hand no longer than (\S+) s, it takes (\S+) s; ISO (\d+) would do", " ".join(way(plan, "one").against)
    )
    allowed, takes, enough = Fraction(said[1]), Fraction(said[2]), int(said[3])
    # Shutter times are named in thirds, so the ratio of the names is right to a sixth of a stop either way.
    needed = iso * float(takes / allowed)
    assert needed * 2 ** (-1 / 3) <= enough <= needed * 2 ** (1 / 2)


def test_a_size_below_a_bare_lens_is_not_cured_by_tubes_that_are_not_there():
    large = GEAR["prime-50"] | {"smallest_magnification": 2.5, "closest_magnification": 5.0}
    for rig, cure in (([{"gear": large}], "another lens"), ([{"gear": large}, lens("tube-20")], "shorter tube")):
        assert cure in planned(rig, 36.0).verdict.detail


def test_a_turned_lens_that_shows_nothing_is_turned_back():
    plan = planned([lens("tilt-90", reversed=True)], 60.0)
    assert "comes to focus" in plan.verdict.headline
    assert plan.verdict.detail.startswith("Turn the lens back")


def test_a_stop_at_which_the_tilt_holds_every_point_is_a_way_of_its_own():
    page = flat(70.0, 200.0, 150.0)
    plan = planned([lens("tilt-90")], 250.0, plane=page)
    best = recommended(plan)
    assert (best.id, best.frames, best.points_held) == ("tilt_best", 1, 4)
    assert f"one frame at f/{round(best.f_number)} (f/8 is set)" in plan.verdict.headline
    assert plan.plane.covering.f_number == best.f_number
    # A third of a stop wider misses a corner; at the stop itself it is the tilt that is there anyway.
    wider = planned([lens("tilt-90")], 250.0, plane=page, aperture={"f_number": best.f_number / 2 ** (1 / 6)})
    assert way(wider, "tilt").points_held < 4
    there = planned([lens("tilt-90")], 250.0, plane=page, aperture={"f_number": best.f_number})
    assert way(there, "tilt").points_held == 4
    assert "tilt_best" not in {each.id for each in there.ways}
    assert there.plane.covering is None
    # The same corner blurs by the same cone: as much less as the stop is narrower.
    far = max(point.blur_um for point in plan.plane.points)
    assert far * plan.plane.covering.blur_share == pytest.approx(max(p.blur_um for p in there.plane.points))
    assert far * plan.plane.covering.blur_share <= plan.plane.covering.allowed_blur_um < far
    # Its wedge is wider than that of the stop in use: each face passes the corner that it is to hold.
    assert plan.plane.covering.near_face.at_axis_mm < plan.plane.near_face.at_axis_mm
    assert there.plane.near_face.at_axis_mm == pytest.approx(plan.plane.covering.near_face.at_axis_mm)
