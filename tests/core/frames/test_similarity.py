"""Similarities by the laws that they must obey, whatever their numbers."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.frames.check.similarity import (
    IDENTITY,
    chained,
    enlarged,
    inverse,
    moved,
    scale_and_turn,
    similar_part,
)

PLACES = np.array([[0.0, 0.0], [639.0, 0.0], [100.0, 426.0], [320.5, 213.5]])


@st.composite
def similarities(draw):
    scale, turn = draw(st.floats(0.7, 1.4)), draw(st.floats(-0.2, 0.2))
    shift = draw(st.tuples(st.floats(-60, 60), st.floats(-60, 60)))
    linear = scale * np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])
    return np.column_stack([linear, shift])


@given(similarities(), similarities())
def test_one_after_the_other_is_what_each_does_in_turn(first, then):
    assert moved(chained(first, then), PLACES) == pytest.approx(moved(then, moved(first, PLACES)), abs=1e-8)


@given(similarities())
def test_there_and_back_is_nowhere(similarity):
    assert chained(similarity, inverse(similarity)) == pytest.approx(IDENTITY, abs=1e-9)


@given(similarities(), st.sampled_from([1, 2, 4, 8]))
def test_the_middle_of_a_reduced_pixel_goes_where_the_middle_of_its_full_pixels_goes(similarity, times):
    full = times * PLACES + (times - 1) / 2
    went = moved(similarity, PLACES)
    assert moved(enlarged(similarity, times), full) == pytest.approx(times * went + (times - 1) / 2, abs=1e-7)
    assert enlarged(enlarged(similarity, times), 1 / times) == pytest.approx(similarity, abs=1e-9)


def test_size_and_turn_of_a_known_map():
    quarter = np.array([[0.0, -1.5, 3.0], [1.5, 0.0, 4.0]])
    assert scale_and_turn(quarter) == pytest.approx((1.5, np.pi / 2))


@given(similarities())
def test_a_similarity_is_its_own_similar_part(similarity):
    assert similar_part(similarity, np.array([50.0, 20.0])) == pytest.approx(similarity, abs=1e-9)


def test_shear_is_dropped_about_the_centre_given():
    sheared = np.array([[1.0, 0.1, 0.0], [0.0, 1.0, 0.0]])
    centre = np.array([10.0, 20.0])
    part = similar_part(sheared, centre)
    assert moved(part, centre[np.newaxis])[0] == pytest.approx([12.0, 20.0])
    assert scale_and_turn(part)[0] == pytest.approx(np.hypot(1.0, 0.05))
