"""Plans against sums done another way, and every refusal at its field."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.contract.gear import CHAIN_KINDS
from just_plane.contract.shot import Placed, Shot
from just_plane.core.aperture import effective_f_number
from just_plane.core.depth import depth_of_field
from just_plane.core.sharpness import circle_for_viewing
from just_plane.planning.plan import plan_shot
from just_plane.shelf.starter import starter_shelf


def finding(plan, code):
    found = [each for each in plan.findings if each.code == code]
    assert found, [each.code for each in plan.findings]
    return found[0]


def test_cut_pod_by_hand(pod):
    """Half life size with a 100 mm macro (closest 300 mm at 1x, so 75 mm there): every number by pocket calculator."""
    plan = plan_shot(pod)
    assert plan.reach.focal_length_now_mm == pytest.approx(87.5)  # half way from 100 to 75
    assert plan.reach.subject_to_sensor_mm == pytest.approx(87.5 * (2 + 0.5 + 1 / 0.5))
    assert plan.reach.working_distance_mm == pytest.approx(393.75 - 18 - 122)
    assert plan.reach.frame_width_mm == pytest.approx(72)
    circle = circle_for_viewing(300, 400 / 36)
    assert plan.sharpness.circle_um == pytest.approx(circle * 1000)
    works_as = effective_f_number(5.6, 0.5, 0.8)
    assert plan.aperture.effective_f_number == pytest.approx(works_as)
    depth = depth_of_field("contrast", circle, works_as, 0.5)
    assert plan.aperture.depth_of_field_mm == pytest.approx(depth)
    rail = next(way for way in plan.ways if way.id == "rail")
    step = math.floor(depth / 2 / 0.001) * 0.001
    assert rail.stack.step_mm == pytest.approx(step)
    assert rail.stack.covering_frames == math.ceil(34 / step) + 1
    assert rail.frames == rail.stack.covering_frames + 2
    assert rail.time_s == pytest.approx(rail.frames * (2 + 0.25 * (5.6 / 8) ** 2 + 1))


def test_the_ring_starts_and_ends_where_the_rail_does(pod):
    ways = {way.id: way for way in plan_shot(pod).ways}
    ring, rail = ways["ring"].stack, ways["rail"].stack
    assert ways["ring"].focuses_mm[1] == 0 == ways["rail"].focuses_mm[1]
    assert ways["ring"].focuses_mm[-2] >= 34
    assert ring.step_mm < rail.step_mm < ring.largest_step_mm
    assert 0 < ring.crop < 0.1
    assert ring.magnifications == sorted(ring.magnifications, reverse=True)


def test_a_tube_adds_its_share(catalogue, changed):
    praline = catalogue["praline"]
    plan = plan_shot(praline)
    assert plan.reach.contributions[0].magnification == pytest.approx(12 / plan.reach.focal_length_now_mm)
    bare = plan_shot(changed(praline, {"tubes_mm": []}))
    assert finding(bare, "magnification.beyond").field == "/framing/magnification"
    assert bare.reach is None
    assert "Add a tube" in bare.verdict.detail


def test_schools_of_sharpness_are_all_told_and_one_is_used(pod, changed):
    plan = plan_shot(changed(pod, {"/sharp/school": "pixel"}))
    told = {each.school: each.circle_um for each in plan.sharpness.schools}
    assert told["pixel"] == pytest.approx(2 * 36 / 8256 * 1000) == plan.sharpness.circle_um
    assert told["sensor"] == pytest.approx(math.hypot(36, 24) / 1.5)


def test_a_camera_that_shows_the_effective_number_means_the_same_stop(pod, changed):
    marked = plan_shot(pod)
    shown = changed(pod, {"/aperture": {"f_number": marked.aperture.effective_f_number, "reading": "effective"}})
    assert plan_shot(shown).aperture.f_number == pytest.approx(5.6)
    assert plan_shot(shown).ways[3].frames == marked.ways[3].frames


def test_a_hand_held_meter_is_corrected(pod, changed):
    through = plan_shot(pod).light
    held = plan_shot(changed(pod, {"/light/meter": "hand_held"})).light
    assert math.log2(held.shutter_s / through.shutter_s) == pytest.approx(through.stops_lost)


def test_the_widest_way_is_suggested_and_said(square_foil):
    plan = plan_shot(square_foil)
    assert plan.verdict.way == "one_best"
    assert "holds all of it" in plan.verdict.headline
    assert sum(way.recommended for way in plan.ways) == 1


def test_sentences_speak_inches_when_asked(pod):
    assert " in" in plan_shot(pod, "in").ways[0].note
    assert plan_shot(pod, "in").reach == plan_shot(pod, "mm").reach


SHELF = starter_shelf()


def gear_named(name):
    return next(piece.gear for piece in SHELF.pieces if piece.gear.name == name)


TROUBLES = [
    ({"/framing": {"by": "magnification", "magnification": 3.0}}, "magnification.beyond", "/framing/magnification"),
    ({"/framing": {"by": "frame_width", "frame_width_mm": 4.0}}, "magnification.beyond", "/framing/frame_width_mm"),
    (
        {"tubes_mm": [31.0], "/framing": {"by": "magnification", "magnification": 0.1}},
        "magnification.below",
        "/framing/magnification",
    ),
    (
        {
            "/rig/0/gear": gear_named("35 mm, f/2").model_dump() | {"barrel_mm": 70.0},
            "tubes_mm": [36.0, 36.0, 36.0],
            "/framing": {"by": "magnification", "magnification": 3.1},
        },
        "working_distance.inside_lens",
        "/rig/1/gear/length_mm",
    ),
    ({"/subject/depth_mm": 5000.0, "/rig/0/gear/barrel_mm": 265.0}, "subject.behind_lens_front", "/subject/depth_mm"),
    ({"/subject/depth_mm": 0.0}, "depth.zero", "/subject/depth_mm"),
    ({"/subject/depth_mm": 0.0003}, "depth.below_wavelength", "/subject/depth_mm"),
    ({"/subject/hold_still_s": 0.05}, "hold_still.shorter_than_a_frame", "/subject/hold_still_s"),
    ({"/aperture/f_number": 64.0}, "f_number.not_on_lens", "/aperture/f_number"),
    ({"/aperture/f_number": 6.0}, "f_number.between_clicks", "/aperture/f_number"),
    ({"/aperture/f_number": 32.0}, "depth.none", "/aperture/f_number"),
    ({"/rig/0/gear/widest_f_number": 40.0}, "widest.swapped", "/rig/0/gear/widest_f_number"),
    (
        {"/rig/0/gear/minimum_focus_distance_mm": 3000.0},
        "minimum_focus_distance.disagrees",
        "/rig/0/gear/minimum_focus_distance_mm",
    ),
    ({"/focus_behind_nearest_mm": 400.0}, "focus.behind_pupil", "/focus_behind_nearest_mm"),
    ({"/body/pixels_across": None, "/sharp/school": "pixel"}, "pixels_across.unknown", "/body/pixels_across"),
    ({"/rig/0/gear/barrel_mm": 355.0}, "working_distance.in_shade", "/framing/magnification"),
]


@pytest.mark.parametrize(("values", "code", "field"), TROUBLES, ids=[trouble[1] for trouble in TROUBLES])
def test_bad_input_is_told_at_its_field_and_nothing_breaks(pod, changed, values, code, field):
    plan = plan_shot(changed(pod, values))
    found = finding(plan, code)
    assert found.field == field
    assert found.message.endswith(".")
    assert found.remedy or found.severity == "note"
    assert plan.verdict.headline
    plan.model_dump_json()  # refuses NaN and infinity


def test_a_tube_longer_than_the_focal_length_is_named(pod, changed):
    plan = plan_shot(changed(pod, TROUBLES[3][0]))
    assert "longer than the lens's focal length" in finding(plan, "working_distance.inside_lens").message
    assert plan.verdict.headline.startswith("The focus falls")


def test_no_depth_by_pixels_says_why_and_what_would_work(pod, changed):
    plan = plan_shot(changed(pod, {"/sharp/school": "pixel", "/aperture/f_number": 22.0}))
    said = finding(plan, "depth.none")
    assert "light itself blurs" in said.message
    assert "Open up to f/" in said.remedy
    stacks = [way for way in plan.ways if way.kind != "one_frame"]
    assert all(way.frames == 0 and way.against for way in stacks)


def test_a_rail_too_coarse_is_said_and_the_ring_still_offered(pod, changed):
    ways = {way.id: way for way in plan_shot(changed(pod, {"/stack/rail_smallest_step_mm": 5.0})).ways}
    assert ways["rail"].against[0] == (
        "the rail's smallest step, 5 mm, is coarser than the 0.938 mm asked: 3.12 mm between two frames is in neither"
    )
    assert 0.3 < ways["rail"].cover < 0.6
    assert not ways["rail"].recommended
    assert ways["ring"].frames > 1


def test_a_rail_too_short_and_a_subject_too_restless_stand_against_the_stack(pod, changed):
    plan = plan_shot(changed(pod, {"/stack/rail_travel_mm": 10.0, "/subject/hold_still_s": 30.0}))
    against = next(way for way in plan.ways if way.id == "rail").against
    assert any("of rail" in reason for reason in against)
    assert any("the subject holds 30 s" in reason for reason in against)


def test_a_long_stack_comes_in_slabs(pod, changed):
    rail = next(way for way in plan_shot(changed(pod, {"/aperture/f_number": 2.8})).ways if way.id == "rail")
    assert rail.frames > 60
    assert rail.stack.slabs[-1][1] == rail.frames


def of_kind(*kinds):
    return st.sampled_from([piece.gear for piece in SHELF.pieces if piece.gear.kind in kinds])


placed = st.builds(Placed, gear=of_kind(*CHAIN_KINDS), reversed=st.booleans())


@settings(max_examples=120, deadline=None)
@given(
    of_kind("body"),
    st.lists(placed, max_size=3),
    of_kind("lens", "zoom", "objective"),
    st.lists(placed, max_size=3),
    st.one_of(st.none(), st.floats(1e-6, 1000)),
    st.floats(0, 100_000),
    st.floats(0.5, 256),
    st.sampled_from(["contrast", "geometric", "budget", "wave", "microscopy"]),
    st.one_of(st.none(), st.floats(-100_000, 100_000)),
)
def test_whatever_is_asked_a_plan_comes_back_whole(body, before, lens, behind, m, depth, f_number, school, focus):
    shot = Shot(
        format="just-plane/shot",
        version=2,
        name="any",
        subject={"depth_mm": depth},
        body=body,
        rig=[*before, Placed(gear=lens), *behind],
        framing={"by": "closest"} if m is None else {"by": "magnification", "magnification": m},
        aperture={"f_number": f_number},
        sharp={"depth_school": school},
        focus_behind_nearest_mm=focus,
    )
    plan = plan_shot(shot)
    assert plan.verdict.headline
    assert plan.ways or any(each.severity == "trouble" for each in plan.findings)
    for way in plan.ways:
        assert 0 <= way.cover <= 1
        assert way.frames == len(way.focuses_mm) == len(way.bands_mm)
    plan.model_dump_json()
