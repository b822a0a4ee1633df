"""Lenses of which the paper says little, or that go from one large size to another: worked out by hand."""

import pytest

from just_plane.contract.kit import Kit
from just_plane.contract.shot import Shot
from just_plane.core.data_sheet import closest_size, focal_length_at_closest, large_sizes_only
from just_plane.core.errors import OutOfDomainError
from just_plane.core.pieces import Bellows, Tube
from just_plane.core.rig import Rig
from just_plane.planning.kit.check import check_kit
from just_plane.planning.plan import plan_shot
from just_plane.shelf.starter import starter_shelf

GEAR = {piece.gear.kit_id: piece.gear.model_dump() for piece in starter_shelf().pieces}
LARGE = {
    "kind": "lens",
    "name": "65 mm, 2.5 to 5 times only",
    "focal_length_mm": 65.0,
    "closest_magnification": 5.0,
    "smallest_magnification": 2.5,
    "barrel_mm": 98.0,
    "barrel_growth_mm": 130.0,
    "widest_f_number": 2.8,
    "narrowest_f_number": 16.0,
}


def planned(gear, framing, rig=None, **changes):
    return plan_shot(
        Shot.model_validate(
            {
                "format": "just-plane/shot",
                "version": 2,
                "name": "large",
                "subject": {"depth_mm": 0.5},
                "body": GEAR["body-36-45"],
                "rig": rig or [{"gear": gear}],
                "framing": framing,
                "aperture": {"f_number": 4.0},
                **changes,
            }
        )
    )


def kit_of(gear):
    piece = {"gear": gear | {"kit_id": "it"}}
    return Kit.model_validate({"format": "just-plane/kit", "version": 1, "pieces": [piece]})


def at(size):
    return {"by": "magnification", "magnification": size}


def test_it_goes_from_its_smallest_size_to_its_largest():
    reach = planned(LARGE, at(3.0)).reach
    assert (reach.smallest_magnification, reach.largest_magnification) == pytest.approx((2.5, 5.0))
    assert reach.farthest_focus_mm is not None
    # A thin lens: subject to sensor f (2 + m + 1/m), light N (1 + m).
    assert reach.subject_to_sensor_mm == pytest.approx(65 * (2 + 3 + 1 / 3))
    assert planned(LARGE, at(3.0)).aperture.effective_f_number == pytest.approx(4 * 4)


def test_a_size_that_it_does_not_reach_is_refused_with_those_it_does():
    plan = planned(LARGE, at(1.0))
    assert "2.5× to 5×" in plan.verdict.headline
    assert plan.reach is None


def test_closest_is_its_largest():
    assert planned(LARGE, {"by": "closest"}).reach.magnification == pytest.approx(5)


@pytest.mark.parametrize(
    ("rooms", "size", "room"),
    [
        ({"working_distance_mm": 41.0}, 5.0, 41.0),
        # The lens draws off by f (1/m - 1/5).
        ({"working_distance_mm": 41.0}, 2.5, 41 + 65 * 0.2),
        ({"farthest_working_distance_mm": 54.0}, 5.0, 41.0),
        ({"working_distance_mm": 41.0, "farthest_working_distance_mm": 63.0}, 2.5, 63.0),
        # Evenly with 1/m between two that are known.
        ({"working_distance_mm": 41.0, "farthest_working_distance_mm": 63.0}, 10 / 3, 41 + 22 * 0.5),
    ],
)
def test_working_distance_from_one_or_two_on_paper(rooms, size, room):
    assert planned(LARGE | rooms, at(size)).reach.working_distance_mm == pytest.approx(room)


def test_behind_a_tube_it_goes_on_from_there():
    # The tube adds 20 / 65 to the size at either end.
    reach = planned(LARGE, at(4.0), rig=[{"gear": LARGE}, {"gear": GEAR["tube-20"]}]).reach
    extra = GEAR["tube-20"]["length_mm"] / 65
    assert (reach.smallest_magnification, reach.largest_magnification) == pytest.approx((2.5 + extra, 5 + extra))


NEAR = {"working_distance_mm": 41.0}


def test_a_close_up_lens_before_it_takes_room_and_gives_none():
    # At 5x the subject stands 65 (1 + 1/5) = 78 mm before the lens and 41 mm before its glass, so the lens is 37 mm in.
    # With +5 dioptres touching it: 1/u = 1/65 + 1/200 - 1/390.
    close_up = GEAR["close-up-5-77"]
    reach = planned(LARGE | NEAR, {"by": "closest"}, rig=[{"gear": close_up}, {"gear": LARGE | NEAR}]).reach
    u = 1 / (1 / 65 + 5 / 1000 - 1 / 390)
    assert reach.magnification == pytest.approx(390 / u)
    assert reach.working_distance_mm == pytest.approx(u - 37 - close_up["thickness_mm"])


def test_a_tube_behind_it_takes_room_as_the_lens_law_says():
    # Its ring at 2.5x the lens lies 65 (1 + 1/2.5) - 54 = 37 mm in; 20 mm more behind it make 2.5 + 20/65 times.
    rooms = {"working_distance_mm": 41.0, "farthest_working_distance_mm": 54.0}
    size = 2.5 + 20 / 65
    reach = planned(LARGE | rooms, at(size), rig=[{"gear": LARGE | rooms}, {"gear": GEAR["tube-20"]}]).reach
    assert reach.working_distance_mm == pytest.approx(65 * (1 + 1 / size) - 37)


def test_the_distances_said_of_it_agree_with_each_other():
    near, far = (planned(LARGE | NEAR, at(size)).reach for size in (5.0, 2.5))
    ends = sorted((near.subject_to_sensor_mm, far.subject_to_sensor_mm))
    assert (near.nearest_focus_mm, near.farthest_focus_mm) == pytest.approx(ends)
    body = GEAR["body-36-45"]["register_mm"]
    assert near.subject_to_sensor_mm == pytest.approx(body + 98 + 130 + 41)


def test_its_closest_focus_alone_says_where_its_front_stands():
    reach = planned(LARGE | {"minimum_focus_distance_mm": 300.0}, at(5.0)).reach
    assert reach.subject_to_sensor_mm == pytest.approx(300)
    assert reach.working_distance_mm == pytest.approx(300 - GEAR["body-36-45"]["register_mm"] - 98 - 130)


def said_about(gear):
    return [each.code for each in planned(gear, at(5.0)).findings]


def test_a_barrel_too_short_for_its_focal_length_is_doubted():
    # 65 (2 + 5 + 1/5) = 468 mm from subject to sensor by the focal length; by barrel and room 269 mm, or 419 mm.
    assert "lens.length_disagrees" in said_about(LARGE | NEAR)
    assert "lens.length_disagrees" not in said_about(LARGE | NEAR | {"barrel_growth_mm": 280.0})
    # Who gives the closest focus has said that it does not keep its focal length.
    assert "lens.length_disagrees" not in said_about(LARGE | NEAR | {"minimum_focus_distance_mm": 287.0})


def test_a_close_up_lens_on_a_thread_not_known_is_said():
    close_up = GEAR["close-up-5-77"]
    with_thread = LARGE | {"thread_mm": 77.0}
    for gear, unknown in ((LARGE, True), (with_thread, False)):
        plan = planned(gear, {"by": "closest"}, rig=[{"gear": close_up}, {"gear": gear}])
        assert ("thread.unknown" in [each.code for each in plan.findings]) is unknown


def test_on_bellows_it_begins_at_its_smallest_size():
    rig = Rig((large_sizes_only(65.0, 2.5, 5.0), Bellows(40.0, 140.0)))
    assert rig.magnification_range() == pytest.approx((2.5 + 40 / 65, 5 + 140 / 65))
    assert rig.at_magnification(4.0).magnification() == pytest.approx(4.0)
    assert rig.at_magnification(4.0).lens.own_magnification == pytest.approx(2.5)
    assert rig.at_magnification(3.5).bellows.length == pytest.approx(65.0)


def test_one_size_only_has_no_ring():
    rig = Rig((large_sizes_only(50.0, 4.0, 4.0), Tube(10.0)))
    assert rig.is_fixed
    assert rig.magnification() == pytest.approx(4.2)


def test_sizes_the_wrong_way_round_are_refused_at_the_field():
    plan = planned(LARGE | {"smallest_magnification": 6.0}, at(3.0))
    (said,) = [each for each in plan.findings if each.severity == "trouble"]
    assert said.field == "/rig/0/gear/smallest_magnification"
    assert "Swap the two" in said.remedy


def test_a_lens_without_a_closest_focus_takes_that_of_a_thin_one_and_says_so():
    lens = GEAR["macro-100"] | {"minimum_focus_distance_mm": None, "closest_magnification": 1.0}
    assert planned(lens, at(1.0)).reach.subject_to_sensor_mm == pytest.approx(400)
    said = check_kit(kit_of(lens))
    assert any("400 mm is assumed" in each.message for each in said)


ZOOM = {
    "kind": "zoom",
    "short": {
        "focal_length_mm": 24.0, "widest_f_number": 4.0, "narrowest_f_number": 22.0,
        "minimum_focus_distance_mm": 450.0, "barrel_mm": 90.0,
    },
    "long": {
        "focal_length_mm": 105.0, "widest_f_number": 4.0, "narrowest_f_number": 22.0,
        "minimum_focus_distance_mm": 450.0, "closest_magnification": 0.24, "barrel_mm": 120.0,
    },
}  # fmt: skip


def test_a_zoom_with_one_size_on_paper_breathes_at_both_ends_alike():
    # At the long end f is 450 x 0.24 / 1.24^2 = 70.24 mm, 0.669 of the 105 engraved. So 24 mm are 16.05 mm up close,
    # and 450 = 16.05 (2 + m + 1/m) is solved by m = 0.03848.
    plan = planned(ZOOM, {"by": "closest"}, rig=[{"gear": ZOOM, "at_focal_length_mm": 24.0}])
    assert plan.reach.magnification == pytest.approx(0.03848, abs=2e-5)
    assert plan.reach.focal_length_now_mm == pytest.approx(16.05, abs=0.01)
    said = check_kit(kit_of(ZOOM))
    assert any("Size at the short end not known: 0.0385× is assumed" in each.message for each in said)


def test_a_size_from_the_distance_alone_gives_that_distance_back():
    for focal_length, distance, breathes in ((50.0, 400.0, 1.0), (105.0, 450.0, 0.7), (60.0, 240.0, 1.0)):
        size = closest_size(focal_length, distance, breathes)
        assert 0 < size <= 1
        assert focal_length_at_closest(distance, size) == pytest.approx(focal_length * breathes)


def test_a_distance_too_close_for_the_focal_length_asks_for_the_size():
    with pytest.raises(OutOfDomainError, match="no size follows"):
        closest_size(100.0, 399.0)
    said = check_kit(
        kit_of(ZOOM | {"long": ZOOM["long"] | {"closest_magnification": None, "minimum_focus_distance_mm": 400.0}})
    )
    assert any("no size follows" in each.message for each in said)
