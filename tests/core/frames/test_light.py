"""Light through a stack: frames that are dark, light that jumps and stays, light that drifts; by hand."""

import numpy as np
import pytest

from just_plane.core.frames.check.findings import dark_frames, light_findings
from just_plane.core.frames.check.pairs import against_beside, pairs_of
from just_plane.core.frames.check.register import Laid

COUNT = 16
EVEN = np.zeros(COUNT)
ORDER = list(range(100, 100 + COUNT))
SAME_SIZE = np.ones(COUNT - 1)


def said(light, kind="rail", scales=SAME_SIZE, order=None):
    order = ORDER[: len(light)] if order is None else order
    found, dark = light_findings(np.asarray(light, float), order, kind, np.asarray(scales)[: len(light) - 1])
    return [(one.code, one.frame, one.before, one.amount) for one in found], dark


def with_ev(changes, light=EVEN):
    light = light.copy()
    for frame, ev in changes.items():
        light[frame] += ev
    return light


def test_even_light_says_nothing():
    assert said(EVEN) == ([], [])
    sway = 0.01 * np.cos(np.arange(COUNT) * 2.1)
    assert said(sway) == ([], [])


@pytest.mark.parametrize("frame", [0, 7, 15])
def test_a_dark_frame_is_told_wherever_it_stands_by_how_dark_it_is(frame):
    found, dark = said(with_ev({frame: -3.0}))
    assert found == [("dead_flash", 100 + frame, None, pytest.approx(-3.0))]
    assert dark == [100 + frame]


def test_two_dark_frames_beside_each_other_are_both_told():
    found, dark = said(with_ev({7: -2.0, 8: -2.5}))
    assert dark == [107, 108]
    assert [amount for *_, amount in found] == pytest.approx([-2.0, -2.5])


def test_a_little_darker_is_not_dark():
    assert dark_frames(with_ev({7: -0.69})) == []
    assert dark_frames(with_ev({7: -0.71})) == [7]
    # A frame that is bright does not make those beside it dark.
    assert dark_frames(with_ev({7: 2.0})) == []


def test_a_frame_whose_light_is_not_known_is_not_dark_and_hides_nobody():
    light = with_ev({7: -2.0})
    light[6] = np.nan
    assert dark_frames(light) == [7]


def test_light_that_jumps_and_stays_is_told_where_it_does():
    light = EVEN.copy()
    light[9:] -= 0.2
    assert said(light) == ([("light_jump", 109, 108, pytest.approx(-0.2))], [])


def test_one_lighter_frame_does_not_stay():
    assert said(with_ev({9: 0.3})) == ([], [])


@pytest.mark.parametrize("over", [-0.06, 0.039, 0.3])
def test_a_drift_is_told_by_how_far_it_goes_over_the_stack(over):
    (found,), dark = said(over * np.linspace(-0.5, 0.5, COUNT))
    assert (found[0], found[1], dark) == ("light_drift", None, [])
    assert found[3] == pytest.approx(over, rel=0.01)


def test_a_drift_too_small_to_tell_is_none():
    assert said(0.037 * np.linspace(0, 1, COUNT)) == ([], [])


def test_one_wild_frame_makes_no_drift():
    assert said(with_ev({15: 0.045, 0: -0.04})) == ([], [])


def test_a_dark_frame_does_not_hide_a_drift():
    found, dark = said(with_ev({5: -3.0}, 0.1 * np.linspace(0, 1, COUNT)))
    assert [code for code, *_ in found] == ["dead_flash", "light_drift"]
    assert dark == [105]


def test_a_jump_is_no_drift_as_well():
    light = np.where(np.arange(COUNT) < 8, 0.0, 0.4)
    assert [code for code, *_ in said(light)[0]] == ["light_jump"]


def test_a_ring_makes_the_light_follow_its_own_extension_or_not():
    """A view that grows by 1 % a frame costs 2 log2(1.01) stops of light each; a lens that focuses inside does not."""
    scales = np.full(COUNT - 1, 1.01)
    by_itself = -2 * np.log2(1.01) * np.arange(COUNT)
    assert said(by_itself, "ring", scales) == ([], [])
    assert said(EVEN, "ring", scales) == ([], [])
    assert [code for code, *_ in said(by_itself, "rail", scales)[0]] == ["light_drift"]
    # What is a drift either way is one.
    assert [code for code, *_ in said(0.5 * np.linspace(0, 1, COUNT), "ring", scales)[0]] == ["light_drift"]


def test_seven_frames_do_not_tell_what_is_usual():
    light = np.array([0, 0, 0, 0.3, 0.3, 0.3, 0.3])
    assert said(light) == ([], [])
    assert said(0.3 * np.linspace(0, 1, 7)) == ([], [])
    # A dark one is dark among any.
    assert said([0, 0, -3, 0])[1] == [102]


def test_against_beside_is_the_distance_from_the_median_of_three_on_either_side():
    values = np.array([1.0, 2.0, 4.0, 8.0, 16.0, 32.0, 64.0])
    got = against_beside(values)
    assert got[3] == 8 - np.median([1, 2, 4, 16, 32, 64])
    assert got[0] == 1 - np.median([2, 4, 8])
    assert got[6] == 64 - np.median([8, 16, 32])


def test_what_is_not_known_is_no_neighbour_and_has_none():
    got = against_beside(np.array([1.0, np.nan, 3.0, 5.0]))
    assert np.isnan(got[1])
    assert got[0] == 1 - 4
    assert np.isnan(against_beside(np.array([1.0]))).all()
    assert np.isnan(against_beside(np.array([1.0, np.nan]))).all()


def test_pairs_are_measured_in_the_middle_of_the_view():
    """A view that grows by 1 % about its corner, turns by 0.002 about it and goes 3 px aside."""
    turn = 0.002
    linear = 1.01 * np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])
    followed = type("Followed", (), {})()
    followed.laid, followed.light_ev = Laid(np.column_stack([linear, [3.0, 0.0]]), 0.9), 0.25
    followed.moved = "a part"
    pairs = pairs_of([followed], (100.0, 60.0))
    assert pairs.scale == pytest.approx([1.01])
    assert pairs.turn == pytest.approx([turn])
    assert (pairs.likeness[0], pairs.light[0], pairs.parts) == (0.9, 0.25, ["a part"])
    # x cos - y sin, all times 1.01, less x; and 3.
    expected = (
        1.01 * (100 * np.cos(turn) - 60 * np.sin(turn)) - 97,
        1.01 * (100 * np.sin(turn) + 60 * np.cos(turn)) - 60,
    )
    assert pairs.shift[0] == pytest.approx(expected)


def test_everything_said_of_light_is_in_ev():
    lights = ([0.0] * 6 + [-3.0] + [0.0] * 6, [0.0] * 6 + [0.2] * 6, np.linspace(0.0, 0.2, 12))
    told = [
        one
        for light in lights
        for one in light_findings(np.asarray(light), list(range(len(light))), "rail", np.ones(len(light) - 1))[0]
    ]
    assert [(one.code, one.unit) for one in told] == [
        ("dead_flash", "EV"),
        ("light_jump", "EV"),
        ("light_drift", "EV"),
    ]
