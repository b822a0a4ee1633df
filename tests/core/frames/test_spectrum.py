"""Where a frame repeats: waves whose frequencies are known, found again."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.core.frames.spectrum import averaged, candidates, evened, power_spectrum, sharpened

SIZE = (300, 420)


def wave(fx, fy, size=SIZE, height=1.0):
    y, x = np.mgrid[: size[0], : size[1]]
    return (height * np.cos(2 * np.pi * (fx * x + fy * y))).astype(np.float32)


def nearest(found, fx, fy):
    """How far the nearest of some frequencies lies; one and its opposite are the same wave."""
    return min(min(np.hypot(x - fx, y - fy), np.hypot(x + fx, y + fy)) for x, y in found)


@settings(max_examples=25, deadline=None)
@given(st.integers(4, 40), st.integers(4, 40), st.integers(1, 5))
def test_averages_are_means_over_squares_and_what_does_not_fill_one_is_left_out(rows, columns, shrink):
    if min(rows, columns) < shrink:
        return
    frame = np.random.default_rng(rows + 100 * columns).integers(0, 255, (rows, columns)).astype(np.uint8)
    small = averaged(frame, shrink)
    down, across = rows // shrink, columns // shrink
    whole = frame[: down * shrink, : across * shrink].reshape(down, shrink, across, shrink).astype(float)
    assert small == pytest.approx(whole.mean(axis=(1, 3)), abs=1e-3)
    assert small.dtype == np.float32


def test_a_tall_frame_is_averaged_band_by_band_without_a_seam():
    frame = np.tile(np.arange(1100, dtype=np.float32)[:, np.newaxis], (1, 8))
    assert averaged(frame, 2)[:, 0] == pytest.approx(np.arange(550) * 2 + 0.5)


def test_evening_takes_out_slow_light_and_makes_contrast_alike():
    x = np.arange(SIZE[1])
    light = 100 + 80 * np.sin(x / 300)
    contrast = np.where(x < 210, 20.0, 4.0)
    frame = (light + contrast * wave(0.1, 0.0)).astype(np.float32)
    even = evened(frame)
    left, right = even[100:200, 60:160], even[100:200, 270:370]
    assert abs(left.mean()) < 0.05
    assert abs(right.mean()) < 0.05
    # A wave over its own spread would be 1; a quarter of the usual spread is added, so that noise is not made loud.
    usual = (20 + 4) / 2 / 2**0.5
    for part, own in ((left, 20 / 2**0.5), (right, 4 / 2**0.5)):
        assert part.std() == pytest.approx(own / (own + 0.25 * usual), rel=0.1)
    assert np.abs(evened(1e4 * np.eye(200, dtype=np.float32))).max() <= 3


def test_an_even_frame_stays_even():
    assert np.abs(evened(np.full(SIZE, 77.0, np.float32))).max() < 1e-3


@pytest.mark.parametrize(("row", "column"), [(0, 20), (16, 0), (12, 31), (-25, 8)])
def test_the_power_of_a_wave_stands_at_its_frequency_and_at_the_opposite(row, column):
    power = power_spectrum(wave(column / 256, row / 256, (400, 512)))
    assert power.shape == (256, 256)
    peaks = {tuple(int(v) - 128 for v in np.unravel_index(at, power.shape)) for at in np.argsort(power.ravel())[-2:]}
    assert peaks == {(row, column), (-row, -column)}


def test_power_is_that_of_every_part_of_the_frame_and_of_no_direction_more():
    noise = np.random.default_rng(5).standard_normal((600, 700)).astype(np.float32)
    power = power_spectrum(noise)
    quarter = power[:128, :128].mean(), power[128:, 128:].mean(), power[:128, 128:].mean(), power[128:, :128].mean()
    assert np.ptp(quarter) / np.mean(quarter) < 0.05
    twice = power_spectrum(2 * noise)
    assert twice == pytest.approx(4 * power, rel=1e-5)


def test_a_frame_smaller_than_a_square_is_taken_as_it_is():
    assert power_spectrum(wave(0.1, 0.0, (90, 140))).shape == (90, 90)


@pytest.mark.parametrize(("fx", "fy"), [(0.0801, 0.0), (0.0, 0.123), (0.0613, 0.0571), (-0.05, 0.11)])
def test_a_wave_under_noise_is_among_those_that_stand_out(fx, fy):
    noise = 2.0 * np.random.default_rng(6).standard_normal(SIZE).astype(np.float32)
    found = candidates(power_spectrum(wave(fx, fy) + noise), 6)
    assert nearest(found[:1], fx, fy) < 0.5 / 256


def test_each_wave_is_named_once_and_in_the_half_plane_to_the_right():
    waves = [(0.08, 0.01), (0.02, 0.09), (-0.07, 0.05)]
    frame = sum(wave(*each) for each in waves) + 0.3 * np.random.default_rng(7).standard_normal(SIZE)
    found = candidates(power_spectrum(frame.astype(np.float32)), 3)
    assert all(fx > 0 or (abs(fx) < 1e-2 and fy > 0) for fx, fy in found)
    assert [nearest(found, *each) < 0.5 / 256 for each in waves] == [True] * 3


@pytest.mark.parametrize("seed", range(6))
def test_what_stands_out_stands_out_as_well_where_the_frame_lies_on_its_side(seed):
    """A spectrum is the same seen along rows or columns; frequencies of a half plane come with either sign."""
    half = np.random.default_rng(seed).exponential(1.0, (65, 65)) ** 3
    half[np.abs(np.arange(65) - 32) < 6] = 1e-3  # none near an axis, where a peak and its other half are neighbours
    half[:, np.abs(np.arange(65) - 32) < 6] = 1e-3
    power = (half + half[::-1, ::-1])[:64, :64]  # the middle at (32, 32), as power spectra have it
    upright = candidates(power, 5)
    lying = [(fy, fx) if (fy > 0 or (fy == 0 and fx > 0)) else (-fy, -fx) for fx, fy in candidates(power.T, 5)]
    unsigned = lambda found: [min((fx, fy), (-fx, -fy)) for fx, fy in found]  # noqa: E731
    assert np.array(unsigned(lying)) == pytest.approx(np.array(unsigned(upright)), abs=1e-6)


def test_one_direction_does_not_fill_the_list():
    # A comb has overtones at 2, 3, 4 and 5 times its pace, all along one line; a fainter wave lies across.
    comb = sum(wave(0.03 * times, 0.0) for times in range(1, 7))
    frame = comb + wave(0.0, 0.1, height=0.5) + 0.2 * np.random.default_rng(8).standard_normal(SIZE)
    found = candidates(power_spectrum(frame.astype(np.float32)), 6)
    along = [one for one in found if abs(one[1]) < 0.004]
    assert len(along) == 3
    assert nearest(found, 0.0, 0.1) < 0.5 / 256


def test_waves_finer_than_four_pixels_and_coarser_than_a_third_of_the_square_are_not_looked_for():
    power = power_spectrum(wave(0.3, 0.0) + wave(0.004, 0.0))
    assert all(3 / 256 <= np.hypot(*one) <= 0.25 * 1.02 for one in candidates(power, 5))


@settings(max_examples=15, deadline=None)
@given(st.floats(0.03, 0.2), st.floats(-3.1, 3.1))
def test_a_coarse_frequency_is_sharpened_by_the_whole_frame(pace, turn):
    fx, fy = pace * np.cos(turn), pace * np.sin(turn)
    near = (fx + 0.4 / 256, fy - 0.3 / 256)
    # A whole frame of 420 px tells frequencies to a hundredth of a period over its length.
    assert np.hypot(*np.subtract(sharpened(wave(fx, fy), near), (fx, fy))) < 0.06 / 300
