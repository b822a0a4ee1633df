"""Sharpness, stops and exposure: rules short enough to share a file."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.contrast import contrast_through_focus
from just_plane.core.depth import worst_contrast
from just_plane.core.errors import OutOfDomainError
from just_plane.core.exposure import Exposure, equal_shutter, flash_f_number, shutter_after_extension
from just_plane.core.sharpness import circle_for_pixel, circle_for_sensor, circle_for_viewing, pixel_pitch
from just_plane.core.stops import FULL_STOPS, HALF_STOPS, THIRD_STOPS, marked_stops
from just_plane.core.trials.stops import best_stop


def test_sensor_school_on_a_36_by_24_sensor_is_29_micrometres():
    assert circle_for_sensor(36, 24) == pytest.approx(0.02884, abs=1e-5)


def test_viewing_school_scales_with_distance_and_against_enlargement():
    assert circle_for_viewing(500, 10) == pytest.approx(2 * circle_for_viewing(250, 10))
    assert circle_for_viewing(250, 20) == pytest.approx(circle_for_viewing(250, 10) / 2)


def test_pixel_school_is_two_pixels():
    assert circle_for_pixel(pixel_pitch(36, 9000)) == pytest.approx(0.008)


@pytest.mark.parametrize("unknown", [None, 0])
def test_an_unknown_pixel_count_is_said(unknown):
    with pytest.raises(OutOfDomainError, match="choose the viewing or the sensor school"):
        pixel_pitch(36, unknown)


@pytest.mark.parametrize(("series", "per_stop"), [(FULL_STOPS, 1), (HALF_STOPS, 2), (THIRD_STOPS, 3)])
def test_engraved_stops_lie_where_powers_of_two_put_them(series, per_stop):
    # Custom rounds f/1.2 to the same engraving by halves and thirds; nothing is off by half a click.
    assert len(series) == 15 * per_stop + 1
    for index, stop in enumerate(series):
        exact = 2 ** ((index / per_stop - 1) / 2)
        assert abs(2 * math.log2(stop / exact)) < 0.5 / per_stop


def test_a_lens_has_its_own_ends_among_its_stops():
    assert marked_stops(1.9, 17, "full") == (1.9, 2.0, 2.8, 4.0, 5.6, 8.0, 11.0, 16.0, 17.0)
    assert marked_stops(8, 8) == (8.0,)


def test_swapped_ends_are_refused():
    with pytest.raises(OutOfDomainError, match="Swap the two"):
        marked_stops(22, 2.8)


@given(st.floats(1, 64), st.floats(1, 64), st.floats(0.001, 30), st.floats(50, 6400), st.floats(50, 6400))
def test_equal_exposures_let_the_same_light_in(n1, n2, t, s1, s2):
    other = equal_shutter(Exposure(n1, t, s1), n2, s2)
    assert other * s2 / n2**2 == pytest.approx(t * s1 / n1**2)


def test_a_hand_held_meter_is_corrected_by_the_stops_lost():
    assert shutter_after_extension(0.25, 8, 16) == pytest.approx(1.0)


def test_guide_number_40_at_half_a_metre_is_f_80():
    assert flash_f_number(40, 500) == pytest.approx(80)
    assert flash_f_number(40, 500, 400) == pytest.approx(160)


def test_an_exposure_of_no_time_is_refused():
    with pytest.raises(OutOfDomainError, match="shutter must be greater than 0"):
        Exposure(8, 0, 100)


@pytest.mark.parametrize(
    ("work", "quantity"),
    [
        (lambda: contrast_through_focus(50.0, [8.0, -1.0], 0.01, 5), "effective_f_numbers"),
        (lambda: worst_contrast(-0.03, 8.0, 0.01), "circle_of_confusion"),
        (lambda: best_stop([4.0, 0.0], [0.5, 0.5], 1.0), "f_numbers"),
    ],
)
def test_the_argument_at_fault_is_named(work, quantity):
    with pytest.raises(OutOfDomainError) as refused:
        work()
    assert refused.value.quantity == quantity
