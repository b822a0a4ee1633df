"""Working distances of a lens by its paper: what a thin lens would do between the sizes that are printed."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.on_paper import OnPaper, RoomOnPaper

SIZES = st.floats(0.05, 5.0)


@given(SIZES, SIZES, st.floats(20.0, 300.0))
def test_a_lens_that_keeps_its_focal_length_draws_off_as_a_thin_one_does(printed, asked, focal_length):
    """The subject of a thin lens stands at f (1 + 1/m); the front of a lens at any fixed place before that."""
    front = 17.0
    room = RoomOnPaper(printed, focal_length * (1 + 1 / printed) - front, focal_length)
    assert room.at(asked) == pytest.approx(focal_length * (1 + 1 / asked) - front, rel=1e-9, abs=1e-6)


def test_at_the_size_that_is_printed_the_printed_distance_stands():
    assert RoomOnPaper(1.0, 148.0, 100.0).at(1.0) == 148.0
    assert RoomOnPaper(0.5, 148.0, 0.0).at(np.array([0.1, 0.5, 5.0])) == pytest.approx([148.0] * 3)


def test_two_printed_sizes_give_how_fast_it_grows():
    """41 mm at five times and 101 mm at once: 60 mm over 1 - 1/5 of 1/m."""
    room = RoomOnPaper(5.0, 41.0, (101.0 - 41.0) / (1 / 1.0 - 1 / 5.0))
    assert room.at(1.0) == pytest.approx(101.0)
    assert room.at(5.0) == pytest.approx(41.0)
    # In the middle of 1/m: 0.6, at five thirds.
    assert room.at(5 / 3) == pytest.approx((101.0 + 41.0) / 2)


def lens(growth=30.0, sizes=(1.0, 5.0)):
    return OnPaper(front=200.0, growth=growth, sizes=sizes, room=RoomOnPaper(5.0, 41.0, 75.0))


def test_a_barrel_grows_evenly_from_its_smallest_size_to_its_largest():
    assert lens().subject_to_sensor(1.0) == pytest.approx(200 + 101)
    assert lens().subject_to_sensor(5.0) == pytest.approx(200 + 30 + 41)
    # Half-way between one and five: half of the thirty.
    assert lens().subject_to_sensor(3.0) == pytest.approx(200 + 15 + lens().room.at(3.0))


def test_a_lens_of_one_size_grows_nothing():
    assert lens(sizes=(5.0, 5.0)).subject_to_sensor(5.0) == pytest.approx(241.0)


def test_many_settings_are_answered_at_once():
    asked = np.linspace(1.0, 5.0, 9)
    assert lens().subject_to_sensor(asked) == pytest.approx([lens().subject_to_sensor(each) for each in asked])
