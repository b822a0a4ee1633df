"""The knob of a rail: marks instead of millimetres."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.errors import OpticsError
from just_plane.core.knob import Knob, knob_places
from just_plane.planning.words.numbers import knob_words

MILLED = Knob(1.25, 50, 0.04)


def test_a_division_is_its_share_of_a_turn():
    assert MILLED.division == pytest.approx(0.025)
    assert MILLED.take_up == pytest.approx(0.06)
    assert knob_places(MILLED, [0, 0.25, 0.5]).tolist() == [0, 10, 20]


def test_small_steps_are_told_in_tenths_of_a_division():
    assert knob_places(MILLED, [0, 0.06, 0.12]).tolist() == [0, 2.4, 4.8]


@given(
    st.floats(0.001, 3.0), st.integers(2, 60), st.floats(0.1, 5.0), st.integers(1, 500), st.sampled_from([-1.0, 1.0])
)
def test_however_many_steps_the_knob_is_never_farther_off_than_half_of_what_is_told(step, frames, turn, marks, way):
    knob = Knob(turn, marks)
    moved = way * step * np.arange(frames)
    told = knob_places(knob, moved)
    finest = 1.0 if step / knob.division >= 5 else 0.1
    assert np.abs(told * knob.division - moved).max() <= finest * knob.division / 2 * (1 + 1e-6) + 1e-6


@pytest.mark.parametrize(
    ("divisions", "words"),
    [
        (12, "12 divisions"),
        (1, "1 division"),
        (50, "1 turn"),
        (62.5, "1 turn and 12.5 divisions"),
        (-3, "back 3 divisions"),
        (0, "0 divisions"),
        (100, "2 turns"),
    ],
)
def test_turns_come_before_divisions(divisions, words):
    assert knob_words(MILLED, divisions) == words


def test_a_knob_that_moves_nothing_is_refused():
    with pytest.raises(OpticsError):
        knob_places(Knob(0.0, 10), [0, 1])
