import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import brentq
from scipy.special import j1

from just_plane.core.aperture import effective_f_number, numerical_aperture
from just_plane.core.depth import (
    SCHOOLS,
    allowed_blur,
    best_aperture,
    best_focus,
    depth_of_field,
    near_far_limits,
    worst_contrast,
)
from just_plane.core.errors import OutOfDomainError
from just_plane.core.stops import marked_stops

circles = st.floats(0.003, 0.1)
f_numbers = st.floats(1.4, 45)


@given(st.sampled_from(SCHOOLS), circles, f_numbers, st.floats(0.02, 20), st.floats(1.0, 3.0))
def test_more_magnification_never_lengthens_depth_at_one_aperture(school, c, n, m, more):
    def at(magnification):
        return depth_of_field(school, c, effective_f_number(n, magnification), magnification)

    assert at(m * more) <= at(m) * (1 + 1e-9)


@given(circles, f_numbers)
def test_diffraction_only_ever_takes_from_the_geometric_depth(c, ne):
    geometric = depth_of_field("geometric", c, ne, 1.0)
    assert depth_of_field("budget", c, ne, 1.0) <= geometric
    # The contrast school is 2 % stricter or looser than the geometric one where diffraction is nothing.
    assert depth_of_field("contrast", c, ne, 1.0, 1e-9) == pytest.approx(0.98 * geometric, rel=0.006)


@given(st.floats(1, 60), st.floats(0.1, 20))
def test_wave_depth_is_wavelength_over_na_squared(ne, m):
    na = numerical_aperture(ne, m)
    assert depth_of_field("wave", 0.02, ne, m) == pytest.approx(0.00055 / na**2)


@given(st.floats(30, 300), f_numbers, st.floats(0.05, 5), circles, st.floats(0.5, 2))
def test_exact_limits_add_up_to_the_total_when_depth_is_small(f, n, m, c, p):
    near, far = near_far_limits(f, n, m, c, p)
    total = depth_of_field("geometric", c, effective_f_number(n, m, p), m)
    if total < 0.01 * f:
        assert near + far == pytest.approx(total, rel=1e-3)
    assert near <= far


def test_far_limit_is_endless_from_the_hyperfocal_magnification_on():
    # m D <= c with D = 10 mm and c = 0.02 mm.
    assert math.isinf(near_far_limits(50, 5, 0.002, 0.02).far)
    assert math.isfinite(near_far_limits(50, 5, 0.0021, 0.02).far)


@given(st.floats(0.01, 500), st.floats(20, 2000))
def test_best_focus_blurs_both_ends_alike(depth, pupil_distance):
    place = best_focus(depth, pupil_distance)
    near_blur = place / (pupil_distance - place)
    far_blur = (depth - place) / (pupil_distance + depth - place)
    assert near_blur == pytest.approx(far_blur, rel=1e-9)


def test_best_focus_of_a_shallow_subject_is_its_middle():
    assert best_focus(0.002, 300.0) == pytest.approx(0.001, rel=1e-5)


@given(st.floats(0.5, 30), st.floats(0.1, 2))
def test_best_aperture_lies_by_the_closed_form(depth, m):
    stops = np.array(marked_stops(1.0, 128, "third"))
    ne = effective_f_number(stops, m)
    curve = best_aperture(depth, stops, ne, m, 0.03)
    closed = math.sqrt(depth * m**2 / (4.88 * 0.00055))
    if ne[0] * 1.5 < closed < 25 and curve.worst_contrast[curve.best] > 0.1:
        assert curve.effective_f_numbers[curve.best] == pytest.approx(closed, rel=0.45)


def test_a_flat_subject_wants_the_widest_stop():
    stops = np.array(marked_stops(2.8, 32, "full"))
    assert best_aperture(0.0, stops, stops * 2, 1.0, 0.02).best == 0


def test_worst_contrast_keeps_the_deepest_reversal():
    # Far past the first zero the contrast at the edge swings back; the worst does not.
    worst = worst_contrast(0.02, np.array([4.0]), np.array([0.02 * 10]), 1e-9).contrast[0]
    assert worst == pytest.approx(-0.132, abs=0.002)  # the deepest trough of 2 J1(x)/x


def test_stopping_down_a_deep_subject_first_helps_and_then_hurts():
    stops = np.array(marked_stops(2.8, 64, "full"))
    curve = best_aperture(6.0, stops, stops * 1.5, 0.5, 0.025)
    contrast = curve.worst_contrast
    assert 0 < curve.best < len(stops) - 1
    assert contrast[curve.best] > contrast[-1]
    assert contrast[curve.best] > contrast[0]


def test_unknown_school_is_refused_with_the_ones_there_are():
    with pytest.raises(OutOfDomainError, match="contrast, geometric"):
        allowed_blur("classic", 0.02, 8.0)


@pytest.mark.parametrize("m", [0.0, math.nan, 1e308])
def test_depth_needs_a_magnification(m):
    with pytest.raises(OutOfDomainError) as refusal:
        depth_of_field("geometric", 0.02, 8.0, m)
    assert refusal.value.quantity == "magnification"


@pytest.mark.parametrize("threshold", [0.2, 0.5, 0.8])
def test_where_light_hardly_bends_depth_by_contrast_is_that_of_a_disc(threshold):
    """A disc of diameter b leaves 2 J1(x) / x of detail of 1/c, x = pi b / c; its depth is 2 b N / m^2."""
    x = brentq(lambda x: 2 * j1(x) / x - threshold, 0.01, 3.8)
    found = depth_of_field("contrast", 0.03, 8.0, 0.5, 1e-10, threshold)
    assert found == pytest.approx(2 * (x * 0.03 / math.pi) * 8.0 / 0.25, rel=1e-4)


@pytest.mark.parametrize("wavelength", [0.00045, 0.00055, 0.0007])
def test_without_any_depth_every_stop_has_what_diffraction_leaves_and_the_widest_is_best(wavelength):
    stops = np.array([2.8, 8.0, 16.0, 22.0])
    curve = best_aperture(0.0, stops, 1.5 * stops, 0.5, 0.03, wavelength)
    s = wavelength * 1.5 * stops / 0.03
    assert curve.worst_contrast == pytest.approx(2 / math.pi * (np.arccos(s) - s * np.sqrt(1 - s * s)), rel=1e-6)
    assert curve.best == 0
