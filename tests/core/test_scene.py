"""The renderer against the optics that it draws."""

import numpy as np
import pytest

from just_plane.core.contrast import contrast
from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane import tilt_for_plane, wedge_blur
from just_plane.core.scene import RATIO, SMALLEST, _ladder, render
from just_plane.core.scenery import KINDS, surface

PITCH, WORKS_AS = 0.0045, 11.0


def grating(period, shape=(480, 640)):
    return 1 + 0.5 * np.sin(2 * np.pi * np.arange(shape[0]) / period)[:, np.newaxis] * np.ones((1, shape[1]))


def contrast_of(picture, period):
    rows = np.arange(picture.shape[0])
    inner = slice(3 * 32, -3 * 32)
    wave = np.exp(-2j * np.pi * rows / period)[:, np.newaxis]
    return 2 * np.abs((picture * wave)[inner].mean(axis=0)) / 0.5


@pytest.mark.parametrize("pixels", [0.0, 0.5, 1.7, 3.0, 6.0, 9.0, 13.0])
@pytest.mark.parametrize("period", [32, 16])
def test_a_flat_target_shows_the_contrast_of_the_optics(pixels, period):
    blur = np.full((480, 640), pixels * PITCH)
    seen = contrast_of(render(grating(period), blur, WORKS_AS, PITCH), period)
    assert seen == pytest.approx(abs(contrast(1 / (period * PITCH), WORKS_AS, pixels * PITCH)), abs=0.008)


def blur_from_contrast(seen, period):
    """The blur diameter, mm, that leaves such a contrast at a period: before its first zero."""
    blurs = np.linspace(0, 1.15 * period * PITCH, 4001)
    table = contrast(1 / (period * PITCH), WORKS_AS, blurs)
    return np.interp(-seen, -table, blurs)


def test_blur_measured_on_a_target_through_a_tilted_lens_agrees_within_two_percent():
    f, n, period = 90.0, 8.0, 16
    setting = tilt_for_plane(f, 420, 0.35, 0.0)
    x = np.linspace(-18, 18, 640)
    flat = np.column_stack([x, np.zeros_like(x), np.full_like(x, 420.0)])  # a target that stands square
    blur = wedge_blur(f, n, setting, flat)
    picture = render(grating(period), np.tile(blur, (480, 1)), WORKS_AS, PITCH)
    measured = blur_from_contrast(contrast_of(picture, period), period)
    readable = (blur > 0.35 * period * PITCH) & (blur < 1.0 * period * PITCH)
    assert readable.sum() > 100
    assert measured[readable] == pytest.approx(blur[readable], rel=0.02)


def test_light_is_neither_made_nor_lost():
    texture = np.random.default_rng(5).random((240, 320, 3))
    picture = render(texture, np.full((240, 320), 5 * PITCH), WORKS_AS, PITCH)
    assert picture.mean(axis=(0, 1)) == pytest.approx(texture.mean(axis=(0, 1)), rel=0.01)


def test_blur_that_changes_leaves_no_seam():
    flat = np.full((240, 320), 0.4)
    blur = np.tile(np.linspace(0, 20 * PITCH, 320), (240, 1))
    assert render(flat, blur, WORKS_AS, PITCH) == pytest.approx(flat, abs=1e-3)


@pytest.mark.parametrize("shape", [(97, 131), (40, 40), (240, 321)])
def test_any_size_of_picture(shape):
    texture = np.random.default_rng(5).random((*shape, 3))
    assert render(texture, np.full(shape, 9 * PITCH), WORKS_AS, PITCH).shape == (*shape, 3)


def test_more_diffraction_is_softer():
    sharp, soft = (contrast_of(render(grating(8), np.zeros((480, 640)), ne, PITCH), 8).mean() for ne in (8, 45))
    assert soft < sharp - 0.2


@pytest.mark.parametrize(
    ("texture", "blur"),
    [(np.ones((8, 8)), np.ones((8, 9))), (np.ones((8, 8, 2)), np.ones((8, 8))), (np.ones((8, 8)), -np.ones((8, 8)))],
)
def test_what_cannot_be_is_refused(texture, blur):
    with pytest.raises(OutOfDomainError):
        render(texture, blur, WORKS_AS, PITCH)


@pytest.mark.parametrize("kind", KINDS)
def test_a_place_looks_the_same_from_any_window_of_one_scale(kind):
    x, y = np.linspace(-20, 20, 401), np.linspace(15, -15, 301)
    whole, part = surface(kind, x, y, 100), surface(kind, x[100:200], y[50:150], 100)
    apart = np.abs(part.light - whole.light[50:150, 100:200])
    # Single pixels at hard edges may fall to either side.
    assert np.mean(apart.max(axis=-1) > 2e-3) < 0.01
    assert 0 <= whole.light.min() < whole.light.max() <= 1
    assert np.abs(whole.relief).max() <= 1


def test_an_unknown_surface_is_refused():
    with pytest.raises(OutOfDomainError):
        surface("marble", [0.0, 1.0], [0.0], 10)


@pytest.mark.parametrize(
    ("least", "most"),
    [(0.0, 0.4), (0.0, 9.0), (0.1, 30.0), (2.0, 2.01), (2.0, 2.2), (2.0, 60.0), (0.0, 0.01), (0.2, 0.202)],
)
def test_blurs_worked_out_exactly_hold_all_of_the_picture_s_between_them(least, most):
    rungs = np.array(_ladder(least, most))
    if most <= 1.02 * least and least >= SMALLEST:
        # All alike: one is enough, and it is one of them.
        assert least <= rungs.item() <= most
        return
    assert rungs[0] <= least + 1e-9
    assert rungs[-1] >= most or most < SMALLEST / 20
    grown = rungs[rungs > 0]
    assert np.all(grown[1:] / grown[:-1] <= RATIO * (1 + 1e-9))
