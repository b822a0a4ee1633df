"""A coloured picture through a lens: what stays when nothing blurs, what is kept when all does."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.core.view.colour import COARSE, LUMINANCE, ColourLevels, ColourSpectrum, shrunk

SIZE = (64, 96)
SHARP = 0.05
"""Wavelength x N_e in px: hardly any diffraction."""


def seen(light, blur, diffraction=SHARP):
    blurs = np.broadcast_to(np.asarray(blur, np.float32), light.shape[:2])
    return ColourLevels(ColourSpectrum(light, 16.0), diffraction).mixed(blurs)


def scene(seed=2):
    """Slow colours under a fine grain of lightness, as surfaces have them."""
    y, x = np.mgrid[: SIZE[0], : SIZE[1]] / 30.0
    colours = np.stack([0.4 + 0.2 * np.sin(x), 0.4 + 0.2 * np.cos(y), 0.3 + 0.1 * np.sin(x + y)], axis=-1)
    grain = 1 + 0.3 * np.random.default_rng(seed).standard_normal((*SIZE, 1))
    return (colours * np.clip(grain, 0.2, 2)).astype(np.float32)


def test_one_colour_everywhere_stays_that_colour_at_any_blur():
    light = np.tile(np.array([0.7, 0.3, 0.1], np.float32), (*SIZE, 1))
    for blur in (0.0, 1.0, 5.0, 14.0):
        assert seen(light, blur) == pytest.approx(light, abs=2e-4)


def test_grey_stays_grey():
    grey = np.repeat(scene()[..., :1], 3, axis=-1)
    shown = seen(grey, 4.0)
    assert np.abs(shown - shown[..., :1]).max() < 1e-4


def test_lightness_is_there_at_every_pixel_when_nothing_blurs():
    light = scene()
    assert seen(light, 0.0) @ LUMINANCE == pytest.approx(light @ LUMINANCE, abs=0.02)


def test_colours_are_right_as_far_as_the_eye_tells_them():
    light = scene()
    inside = (slice(8, -8), slice(8, -8))
    shown, true = (shrunk(each[inside], 8) for each in (seen(light, 0.0), light))
    assert shown == pytest.approx(true, abs=0.02)


def test_light_is_neither_made_nor_lost_by_blur():
    light = np.full((*SIZE, 3), 0.05, np.float32)
    light[30:34, 46:50] = (0.9, 0.6, 0.2)
    total = light.sum(axis=(0, 1))
    assert seen(light, 9.0).sum(axis=(0, 1)) == pytest.approx(total, rel=0.01)


def test_a_spot_is_spread_over_its_disc_and_not_beyond():
    light = np.zeros((*SIZE, 3), np.float32)
    light[32, 48] = 1.0
    shown = seen(light, 11.3)[..., 1]
    y, x = np.mgrid[: SIZE[0], : SIZE[1]]
    away = np.hypot(y - 32, x - 48)
    inside, outside = shown[away < 4.5].mean(), np.abs(shown[away > 9]).mean()
    # One pixel of light over a disc of 11.3 px: a hundredth of it each.
    assert inside == pytest.approx(1 / (np.pi / 4 * 11.3**2), rel=0.1)
    assert outside < 0.02 * inside


def test_weights_of_lightness_are_those_of_common_screens_and_whole():
    assert LUMINANCE.sum() == pytest.approx(1)
    assert list(np.argsort(LUMINANCE)) == [2, 0, 1]


@settings(max_examples=30, deadline=None)
@given(st.integers(1, 23), st.integers(1, 23), st.integers(1, 6))
def test_means_over_squares_are_those_of_the_picture_with_its_border_repeated(rows, columns, by):
    plane = np.random.default_rng(rows * 31 + columns).uniform(0, 1, (rows, columns))
    small = shrunk(plane, by)
    assert small.shape == (-(-rows // by), -(-columns // by))
    for row, column in ((0, 0), (small.shape[0] - 1, small.shape[1] - 1)):
        ys = np.minimum(np.arange(row * by, (row + 1) * by), rows - 1)
        xs = np.minimum(np.arange(column * by, (column + 1) * by), columns - 1)
        assert small[row, column] == pytest.approx(plane[np.ix_(ys, xs)].mean())


def test_channels_are_averaged_each_by_itself():
    light = scene()
    assert shrunk(light, COARSE)[..., 2] == pytest.approx(shrunk(light[..., 2], COARSE))
