"""Bands of detail: what a wave keeps in them by the formula of a bell curve, and how alike two pictures are."""

import numpy as np
import pytest

from just_plane.core.frames.check.bands import FLOOR, band, evened, likeness, smoothed

SIDE = 480
# Waves below run a whole number of times through these 240 pixels.
MIDDLE = (slice(120, -120), slice(120, -120))


def wave(cycles_a_px, height=0.2, mean=0.5):
    """A wave that runs across the picture."""
    x = np.arange(SIDE)
    return np.tile((mean + height * np.cos(2 * np.pi * cycles_a_px * x)).astype(np.float32), (SIDE, 1))


def kept(sigma, cycles_a_px):
    """Of a wave, by a bell curve of that width: exp(-2 pi^2 sigma^2 nu^2)."""
    return np.exp(-2 * (np.pi * sigma * cycles_a_px) ** 2)


def height_of(picture):
    """Of a wave about zero: the square root of twice its mean square."""
    return float(np.sqrt(2 * np.mean(np.square(picture[MIDDLE] - picture[MIDDLE].mean()))))


@pytest.mark.parametrize("sigma", [0.6, 1.0, 2.5, 6.0])
@pytest.mark.parametrize("cycles_a_px", [2 / 240, 8 / 240, 20 / 240])
def test_smoothing_keeps_of_a_wave_what_a_bell_curve_keeps(sigma, cycles_a_px):
    assert height_of(smoothed(wave(cycles_a_px), sigma)) == pytest.approx(0.2 * kept(sigma, cycles_a_px), abs=0.001)


@pytest.mark.parametrize(("sigma", "slow"), [(9.0, 3 / 240), (10.0, 2 / 240), (20.0, 1 / 240), (36.0, 1 / 240)])
def test_wide_smoothing_by_way_of_fewer_pixels_keeps_as_much(sigma, slow):
    # A quarter of the pixels each way takes a little more: a square of four pixels, and straight lines between.
    assert height_of(smoothed(wave(slow), sigma)) == pytest.approx(0.2 * kept(sigma, slow), rel=0.03)


def test_hardly_any_smoothing_is_none_and_even_light_stays():
    picture = wave(0.1)
    assert smoothed(picture, 0.29) is picture
    for sigma in (0.5, 3.0, 30.0):
        assert smoothed(np.full((SIDE, SIDE), 0.3, np.float32), sigma) == pytest.approx(0.3, abs=1e-5)
    colours = np.dstack([wave(0.02), wave(0.02), wave(0.05)])
    assert smoothed(colours, 2.0)[..., 2] == pytest.approx(smoothed(wave(0.05), 2.0), abs=1e-6)


@pytest.mark.parametrize("cycles_a_px", [2 / 240, 10 / 240, 24 / 240, 48 / 240])
def test_a_band_is_the_difference_of_two_smoothings_and_has_no_mean(cycles_a_px):
    detail = band(wave(cycles_a_px), 1.0, 1.6)
    assert height_of(detail) == pytest.approx(0.2 * (kept(1.0, cycles_a_px) - kept(1.6, cycles_a_px)), abs=0.0005)
    assert float(detail[MIDDLE].mean()) == pytest.approx(0, abs=1e-3)


def test_evened_detail_is_as_strong_wherever_there_is_some():
    detail = band(wave(0.1), 1.0, 3.0)
    detail[:, SIDE // 2 :] *= 0.2
    even = evened(detail, 8.0)
    left, right = (height_of(np.hstack([part, part])) for part in (even[:, :240], even[:, 240:]))
    assert left == pytest.approx(right, rel=0.05)
    # A wave over its own root mean square is as high as the square root of two.
    assert left == pytest.approx(2**0.5, rel=0.05)


def test_detail_under_the_floor_stays_as_weak_as_it_is():
    detail = 0.001 * np.cos(2 * np.pi * 0.1 * np.arange(SIDE, dtype=np.float32))
    assert height_of(evened(np.tile(detail, (SIDE, 1)), 8.0)) == pytest.approx(0.001 / FLOOR, rel=0.02)


def test_likeness_is_one_for_the_same_whatever_its_strength_and_none_for_others():
    made = np.random.default_rng(4)
    first, second = made.standard_normal((2, 200, 200))
    assert likeness(first, first) == pytest.approx(1)
    assert likeness(first, 0.1 * first) == pytest.approx(1)
    assert likeness(first, -2 * first) == pytest.approx(-1)
    # Of forty thousand independent numbers the correlation is 1/200 either way.
    assert abs(likeness(first, second)) < 4 / 200
    # Half of the one, half of the other: the square root of a half.
    assert likeness(first, first + second) == pytest.approx(0.5**0.5, abs=0.02)


def test_likeness_looks_only_where_it_is_told_to_and_at_nothing_finds_nothing():
    first = np.random.default_rng(5).standard_normal((50, 60))
    second = first.copy()
    second[:, 30:] *= -1
    left = np.zeros(first.shape, bool)
    left[:, :30] = True
    assert likeness(first, second, left) == pytest.approx(1)
    assert likeness(first, second, ~left) == pytest.approx(-1)
    assert likeness(first, second, np.zeros_like(left)) == 0
    assert likeness(first, np.zeros_like(first)) == 0


@pytest.mark.parametrize("sigma", [3.0, 12.0])
def test_of_grain_a_bell_curve_leaves_what_its_area_says(sigma):
    """1 / (2 sqrt(pi) sigma) of independent pixels, by way of fewer pixels too: none of them may be left out."""
    grain = np.random.default_rng(5).standard_normal((SIDE, SIDE)).astype(np.float32)
    assert smoothed(grain, sigma).std() == pytest.approx(1 / (2 * np.sqrt(np.pi) * sigma), rel=0.25)
