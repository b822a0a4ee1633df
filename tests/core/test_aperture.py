import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.aperture import (
    airy_diameter,
    effective_f_number,
    effective_f_number_from_numerical_aperture,
    f_number_from_effective,
    numerical_aperture,
    stops_lost,
)
from just_plane.core.errors import OutOfDomainError

f_numbers = st.floats(0.7, 128)
magnifications = st.floats(0.001, 50)
pupils = st.floats(0.2, 5)


@given(f_numbers, magnifications, pupils)
def test_marked_f_number_survives_the_round_trip(n, m, p):
    assert math.isclose(f_number_from_effective(effective_f_number(n, m, p), m, p), n, rel_tol=1e-12)


@given(f_numbers, magnifications)
def test_numerical_aperture_and_back(ne, m):
    assert math.isclose(effective_f_number_from_numerical_aperture(numerical_aperture(ne, m), m), ne, rel_tol=1e-12)


def test_at_infinity_the_marked_number_works():
    assert effective_f_number(5.6, 0.0, 0.7) == 5.6


def test_life_size_with_a_symmetrical_lens_costs_two_stops():
    assert stops_lost(4.0, effective_f_number(4.0, 1.0)) == pytest.approx(2.0, rel=1e-15)


def test_small_exit_pupil_costs_more_light_than_a_large_one():
    assert effective_f_number(8, 1, 0.5) == 24
    assert effective_f_number(8, 1, 2.0) == 12


def test_airy_disc_at_f_16_in_green_light_is_the_textbook_value():
    assert airy_diameter(16, 0.00055) == pytest.approx(0.02147, abs=1e-5)


def test_arrays_broadcast_like_single_values():
    n = np.array([2.8, 5.6, 11.0])
    m = np.array([[0.1], [1.0]])
    table = effective_f_number(n, m, 1.3)
    assert table.shape == (2, 3)
    assert table[1, 2] == effective_f_number(11.0, 1.0, 1.3)


def test_light_lost_is_a_number_for_a_number_and_an_array_for_an_array():
    assert type(stops_lost(4.0, 8.0)) is float
    assert stops_lost(4.0, np.array([4.0, 8.0, 16.0])) == pytest.approx([0.0, 2.0, 4.0])
    assert stops_lost(np.array([4.0]), 8.0).shape == (1,)


@pytest.mark.parametrize("bad", [0, -1.0, math.nan, math.inf, 1e308, np.array([8.0, math.nan])])
def test_impossible_f_number_is_refused_by_name(bad):
    with pytest.raises(OutOfDomainError) as refusal:
        effective_f_number(bad, 1.0)
    assert refusal.value.code == "f_number.not_positive"
    assert refusal.value.quantity == "f_number"
    assert "greater than 0" in str(refusal.value)


def test_negative_magnification_is_refused():
    with pytest.raises(OutOfDomainError, match="magnification must be 0 or more"):
        effective_f_number(8, -0.5)


def test_a_lens_of_which_no_pupils_are_known_is_taken_as_symmetrical():
    """N_e = N (1 + m): f/16 that works at life size is marked f/8."""
    assert f_number_from_effective(16.0, 1.0) == pytest.approx(8.0)
    assert effective_f_number(8.0, 1.0) == pytest.approx(16.0)
