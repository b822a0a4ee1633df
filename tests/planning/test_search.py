"""What of the kit gets a frame: nothing found that does not, nothing missed that does, in the order asked."""

import re
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.contract.kit import Kit, KitPiece, MeasuredRig, empty_kit
from just_plane.contract.search import SearchAsked
from just_plane.contract.shot import FramingByWidth, Shot
from just_plane.core.errors import OpticsError
from just_plane.planning.kit import bounds as kit_bounds
from just_plane.planning.kit.bounds import SLACK, SizeBounds
from just_plane.planning.kit.combinations import groups
from just_plane.planning.kit.search import FITS, search
from just_plane.planning.plan import plan_shot
from just_plane.planning.rig.chain import arrange
from just_plane.planning.rig.rigging import RigAsked, assemble
from just_plane.planning.words.numbers import Wording
from just_plane.shelf.starter import starter_shelf

SHELF = starter_shelf()
GEAR = {piece.gear.kit_id: piece.gear for piece in SHELF.pieces}
BODY = GEAR["body-36-45"]
WORDING = Wording()


def kit_of(*names, **more):
    pieces = [KitPiece(gear=GEAR[name]) for name in names]
    return Kit(format="just-plane/kit", version=1, pieces=pieces, **more)


def ask(kit, width, room=0.0, **more):
    return search(kit, SearchAsked(body=BODY, frame_width_mm=width, room_mm=room, **more), WORDING)


def ids(found):
    return [("~" if placed.reversed else "") + placed.gear.kit_id for placed in found.rig]


def as_shot(found):
    return Shot.model_validate(
        {
            "format": "just-plane/shot",
            "version": 2,
            "name": "found",
            "subject": {"depth_mm": 0.1},
            "body": BODY.model_dump(),
            "rig": [placed.model_dump() for placed in found.rig],
            "framing": found.framing.model_dump(),
            "aperture": {"f_number": found.f_number},
        }
    )


@given(st.floats(3, 400), st.floats(0, 150), st.sampled_from(["best", "room", "light", "pieces"]))
@settings(max_examples=15, deadline=None)
def test_what_is_found_is_what_the_plan_says_on_the_bench(width, room, order):
    answer = ask(SHELF, width, room, order=order, carried_only=False)
    for found in answer.results:
        plan = plan_shot(as_shot(found))
        reach = plan.reach
        cautions = [each.message.rstrip(".") for each in plan.findings if each.severity == "caution"]
        of_rig = [text for text in found.against if not text.endswith(("than asked", "there is room"))]
        assert set(of_rig) <= set(cautions)
        # What the plan says of the rig's pieces stands against the row too.
        pieces = [each for each in plan.findings if re.fullmatch(r"/rig/\d+/gear", each.field)]
        assert {each.message.rstrip(".") for each in pieces if each.severity == "caution"} <= set(of_rig)
        assert reach.frame_width_mm == pytest.approx(found.frame_width_mm)
        assert reach.working_distance_mm == pytest.approx(found.working_distance_mm)
        assert found.fits == (abs(found.frame_width_mm / width - 1) <= FITS)
        assert found.room_enough == (found.working_distance_mm >= room * (1 - 1e-6))
    fit = [(found.fits, found.room_enough) for found in answer.results]
    assert fit == sorted(fit, reverse=True)


def test_one_lens_and_two_tubes_are_tried_in_every_set():
    answer = ask(kit_of("macro-60", "tube-12", "tube-20"), 30.0)
    assert answer.tried == 4
    found = sorted(tuple(ids(each)) for each in answer.results)
    # 1.2x: the bare lens ends at 1x, 16 % off; each tube reaches it, and both together give nothing that one does not.
    assert found == [("macro-60", "tube-12"), ("macro-60", "tube-20")]
    # 1.5x: one tube ends short of it.
    fits = [ids(each) for each in ask(kit_of("macro-60", "tube-12", "tube-20"), 24.0).results if each.fits]
    assert ["macro-60", "tube-20", "tube-12"] in fits
    assert all(each.fits for each in answer.results)


def test_every_manner_is_found_where_it_is_the_only_one():
    alone = [
        (["macro-100", "close-up-3-67"], 30.0, ["close-up-3-67", "macro-100"]),
        (["prime-50", "close-up-3-52", "step-49-52"], 130.0, ["close-up-3-52", "step-49-52", "prime-50"]),
        (["macro-100", "converter-2"], 18.5, ["macro-100", "converter-2"]),
        (["prime-35", "reversing-49", "tube-12"], 38.0, ["~prime-35", "reversing-49", "tube-12"]),
        (["macro-100", "prime-50", "coupling-67-49"], 18.0, ["~prime-50", "coupling-67-49", "macro-100"]),
        (["objective-10", "tube-lens-200"], 3.6, ["objective-10", "tube-lens-200"]),
        (["objective-4-finite", "bellows-40-150"], 10.0, ["objective-4-finite", "bellows-40-150"]),
        (["macro-100", "bellows-40-150"], 18.0, ["macro-100", "bellows-40-150"]),
        (["zoom-70-200"], 144.0, ["zoom-70-200"]),
    ]
    for names, width, row in alone:
        answer = ask(kit_of(*names), width)
        fitting = [ids(found) for found in answer.results if found.fits]
        assert row in fitting, names


@pytest.mark.parametrize(("width", "fits"), [(36.0, False), (18.0, True), (9.0, True), (5.0, False)])
def test_a_finite_objective_is_not_drawn_out_to_any_size(width, fits):
    """36 mm on 36 mm is life size, a quarter of what a 4x objective is made for; 5 mm would be nearly twice it."""
    answer = ask(kit_of("objective-4-finite", "bellows-40-150", "tube-20"), width, 5.0)
    assert any(found.fits for found in answer.results) == fits
    for found in answer.results:
        # f = 30 mm: as the size falls the subject moves away from what is engraved.
        assert found.working_distance_mm == pytest.approx(18 + 30 * (1 / found.magnification - 1 / 4), rel=1e-6)


def test_both_orders_of_tube_and_converter_are_tried():
    answer = ask(kit_of("macro-100", "tube-20", "converter-2"), 15.5)
    rows = [ids(found) for found in answer.results]
    assert ["macro-100", "tube-20", "converter-2"] in rows
    assert ["macro-100", "converter-2", "tube-20"] in rows


def test_the_room_asked_comes_before_the_cost():
    near = ask(SHELF, 32.0, 60.0)
    assert near.results[0].working_distance_mm >= 60
    none = ask(SHELF, 32.0, 5000.0)
    assert not any(found.room_enough for found in none.results)
    assert "that much room; the most is" in none.headline
    assert "nearer than asked" in none.results[0].against[0]


@pytest.mark.parametrize(
    ("order", "key"),
    [
        ("room", lambda found: -found.working_distance_mm),
        ("light", lambda found: found.stops_lost),
        ("pieces", lambda found: len(found.rig)),
    ],
)
def test_the_order_asked_is_kept(order, key):
    found = [each for each in ask(SHELF, 40.0, 50.0, order=order).results if each.fits and each.room_enough]
    assert len(found) > 5
    assert [key(each) for each in found] == sorted(key(each) for each in found)


def test_only_what_is_carried_is_used_unless_all_is_asked_for():
    kit = Kit(
        format="just-plane/kit",
        version=1,
        pieces=[KitPiece(gear=GEAR["macro-100"], carried=False), KitPiece(gear=GEAR["macro-60"])],
    )
    assert {ids(found)[0] for found in ask(kit, 72.0).results} == {"macro-60"}
    assert {ids(found)[0] for found in ask(kit, 72.0, carried_only=False).results} == {"macro-60", "macro-100"}


def test_an_empty_kit_says_so():
    assert ask(empty_kit(), 30.0, carried_only=False).headline == "There is no lens in the kit to search with."
    left = Kit(format="just-plane/kit", version=1, pieces=[KitPiece(gear=GEAR["macro-100"], carried=False)])
    answer = ask(left, 30.0)
    assert (answer.tried, answer.results) == (0, [])
    assert answer.headline == "No lens of the kit is on the table today."


LOOKS = ["frame", "closest", "widest"]


@pytest.mark.parametrize("look_for", LOOKS)
@pytest.mark.parametrize(
    ("names", "pointer", "value"),
    [
        # A lens of a tenth of a millimetre makes no row that can be, with bellows behind it or without.
        (("macro-100", "bellows-40-150", "converter-2"), "0/focal_length_mm", 0.1),
        # Between a tenth and 70 mm a zoom has marks, and none at 0.
        (("zoom-24-70", "objective-5", "converter-2"), "0/short/focal_length_mm", 0.1),
        # A close-up lens a hundred metres thick, lenses of hardly any size: pictures no shot can ask for.
        (("macro-60", "bellows-40-150", "close-up-3-52"), "2/thickness_mm", 1e5),
        (("macro-60", "macro-100"), "0/closest_magnification", 1e-7),
        (("macro-100", "macro-60", "reversing-49", "tube-36"), "3/length_mm", 1e5),
    ],
)
def test_a_kit_with_a_number_that_cannot_be_is_searched_all_the_same(names, pointer, value, look_for):
    document = kit_of(*names).model_dump(mode="json")
    index, *path = pointer.split("/")
    place = document["pieces"][int(index)]["gear"]
    for part in path[:-1]:
        place = place[part]
    assert path[-1] in place
    place[path[-1]] = value
    for width in (0.1, 36.0, 1e5):
        assert ask(Kit.model_validate(document), width, look_for=look_for).headline


def test_a_frame_that_nothing_gets_is_said():
    answer = ask(kit_of("macro-100"), 1.0)
    # The nearest there is, and said not to fit: life size on 36 mm.
    assert [(each.frame_width_mm, each.fits) for each in answer.results] == [(pytest.approx(36.0), False)]
    assert answer.headline.startswith("Nothing gets 1 mm; the nearest is 36 mm (1×)")


def test_a_measured_size_is_used_where_there_is_one():
    measured = MeasuredRig(
        rig=["~prime-35", "reversing-49", "tube-12", "body-36-45"], magnification=1.0, uncertainty=0.01, modelled=0.943
    )
    kit = kit_of("prime-35", "reversing-49", "tube-12", measured_rigs=[measured])
    plain = ask(kit_of("prime-35", "reversing-49", "tube-12"), 38.0).results
    found = next(each for each in ask(kit, 36.0).results if len(each.rig) == 3 and each.rig[0].reversed)
    assert found.measured.magnification == 1.0
    assert found.magnification == pytest.approx(1.0, rel=1e-3)
    assert plain[0].measured is None


def test_every_row_tried_is_one_that_can_be_built():
    for group in groups(list(GEAR.values())):
        row = group.row(len(group.extensions) - 1)
        assert arrange(row).pieces == tuple(row)


def test_no_group_is_left_out_that_comes_near():
    """The rough bounds against every rig built: what a row really gives lies within them."""
    bounds = SizeBounds()
    base = RigAsked(BODY, None, [], FramingByWidth(by="frame_width", frame_width_mm=36.0))
    looked = 0
    for group in groups(list(GEAR.values()))[::7]:
        low, high = bounds.of(group)
        for index in {0, len(group.extensions) - 1}:
            row = arrange(group.row(index))
            _, rig = assemble(replace(base, rig=group.row(index)), row, WORDING)
            try:
                smallest, largest = rig.magnification_range()
            except OpticsError:
                continue
            looked += 1
            assert largest <= high * SLACK
            assert smallest >= low / SLACK
    assert looked > 20


def test_a_kit_too_large_to_try_says_what_was_left_out(monkeypatch):
    monkeypatch.setattr(kit_bounds, "MOST_GROUPS", 5)
    answer = ask(SHELF, 40.0, carried_only=False)
    assert re.search(r"This kit makes [\d,]+ rows: [\d,]+ with the most pieces were left out", answer.bounds)
    assert all(len(found.rig) <= 4 for found in answer.results)
    # Where nothing comes near, what is tried instead is what is counted.
    far = ask(SHELF, 1e-3, carried_only=False)
    numbers = re.search(r"makes ([\d,]+) rows: ([\d,]+) with", far.bounds).groups()
    made, left_out = (int(number.replace(",", "")) for number in numbers)
    assert far.tried == made - left_out
    assert made == sum(len(group.extensions) for group in groups(list(GEAR.values())))
    monkeypatch.undo()
    assert "left out" not in ask(SHELF, 40.0, carried_only=False).bounds


def test_of_rows_alike_in_light_and_pieces_the_one_with_most_room_comes_first():
    """1.15x: the ring does the rest behind any one tube, for the same light; a shorter one leaves more room."""
    results = [each for each in ask(kit_of("macro-60", "tube-12", "tube-20", "tube-31"), 31.3).results if each.fits]
    assert [ids(each) for each in results[:3]] == [["macro-60", f"tube-{length}"] for length in (12, 20, 31)]
    assert [each.working_distance_mm for each in results[:3]] == sorted(
        (each.working_distance_mm for each in results[:3]), reverse=True
    )
    light = [each.stops_lost for each in results[:3]]
    assert max(light) - min(light) < 0.1


@pytest.mark.parametrize("look_for", ["frame", "closest", "widest"])
def test_objectives_with_nothing_to_put_behind_them_are_said_to_need_it(look_for):
    answer = ask(kit_of("objective-10", "objective-4-finite"), 6.0, 10.0, look_for=look_for)
    assert (answer.tried, answer.results) == (0, [])
    assert answer.headline == "An objective needs a lens, tubes or bellows behind it, and none is on the table today."
    assert ask(kit_of("objective-4-finite", "bellows-40-150"), 10.0, look_for=look_for).tried > 0


@pytest.mark.parametrize("width", [6.0, 12.0, 40.0])
def test_no_two_rows_read_alike(width):
    """6 mm: zooms near 120 mm are all set to it behind the objective, and a turned lens is held by either ring."""
    results = ask(SHELF, width, 10.0, carried_only=False).results
    read = [(each.title, round(each.working_distance_mm, 1), round(each.stops_lost, 1)) for each in results]
    assert len(set(read)) == len(read) > 3


def test_of_two_rings_that_hold_a_turned_lens_the_one_without_a_step_ring_is_told():
    kit = kit_of("manual-28", "reversing-49", "reversing-52", "step-49-52", "bellows-40-150")
    turned = [ids(each) for each in ask(kit, 6.0, 10.0).results if each.rig[0].reversed]
    assert turned == [["~manual-28", "reversing-49", "bellows-40-150"]]


def test_of_rows_alike_in_light_the_one_with_fewer_pieces_comes_first():
    """Extension costs by the size it gives, whichever tubes hold it open: what is left to choose by is the handling."""
    results = [found for found in ask(kit_of("macro-60", "tube-12", "tube-20", "tube-31"), 24.0).results if found.fits]
    lost = [found.stops_lost for found in results]
    assert max(lost) - min(lost) < 0.25  # less than the half stop that a piece counts
    pieces = [len(found.rig) for found in results]
    assert pieces[0] == 2
    assert pieces[-1] == 3
    assert pieces == sorted(pieces)


def test_a_tube_that_changes_nothing_is_not_offered():
    """A lens for large sizes only draws in by what the tube holds open: the same picture with one piece more."""
    large = {
        "kind": "lens", "name": "65 mm, 2.5 to 5 times", "kit_id": "large-65", "focal_length_mm": 65.0,
        "closest_magnification": 5.0, "smallest_magnification": 2.5, "barrel_mm": 98.0, "barrel_growth_mm": 280.0,
        "working_distance_mm": 41.0, "widest_f_number": 2.8, "narrowest_f_number": 16.0,
    }  # fmt: skip
    kit = kit_of("tube-10", "tube-20").model_dump()
    kit["pieces"].append({"gear": large})
    kit = Kit.model_validate(kit)
    assert [ids(found) for found in ask(kit, 12.0).results] == [["large-65"]]
    # Where only the tubes reach, both together: 0.46x on 5x.
    assert {len(found.rig) for found in ask(kit, 36 / 5.45).results if found.fits} == {3}


ZOOM = {
    "kind": "zoom",
    "name": "60-150 mm, f/4",
    "kit_id": "zoom-60-150",
    "short": {"focal_length_mm": 60, "minimum_focus_distance_mm": 500, "closest_magnification": 0.15,
              "widest_f_number": 4, "narrowest_f_number": 22, "barrel_mm": 90},
    "long": {"focal_length_mm": 150, "minimum_focus_distance_mm": 500, "closest_magnification": 0.22,
             "widest_f_number": 4, "narrowest_f_number": 22, "barrel_mm": 125},
    "thread_mm": 67,
}  # fmt: skip


def kit_with_zoom(*names):
    kit = kit_of(*names).model_dump()
    kit["pieces"].append({"gear": ZOOM})
    return Kit.model_validate(kit)


@pytest.mark.parametrize("width", [36.0, 40.0, 47.0, 55.0, 63.0])
def test_a_zoom_with_a_close_up_lens_is_found_between_its_ends(width):
    """+8 on 60 to 150 mm: 0.48x at the short end and infinity to 1.20x at the long one; all between is there."""
    strong = {
        "kind": "close_up",
        "name": "+8",
        "kit_id": "plus-8",
        "dioptres": 8.0,
        "thickness_mm": 10,
        "thread_mm": 67,
    }
    kit = kit_with_zoom().model_dump()
    kit["pieces"].append({"gear": strong})
    answer = ask(Kit.model_validate(kit), width)
    assert answer.results
    assert answer.results[0].fits
    assert answer.results[0].frame_width_mm == pytest.approx(width, rel=1e-6)


def test_nothing_that_focuses_so_near_is_said():
    answer = ask(kit_of("macro-100"), 30.0, 20.0, look_for="widest")
    assert answer.results == []
    assert answer.headline == "Nothing on the table focuses within 20 mm of its front."
    far = ask(kit_of("macro-100"), 30.0, 2000.0, look_for="closest")
    assert far.results[0].working_distance_mm >= 2000 * 0.98


def test_what_gets_closest_is_the_most_that_any_row_gives():
    kit = kit_of("macro-60", "macro-100", "tube-12", "tube-20")
    answer = ask(kit, 30.0, look_for="closest")
    # 60 mm at its closest on both tubes, by hand: its own size there and 32 mm over its focal length there.
    lens = GEAR["macro-60"]
    near = lens.minimum_focus_distance_mm * lens.closest_magnification / (1 + lens.closest_magnification) ** 2
    assert answer.results[0].magnification == pytest.approx(lens.closest_magnification + 32 / near, rel=1e-6)
    assert answer.headline.startswith(answer.results[0].title + " gets closest: ")
    sizes = [found.magnification for found in answer.results]
    assert sizes == sorted(sizes, reverse=True)


@pytest.mark.parametrize("room", [100.0, 150.0, 250.0])
def test_the_closest_keeps_the_room_asked_and_the_widest_stays_within_it(room):
    kit = kit_of("macro-60", "macro-100", "tube-12", "tube-20")
    closest = ask(kit, 30.0, room, look_for="closest").results[0]
    assert closest.working_distance_mm >= room * 0.98
    widest = ask(kit, 30.0, room, look_for="widest").results[0]
    assert widest.working_distance_mm <= room * 1.001
    # Brute force: no framing of any of the rows does better.
    for names in (("macro-60",), ("macro-100",), ("macro-60", "tube-12"), ("macro-60", "tube-20"),
                  ("macro-100", "tube-12"), ("macro-100", "tube-20"), ("macro-60", "tube-20", "tube-12"),
                  ("macro-100", "tube-20", "tube-12")):  # fmt: skip
        for m in (closest.magnification * 1.03, widest.magnification * 0.97):
            rig = [{"gear": GEAR[name].model_dump(), "reversed": False} for name in names]
            shot = as_shot(closest).model_copy(update={})
            document = shot.model_dump() | {"rig": rig, "framing": {"by": "magnification", "magnification": m}}
            reach = plan_shot(Shot.model_validate(document)).reach
            if reach is None:
                continue
            if m > closest.magnification:
                assert reach.working_distance_mm < room
            else:
                assert reach.working_distance_mm > room


def test_a_lens_made_for_the_size_comes_before_one_that_needs_glass_put_on():
    found = ask(kit_of("macro-100", "zoom-70-200", "close-up-3-67"), 43.0).results
    assert ids(found[0]) == ["macro-100"]
    assert any("close-up-3-67" in ids(each) for each in found[1:])
