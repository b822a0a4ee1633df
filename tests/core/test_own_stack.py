"""Steps of one's own, the gaps they leave, and series from the hand: by hand, by brute force, by drawing."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.errors import OutOfDomainError
from just_plane.core.hand_series import frames_by_hand, hand_places, hand_series
from just_plane.core.own_stack import own_stack, spread_step
from just_plane.core.ways import Band, gaps


def test_six_frames_three_tenths_apart():
    stack = own_stack(2.0, 0.3, frames=6)
    assert stack.positions == pytest.approx((0, 0.3, 0.6, 0.9, 1.2, 1.5))
    assert (stack.frames, stack.steps, stack.covering) == (6, 5, 6)


def test_a_step_alone_arrives_at_the_far_end_and_has_its_spares():
    stack = own_stack(1.0, 0.4, spare_before=1, spare_after=2)
    assert stack.positions == pytest.approx((-0.4, 0, 0.4, 0.8, 1.2, 1.6, 2.0))
    assert stack.covering == 4


def test_frames_that_go_on_past_the_subject_do_not_count_as_covering():
    assert own_stack(1.0, 0.5, frames=6).covering == 3
    assert own_stack(1.0, 0.5, frames=6, first=-0.5).covering == 3


def test_a_first_frame_behind_the_subject_needs_no_step_to_get_there():
    assert own_stack(2.0, 0.6, first=2.5).positions == (2.5,)
    assert own_stack(2.0, 0.6, first=2.5, spare_after=1).positions == pytest.approx((2.5, 3.1))


def test_a_count_alone_is_spread_from_end_to_end_in_steps_the_rail_can_do():
    assert spread_step(1.0, 6) == pytest.approx(0.2)
    assert spread_step(1.0, 6, first=0.5) == pytest.approx(0.1)
    # 0.2 is no multiple of 0.15: the next that still arrives is 0.3.
    assert spread_step(1.0, 6, smallest_step=0.15) == pytest.approx(0.3)
    assert spread_step(1.0, 5, smallest_step=0.05) == pytest.approx(0.25)


def test_two_frames_are_one_step_and_start_before_the_end():
    assert spread_step(6.0, 2) == 6.0
    assert spread_step(6.0, 2, first=5.0) == 1.0
    with pytest.raises(OutOfDomainError, match="One frame has no step"):
        spread_step(6.0, 2, first=6.0)


def test_steps_that_grow_march_from_place_to_place():
    stack = own_stack(10.0, lambda place: 1.0 + place, frames=4)
    assert stack.positions == pytest.approx((0, 1, 3, 7))
    assert (stack.smallest_gap, stack.largest_gap) == pytest.approx((1, 4))
    assert own_stack(10.0, lambda place: 1.0 + place, spare_after=1).positions[-1] == pytest.approx(31)


@pytest.mark.parametrize(("frames", "first"), [(1, 0.0), (3, 2.0)])
def test_no_step_can_be_spread(frames, first):
    with pytest.raises(OutOfDomainError):
        spread_step(2.0, frames, first)


def test_too_many_frames_are_refused():
    for step in (1e-5, lambda place: 1e-5):
        with pytest.raises(OutOfDomainError, match=r"more than 5000 frames\. Take longer steps") as refused:
            own_stack(1.0, step)
        assert (refused.value.quantity, refused.value.value) == ("step", pytest.approx(1e-5))


def test_as_many_as_can_be_are_taken():
    assert own_stack(1.0, 1 / 4096).frames == 4097
    assert own_stack(5000.0, 1.0).frames == 5001


@given(
    st.lists(st.tuples(st.floats(-2, 12), st.floats(0, 4)), max_size=8),
    st.floats(0.5, 10),
)
def test_gaps_are_what_no_band_holds(drawn, depth):
    bands = [Band(near, near + wide) for near, wide in drawn]
    open_still = gaps(bands, depth)
    for place in np.linspace(0, depth, 200)[1:-1]:
        held = any(near <= place <= far for near, far in bands if far > near)
        in_gap = any(near < place < far for near, far in open_still)
        edge = min((abs(place - end) for band in bands for end in band), default=1.0) < 1e-9
        assert edge or held != in_gap


def test_a_steady_hand_holds_what_is_meant():
    # Four frames of 2 mm in the middle of four pieces of 3 mm: two thirds.
    steady = hand_series(12.0, 1.0, 1.0, 4, 0.0)
    assert steady.places == pytest.approx((1.5, 4.5, 7.5, 10.5))
    assert steady.cover == pytest.approx(2 / 3, abs=0.01)
    assert steady.whole == 0
    assert steady.series is None
    assert hand_series(12.0, 2.0, 2.0, 4, 0.0).whole == 1
    # Frames that just meet leave no gap, whatever a third or a seventh is in binary.
    for depth, frames in ((1.0, 3), (0.7, 7), (10.1, 11), (0.3, 13)):
        half = depth / frames / 2
        assert hand_series(depth, half, half, frames, 0.0).whole == 1
        assert hand_series(depth, half, half * 0.999, frames, 0.0).whole == 0


def test_one_frame_in_the_hand_by_the_normal_integral():
    # A single point in the middle of one frame of +-1 mm, sway 1 mm: erf(1/sqrt 2) = 68.27 %.
    held = hand_series(1e-6, 1.0, 1.0, 1, 1.0)
    assert held.cover == pytest.approx(math.erf(1 / math.sqrt(2)), abs=1e-4)
    # Twice over: 1 - (1 - 0.6827)^2 = 89.9 %; three times 96.8 %: enough.
    assert held.series == 3


def test_cover_and_whole_by_drawing_hands():
    depth, near, far, frames, sway = 10.0, 0.9, 1.3, 6, 0.35
    drawn = np.array(hand_places(depth, frames)) + sway * np.random.default_rng(99).standard_normal((4000, frames))
    places = np.linspace(0, depth, 1001)
    covers, whole = [], 0
    for series in drawn:
        held = ((places[:, None] >= series - near) & (places[:, None] <= series + far)).any(axis=1)
        covers.append(held.mean())
        whole += held.all()
    told = hand_series(depth, near, far, frames, sway)
    assert told.cover == pytest.approx(np.mean(covers), abs=0.005)
    assert told.whole == pytest.approx(whole / len(drawn), abs=0.03)


@given(st.floats(0.01, 3), st.floats(0.05, 3))
def test_more_frames_and_steadier_hands_hold_no_less(sway, half):
    few, many = (hand_series(8.0, half, half, frames, sway).cover for frames in (3, 6))
    assert many >= few - 1e-9 or half > 8 / 6
    assert 0 <= few <= 1


def test_three_to_six_frames():
    assert [frames_by_hand(depth, 1.0) for depth in (0.5, 3.2, 5.5, 40)] == [3, 4, 6, 6]
