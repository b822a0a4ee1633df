import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.special import j1

from just_plane.core.contrast import (
    contrast,
    contrast_through_focus,
    largest_defocus,
    pixel_contrast,
    transfer,
)
from just_plane.core.errors import OutOfDomainError

GREEN = 0.00055


def by_adaptive_quadrature(s, a):
    def integrand(x):
        return math.sqrt(max(1 - (x + s) ** 2, 0)) * math.cos(a * x)

    return 4 / math.pi * quad(integrand, 0, 1 - s, epsabs=1e-11, epsrel=1e-11, limit=4000)[0]


@given(st.floats(0, 1), st.floats(1, 100))
def test_perfect_focus_equals_the_closed_form(s, ne):
    answer = contrast(s / (GREEN * ne), ne, 0.0, GREEN)
    assert answer == pytest.approx(2 / math.pi * (math.acos(s) - s * math.sqrt(1 - s * s)), abs=1e-9)


def test_half_the_cut_off_is_the_textbook_value():
    expected = 2 / math.pi * (math.pi / 3 - math.sqrt(3) / 4)
    assert contrast(0.5 / (GREEN * 16), 16, 0.0, GREEN) == pytest.approx(expected, abs=1e-10)


@given(st.floats(1.0, 1e6), st.floats(0, 10))
def test_nothing_passes_the_cut_off(beyond, blur):
    assert contrast(beyond / (GREEN * 16) * (1 + 1e-12), 16, blur, GREEN) == 0


@settings(max_examples=60, deadline=None)
@given(st.floats(0, 0.999), st.floats(0, 120))
def test_every_rule_agrees_with_adaptive_quadrature(s, a):
    assert transfer(np.array(s), np.array(a)).item() == pytest.approx(by_adaptive_quadrature(s, a), abs=1e-8)


@pytest.mark.parametrize("a", [300.0, 880.0, 1000.0, 3000.0])
def test_fast_oscillation_agrees_too(a):
    assert transfer(np.array(0.1), np.array(a)).item() == pytest.approx(by_adaptive_quadrature(0.1, a), abs=3e-6)


@given(st.floats(0.01, 60))
def test_without_diffraction_it_is_the_transform_of_a_disc(a):
    # lambda -> 0: the blur disc alone, 2 J1(a)/a.
    frequency = 1.0
    assert contrast(frequency, 2.0, a / math.pi, 1e-9) == pytest.approx(2 * j1(a) / a, abs=1e-7)


def test_without_diffraction_twenty_percent_is_a_blur_of_0_98_c():
    assert largest_defocus(1 / 0.02, 4.0, 1e-9) / 0.02 == pytest.approx(0.98, abs=0.005)


@settings(max_examples=60)
@given(st.floats(0.001, 0.85), st.floats(0.03, 0.6))
def test_largest_defocus_is_where_contrast_meets_the_threshold(s, threshold):
    frequency = 50.0
    ne = s / (frequency * GREEN)
    blur = largest_defocus(frequency, ne, GREEN, threshold)
    if blur == 0:
        assert contrast(frequency, ne, 0.0, GREEN) < threshold
    else:
        assert contrast(frequency, ne, blur, GREEN) == pytest.approx(threshold, abs=1e-9)
        nearer = contrast(frequency, ne, np.linspace(0, blur, 50), GREEN)
        assert nearer.min() >= threshold - 1e-9


def test_threshold_out_of_diffractions_reach_leaves_nothing():
    assert largest_defocus(1 / 0.009, 22.0, GREEN) == 0


def test_map_in_equal_steps_equals_the_plain_function():
    ne = np.array([4.0, 9.0, 16.0, 30.0])
    steps = 0.3 / ne / 50
    table = contrast_through_focus(50.0, ne, steps, 77, GREEN)
    assert table.shape == (4, 77)
    assert np.allclose(table, contrast(50.0, ne[:, None], steps[:, None] * np.arange(77), GREEN), atol=1e-9)


def test_map_with_steps_too_long_for_the_products_still_agrees():
    ne = np.array([4.0, 8.0])
    table = contrast_through_focus(50.0, ne, np.array([1.0, 0.5]), 20, GREEN)
    assert table[1, 19] == pytest.approx(contrast(50.0, 8.0, 9.5, GREEN), abs=1e-9)


def test_map_spans_rows_of_very_different_oscillation():
    ne = np.linspace(2, 40, 30)
    steps = 4 / ne / 100
    assert np.allclose(
        contrast_through_focus(50.0, ne, steps, 100),
        contrast(50.0, ne[:, None], steps[:, None] * np.arange(100)),
        atol=1e-8,
    )


def test_detail_is_reversed_past_the_first_zero():
    assert contrast(50.0, 2.0, 1.6 / 50, 1e-9) < -0.1


def test_pixel_takes_its_first_zero_at_one_cycle_a_pixel():
    assert pixel_contrast(1 / 0.004, 0.004) == pytest.approx(0, abs=1e-15)
    assert pixel_contrast(0.5 / 0.004, 0.004) == pytest.approx(2 / math.pi)


def test_negative_blur_is_refused():
    with pytest.raises(OutOfDomainError, match="defocus blur must be 0 or more"):
        contrast(50.0, 8.0, -0.01)
