"""One list of gear for a day's shots."""

from just_plane.planning.kit.packing import packing
from just_plane.planning.plan import plan_shot


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


def test_a_plan_says_what_the_gear_costs_where_it_was_typed(pod, changed):
    assert plan_shot(pod).gear_cost is None
    body = pod.body.model_dump() | {"cost": 900.0}
    rig = [piece.model_dump() for piece in pod.rig]
    rig[0]["gear"]["cost"] = 250.5
    plan = plan_shot(changed(pod, {"/body": body, "/rig": rig, "/on_set": []}))
    assert (plan.gear_cost, plan.gear_cost_unknown) == (1150.5, len(rig) - 1)
