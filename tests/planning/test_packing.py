"""One list of gear for a day's shots."""

from just_plane.planning.kit.packing import packing


def test_every_piece_once_and_as_many_as_the_shot_that_needs_most(pod, tray, changed):
    lamp = {"kind": "light", "name": "lamp", "kit_id": "lamp", "width_mm": 60.0, "height_mm": 60.0, "cost": 40.0}
    two = changed(pod, {"/name": "two lamps", "/on_set": [{"gear": lamp}, {"gear": lamp}]})
    one = changed(pod, {"/name": "one lamp", "/on_set": [{"gear": lamp}]})
    listed = packing("day", [one, two])
    (packed,) = [each for each in listed.pieces if each.kit_id == "lamp"]
    assert (packed.count, packed.shots) == (2, ["one lamp", "two lamps"])
    assert listed.cost == 80
    assert listed.without_cost == len(listed.pieces) - 1
    bodies = [each for each in listed.pieces if each.kind == "body"]
    assert len(bodies) == 1
    assert listed.pieces[0].kind == "body"


def test_a_rail_that_stands_in_the_stack_by_name_is_packed_once(pod, changed):
    shots = [
        changed(pod, {"/name": name, "/stack/rail_name": "short rail", "/stack/rail_kit_id": None, "/on_set": []})
        for name in ("a", "b")
    ]
    rails = [each for each in packing("", shots).pieces if each.kind == "rail"]
    assert [(each.name, each.count, each.shots) for each in rails] == [("short rail", 1, ["a", "b"])]


def test_nothing_to_pack_for_no_shots():
    listed = packing("empty", [])
    assert (listed.pieces, listed.cost) == ([], None)
