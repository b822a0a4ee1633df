"""Rows of a kit on a body: set for a size as their rigs say, and assembled once for all searches."""

import numpy as np
import pytest

from just_plane.contract.search import SearchAsked
from just_plane.core.errors import OpticsError
from just_plane.core.pieces import Tube
from just_plane.planning.kit import on_body
from just_plane.planning.kit.extensions import DRAWS
from just_plane.planning.kit.on_body import rows_on
from just_plane.planning.kit.search import search
from just_plane.planning.words.numbers import Wording
from just_plane.shelf.starter import starter_shelf

SHELF = starter_shelf()
GEAR = {piece.gear.kit_id: piece.gear for piece in SHELF.pieces}
BODY = next(gear for gear in GEAR.values() if gear.kind == "body")
ALL = rows_on(BODY, list(GEAR.values()))
EVERY_NINTH = [ALL.assembled(group) for group in ALL.groups[::9]]


def one(rows, length_mm):
    """The rig of one row alone, in plain numbers."""
    return rows.with_extension(length_mm)


def set_for(rows, length_mm, share):
    rig = one(rows, length_mm)
    far, near = rig.farthest_setting, rig.closest_setting
    return float(rig.focused(far + share * (near - far)).magnification())


@pytest.mark.parametrize("wanted", [0.15, 0.5, 1.4, 4.0])
def test_a_row_set_for_a_size_gives_what_is_said_and_none_comes_nearer(wanted):
    looked = 0
    for rows in EVERY_NINTH:
        if rows.rig is None:
            continue
        indices, lengths, shares, reached = rows.nearest(wanted)
        assert list(lengths[:, 0]) == sorted(lengths[:, 0])
        for index, length, share, size in zip(indices, lengths[:, 0].tolist(), shares, reached, strict=True):
            # Between samples of the throw the size is read off a straight line.
            assert set_for(rows, length, float(share)) == pytest.approx(float(size), rel=2e-3, abs=1e-4)
            off = abs(float(size) - wanted)
            for other in np.linspace(0, 1, 9):
                assert off <= abs(set_for(rows, length, float(other)) - wanted) + 2e-3 * wanted
            drawn = index >= len(rows.extensions.lengths)
            if drawn:
                gear = rows.extensions.pieces(index)[0].gear
                assert gear.shortest_mm <= length <= gear.longest_mm
                for draw in np.linspace(gear.shortest_mm, gear.longest_mm, 5):
                    try:
                        size_there = set_for(rows, float(draw), 0.0)
                    except OpticsError:
                        continue
                    assert off <= abs(size_there - wanted) + 2e-3 * wanted
            looked += 1
    assert looked > 30


def test_rows_without_a_picture_are_left_out_and_all_others_are_there():
    """On tubes alone: behind a converter, and turned round, some rows give none."""
    rows_of_tubes = rows_on(BODY, [gear for gear in GEAR.values() if gear.kind != "bellows"])
    kept = left_out = 0
    for group in rows_of_tubes.groups[::3]:
        rows = rows_of_tubes.assembled(group)
        if rows.rig is None:
            continue
        pictured = []
        for index, length in enumerate(rows.extensions.lengths):
            try:
                set_for(rows, float(length), 0.0)
            except OpticsError:
                left_out += 1
                continue
            pictured.append(index)
        assert sorted(rows.nearest(0.5).indices) == pictured
        kept += len(pictured)
    assert (kept > 100, left_out > 0) == (True, True)


def test_where_an_end_is_looked_for_bellows_are_tried_at_many_draws():
    rows = ALL.assembled(next(group for group in ALL.groups if group.extensions.bellows and not group.front))
    (indices, _, lengths), sizes = rows.for_ends
    gear = rows.extensions.bellows[0][0].gear
    draws = [
        length for index, length in zip(indices, lengths[:, 0], strict=True) if index == len(rows.extensions.tubes)
    ]
    assert draws == pytest.approx(np.linspace(gear.shortest_mm, gear.longest_mm, DRAWS))
    assert sizes.shape == rows.rooms_for_ends.shape
    # From the closest to the front of the lens: subject to sensor less what stands between front and sensor.
    rig = one(rows, float(lengths[-1, 0])).focused(one(rows, float(lengths[-1, 0])).closest_setting)
    room = rig.imaging().subject_to_sensor - float(rows.fronts(lengths[-1, 0], 1.0))
    assert rows.rooms_for_ends[-1, -1] == pytest.approx(room)


def test_the_extension_stands_where_the_group_has_it():
    for rows in EVERY_NINTH:
        if rows.rig is None:
            continue
        marked = one(rows, 12.345).elements
        (place,) = [
            index for index, element in enumerate(marked) if isinstance(element, Tube) and element.length == 12.345
        ]
        behind = sum(not isinstance(element, Tube) or element.length == 12.345 for element in marked[place + 1 :])
        assert behind == len(rows.group.behind)


def test_a_second_search_of_the_same_kit_assembles_nothing_anew(monkeypatch):
    def asked(width):
        return search(SHELF, SearchAsked(body=BODY, frame_width_mm=width, room_mm=50.0), Wording())

    first = asked(30.0)
    monkeypatch.setattr(on_body, "assemble", lambda *_: pytest.fail("assembled again"))
    assert asked(30.0) == first
    # Groups that the first frame had no use for may be new to the second; those of both are not.
    assert asked(30.3).results


def test_of_many_groups_the_last_ones_are_kept(monkeypatch):
    monkeypatch.setattr(on_body, "GROUPS_KEPT", 3)
    rows = on_body.KitOnBody(BODY, list(GEAR.values()))
    first, *others = rows.groups[:4]
    made = rows.assembled(first)
    assert rows.assembled(first) is made
    for group in others:
        rows.assembled(group)
    assert rows.assembled(others[-1]) is rows.assembled(others[-1])
    assert rows.assembled(first) is not made


def test_another_body_and_another_kit_have_rows_of_their_own():
    gear = list(GEAR.values())
    assert rows_on(BODY, gear) is rows_on(BODY, list(gear))
    other = BODY.model_copy(update={"register_mm": BODY.register_mm - 20})
    # A lens turned round stands as far from the sensor as the body is deep.
    turned = [next(group for group in rows.groups if group.lens.reversed) for rows in (ALL, rows_on(other, gear))]
    assert ALL.assembled(turned[0]) is ALL.assembled(turned[0])
    assert rows_on(other, gear).assembled(turned[1]).rig != ALL.assembled(turned[0]).rig
    assert len(rows_on(BODY, gear[:6]).groups) < len(ALL.groups)
