"""Rigs whose light is limited in front: what they do to aperture, light, depth and the rest of a plan."""

import math

import pytest

from just_plane.contract.shot import Placed, Shot
from just_plane.core.depth import depth_of_field
from just_plane.planning.plan import plan_shot
from just_plane.shelf.starter import starter_shelf

GEAR = {piece.gear.kit_id: piece.gear for piece in starter_shelf().pieces}


def shot(*rig, depth=0.2, **more):
    pieces = [Placed(gear=GEAR[name.lstrip("~")], reversed=name.startswith("~")).model_dump() for name in rig]
    return Shot.model_validate(
        {
            "format": "just-plane/shot",
            "version": 2,
            "name": "limited in front",
            "subject": {"depth_mm": depth},
            "body": GEAR["body-36-45"].model_dump(),
            "rig": pieces,
            "framing": {"by": "closest"},
            "aperture": {"f_number": 8.0},
            "sharp": {"depth_school": "wave"},
        }
        | more
    )


def facing(**more):
    return shot("~prime-50", "coupling-67-49", "macro-100", **more)


def test_the_stop_in_front_limits_until_the_one_behind_is_narrower():
    plan = plan_shot(facing())
    assert plan.reach.magnification == pytest.approx(2.0)
    works_as = {stop.f_number: stop.effective_f_number for stop in plan.aperture.stops}
    # The 50 mm in front stands wide open at f/1.8: 2 x 1.8.
    assert works_as[2.8] == pytest.approx(3.6)
    assert works_as[8.0] == pytest.approx(8.0)


def test_a_background_blurs_by_the_iris_in_front_where_that_limits():
    """50 mm, P 0.95, reversed at f/4 on a 100 mm: pupil 47.5 mm from the plane of focus, 11.875 mm wide, so what lies
    300 mm behind blurs 2 * 11.875 * 300 / 347.5 = 20.5 mm on the sensor."""
    document = facing(aperture={"f_number": 2.8}, subject={"depth_mm": 0.2, "background_mm": 300.0}).model_dump()
    document["rig"][0]["f_number"] = 4.0
    document["rig"][0]["gear"] |= {"focal_length_mm": 50.0, "pupil_magnification": 0.95}
    plan = plan_shot(Shot.model_validate(document))
    assert plan.reach.entrance_pupil_mm == pytest.approx(47.5)
    way = next(way for way in plan.ways if way.id == "one")
    assert way.steady.background_um / 1000 == pytest.approx(20.5, abs=0.1)


def test_an_objective_whose_own_stop_limits_sees_from_endlessly_far():
    plan = plan_shot(shot("objective-10", "tube-lens-200", aperture={"f_number": 4.0}))
    assert plan.reach.entrance_pupil_mm == pytest.approx(1e6)


def test_the_front_lens_may_be_stopped_down_by_itself():
    document = facing().model_dump()
    document["rig"][0]["f_number"] = 5.6
    plan = plan_shot(Shot.model_validate(document))
    works_as = {stop.f_number: stop.effective_f_number for stop in plan.aperture.stops}
    assert works_as[4.0] == works_as[10.0] == pytest.approx(11.2)
    assert works_as[16.0] == pytest.approx(16.0)


def test_stops_that_change_no_light_change_no_shutter_time():
    document = facing().model_dump()
    document["rig"][0]["f_number"] = 5.6
    plan = plan_shot(Shot.model_validate(document | {"light": {"metered_f_number": 8.0, "metered_shutter_s": 0.5}}))
    times = {stop.f_number: stop.shutter_s for stop in plan.aperture.stops}
    assert times[4.0] == times[8.0] == pytest.approx(0.5)
    assert times[22.0] == pytest.approx(0.5 * (22.0 / 11.2) ** 2, rel=1e-3)
    hand = {"metered_f_number": 8.0, "metered_shutter_s": 0.5, "meter": "hand_held"}
    by_hand = plan_shot(Shot.model_validate(document | {"light": hand}))
    assert {stop.f_number: stop.shutter_s for stop in by_hand.aperture.stops}[8.0] == pytest.approx(
        0.5 * (11.2 / 8) ** 2
    )


def test_the_subject_stands_at_the_front_lenss_register():
    reach = plan_shot(facing()).reach
    # Its focus lies where its sensor would be: a register before its mount, which now looks at the subject.
    assert reach.working_distance_mm == pytest.approx(18.0)
    lengths = {piece.name: piece.length_mm for piece in reach.pieces}
    assert reach.lens_front_to_sensor_mm == pytest.approx(sum(lengths.values()))
    assert lengths["50 mm, f/1.8"] == 52


@pytest.mark.parametrize("set_to", [60.0, 90.0, 150.0])
def test_a_zoom_in_front_is_as_long_as_where_it_is_set(set_to):
    """Whatever it is set to, its focus lies a register before its mount, which looks at the subject: 18 mm of room."""
    zoom = {
        "kind": "zoom",
        "name": "60-150 mm, f/4",
        "short": {"focal_length_mm": 60, "minimum_focus_distance_mm": 450, "closest_magnification": 0.16,
                  "widest_f_number": 4, "narrowest_f_number": 22, "barrel_mm": 90},
        "long": {"focal_length_mm": 150, "minimum_focus_distance_mm": 500, "closest_magnification": 0.42,
                 "widest_f_number": 4, "narrowest_f_number": 22, "barrel_mm": 125},
        "thread_mm": 67,
    }  # fmt: skip
    document = facing().model_dump()
    document["rig"][0] = {"gear": zoom, "reversed": True, "at_focal_length_mm": set_to}
    reach = plan_shot(Shot.model_validate(document)).reach
    assert reach.working_distance_mm == pytest.approx(18.0)


def test_depth_by_the_wave_is_that_of_the_numerical_aperture():
    plan = plan_shot(shot("objective-10", "tube-lens-200", aperture={"f_number": 4.0}))
    assert plan.aperture.depth_of_field_mm == pytest.approx(0.00055 / 0.28**2)
    assert plan.aperture.depth_of_field_mm == pytest.approx(depth_of_field("wave", 0.02, 10 / 0.56, 10.0))


def test_a_tube_lens_of_another_length_gives_another_size_at_the_same_aperture():
    half = plan_shot(shot("objective-10", "macro-100", aperture={"f_number": 4.0}))
    assert half.reach.magnification == pytest.approx(5.0)
    assert half.aperture.numerical_aperture == pytest.approx(0.28)


def test_an_objective_with_an_iris_has_stops_and_one_without_has_one():
    finite = shot("objective-4-finite", "bellows-40-150").model_dump()
    assert len(plan_shot(Shot.model_validate(finite)).aperture.stops) == 1
    finite["rig"][0]["gear"]["iris_to"] = 0.05
    stops = plan_shot(Shot.model_validate(finite)).aperture.stops
    assert (stops[0].f_number, stops[-1].f_number) == (5.0, 10.0)
    assert len(stops) > 4


def test_every_depth_school_and_way_stands_up_to_an_endless_pupil():
    plan = plan_shot(shot("objective-10", "tube-lens-200", depth=0.05, aperture={"f_number": 4.0}))
    for school in plan.aperture.schools:
        assert math.isfinite(school.total_mm)
        if school.far_mm is not None:
            assert school.near_mm == pytest.approx(school.far_mm, rel=1e-6)
    rail = next(way for way in plan.ways if way.id == "rail")
    assert rail.cover == pytest.approx(1.0)
    assert rail.frames == 3 + math.ceil(0.05 / (math.floor(0.5 * plan.aperture.depth_of_field_mm * 1e7) / 1e7))


FINITE_TOO = {
    # 4x on 150 mm of tube is a thin lens of 150 / 5 = 30 mm; its 18 mm of room are engraved for a subject that lies
    # 30 (1 + 1/4) = 37.5 mm before that lens. At 2x the subject lies 30 (1 + 1/2) = 45 mm before it, 7.5 mm farther.
    2.0: 18 + 7.5,
    4.0: 18.0,
    4.6: 18 + 30 * (1 / 4.6 - 1 / 4),
}


@pytest.mark.parametrize(("size", "room"), FINITE_TOO.items())
def test_the_room_before_a_finite_objective_is_what_is_engraved_at_its_own_size_only(size, room):
    framed = shot("objective-4-finite", "bellows-40-150", framing={"by": "magnification", "magnification": size})
    assert plan_shot(framed).reach.working_distance_mm == pytest.approx(room, rel=1e-6)


def cautions(plan):
    return {finding.code: finding for finding in plan.findings}


@pytest.mark.parametrize(("size", "said"), [(2.0, True), (2.7, False), (4.6, False)])
def test_a_finite_objective_far_from_its_own_size_is_said_to_be_soft(size, said):
    framed = shot("objective-4-finite", "bellows-40-150", framing={"by": "magnification", "magnification": size})
    found = cautions(plan_shot(framed))
    assert ("objective.off_its_size" in found) == said
    if said:
        finding = found["objective.off_its_size"]
        assert finding.message == "This objective is corrected for 4×, on 150 mm of tube; here it works at 2×."
        assert finding.field == "/rig/0/gear"
    assert "objective.short_tube_lens" not in found


@pytest.mark.parametrize(("behind", "said"), [("tube-lens-200", False), ("macro-150", False), ("macro-100", True)])
def test_an_objective_on_a_short_lens_is_said_to_light_a_smaller_circle(behind, said):
    found = cautions(plan_shot(shot("objective-10", behind, aperture={"f_number": 4.0})))
    assert ("objective.short_tube_lens" in found) == said
    assert "objective.off_its_size" not in found
    if said:
        assert "a lens of 200 mm; on 100 mm" in found["objective.short_tube_lens"].message


@pytest.mark.parametrize("size", [1.6, 4.0])
def test_where_an_objective_focuses_lies_between_where_it_can(size):
    """30 mm, 58 to 168 mm from the sensor: f (2 + m + 1/m) is 120 mm at life size and 204.5 mm at 4.6x, and paper moves
    all of it by what the objective's own room is other than a thin lens's."""
    reach = plan_shot(
        shot("objective-4-finite", "bellows-40-150", framing={"by": "magnification", "magnification": size})
    ).reach
    moved = reach.subject_to_sensor_mm - 30 * (2 + size + 1 / size)
    assert reach.nearest_focus_mm == pytest.approx(120 + moved, rel=1e-3)
    assert reach.farthest_focus_mm == pytest.approx(30 * (2 + 4.6 + 1 / 4.6) + moved, rel=1e-6)
    assert reach.nearest_focus_mm < reach.subject_to_sensor_mm < reach.farthest_focus_mm
