"""A ruler whose spacing is known is found again, however it lies and however badly it was photographed."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.core.frames.not_rulers import THINGS, ruler_by

from just_plane.core.frames.ruler import NoRulerError, find_ruler
from just_plane.core.frames.ruler_picture import ruler_picture


def frame(width=900, height=600, **options):
    return ruler_picture(width, height, offset=0.3, generator=np.random.default_rng(3), **options)


def found_in(picture, spacing, within=1e-3):
    ruler = find_ruler(picture)
    assert ruler.spacing == pytest.approx(spacing, rel=within)
    assert abs(ruler.spacing - spacing) < 6 * ruler.spacing_uncertainty
    return ruler


def same_direction(one, other):
    return abs(math.sin(one - other))


@pytest.mark.parametrize("degrees", [0, 4, 37, 90, -52, 88])
def test_it_is_found_at_any_angle(degrees):
    angle = math.radians(degrees)
    ruler = found_in(frame(spacing=21.4, angle=angle), 21.4)
    assert same_direction(ruler.angle, angle) < 0.01


@pytest.mark.parametrize(
    "harm",
    [
        {"blur": 4.0},
        {"noise": 0.15},
        {"uneven": 0.8},
        {"covered": 0.4},
        {"blur": 3.0, "noise": 0.05, "uneven": 0.6, "covered": 0.3},
    ],
    ids=["blurred", "noisy", "unevenly lit", "partly covered", "all of it"],
)
def test_it_is_found_in_a_bad_photograph(harm):
    found_in(frame(spacing=26.5, angle=0.12, **harm), 26.5, within=2e-3)


@pytest.mark.parametrize("spacing", [8.3, 14.9, 45.0, 80.0])
def test_fine_and_coarse_ticks_are_found(spacing):
    found_in(frame(spacing=spacing, angle=0.07), spacing)


def test_a_large_frame_is_searched_smaller_and_answered_in_its_own_pixels():
    ruler = found_in(frame(3000, 2000, spacing=60.0, angle=0.2), 60.0)
    assert ruler.marks.max() > 2000
    # Folding onto whole pixels and lens distortion leave a ten-thousandth in doubt, in the frame's own pixels too.
    assert 1e-4 * 60.0 <= ruler.spacing_uncertainty < 1e-3 * 60.0


@given(st.floats(12, 60), st.floats(-1.5, 1.5), st.floats(0, 1))
@settings(max_examples=8, deadline=None)
def test_whatever_the_spacing_the_angle_and_the_offset(spacing, angle, uneven):
    picture = ruler_picture(800, 700, spacing, angle=angle, offset=uneven, uneven=0.5 * uneven)
    found_in(picture, spacing, within=3e-3)


@pytest.mark.parametrize(("width", "height"), [(180, 150), (150, 190)])
def test_a_small_frame_is_searched_though_it_cannot_be_made_smaller(width, height):
    found_in(frame(width, height, spacing=8.0, angle=0.05), 8.0, within=5e-3)


def test_the_marks_lie_on_the_ticks():
    picture = frame(spacing=40.0, angle=0.1)
    ruler = find_ruler(picture)
    middles = (ruler.marks[:, :2] + ruler.marks[:, 2:]) / 2
    inside = [(x, y) for x, y in middles if 20 < x < 880 and 20 < y < 580]
    assert len(inside) >= 10
    on = [picture[round(y), round(x)] for x, y in inside]
    step = 20 * np.array([math.cos(0.1), math.sin(0.1)])
    beside = [picture[round(y + step[1]), round(x + step[0])] for x, y in inside if x < 860]
    assert np.median(on) < 0.35 < 0.6 < np.median(beside)


def test_light_ticks_on_dark_are_ticks_too():
    picture = 1 - frame(spacing=30.0, angle=0.1)
    ruler = found_in(picture, 30.0)
    x, y = ((ruler.marks[5, :2] + ruler.marks[5, 2:]) / 2).round().astype(int)
    assert picture[y, x] > 0.6


def test_a_ruler_seen_aslant_is_told():
    """The spacing grows by 6 % along the frame: each column is taken from where perspective would have it."""
    square = ruler_picture(1400, 500, 26.0)
    x = np.linspace(-0.5, 0.5, 1200)
    source = (x + 0.03 * x**2) / 1.1 + 0.5
    ruler = find_ruler(square[:, (source * 1399).round().astype(int)])
    assert 0.03 < abs(ruler.drift) < 0.09


def texture(power, seed):
    spectrum = np.fft.fft2(np.random.default_rng(seed).normal(size=(400, 600)))
    across, down = np.fft.fftfreq(600)[None], np.fft.fftfreq(400)[:, None]
    return np.fft.ifft2(spectrum / (0.002 + np.hypot(across, down)) ** power).real


def discs(seed):
    chance, picture = np.random.default_rng(seed), np.full((400, 600), 0.5)
    y, x = np.mgrid[:400, :600]
    for _ in range(40):
        picture[np.hypot(x - chance.uniform(0, 600), y - chance.uniform(0, 400)) < chance.uniform(10, 70)] = (
            chance.uniform()
        )
    return picture


@pytest.mark.parametrize(
    "picture",
    [
        np.zeros((400, 600)),
        np.tile(np.linspace(0, 1, 600), (400, 1)),
        *(texture(power, seed) for power in (0, 1, 1.5, 2) for seed in (1, 2)),
        *(discs(seed) for seed in range(4)),
    ],
)
def test_a_picture_without_a_ruler_is_refused_in_words(picture):
    with pytest.raises(NoRulerError, match="nothing in this picture repeats evenly") as refusal:
        find_ruler(picture)
    assert "two points by hand" in refusal.value.remedy
    assert refusal.value.quantity == "frame"


@pytest.mark.parametrize("thing", THINGS, ids=lambda thing: thing.__name__)
@pytest.mark.parametrize("seed", [1, 2, 3])
def test_what_only_repeats_evenly_is_no_ruler(thing, seed):
    """Keys, cloth, moire, lines of text, a fence, blinds, beads, rows of bonbons; each at its own angle and blur."""
    with pytest.raises(NoRulerError, match="repeats evenly") as refusal:
        find_ruler(thing(seed))
    assert "two points by hand" in refusal.value.remedy


def inches(number):
    return next((length for every, length in ((16, 1.0), (8, 0.8), (4, 0.65), (2, 0.5)) if number % every == 0), 0.35)


@pytest.mark.parametrize("spacing", [12.0, 26.0, 41.0])
@pytest.mark.parametrize(
    "pattern",
    [inches, lambda number: 1.0 if number % 10 == 0 else 0.55, lambda number: 1.0 if number % 5 == 0 else 0.6],
    ids=["sixteenths", "tens only", "fives only"],
)
def test_rulers_otherwise_divided_are_rulers(pattern, spacing):
    found_in(ruler_by(pattern, spacing), spacing, within=2e-3)


def test_a_comb_of_equal_strokes_along_an_edge_is_no_ruler():
    with pytest.raises(NoRulerError, match="strokes are all of one length"):
        find_ruler(ruler_by(lambda number: 0.7, 26.0))


@pytest.mark.parametrize(
    "picture",
    [np.zeros((30, 900)), np.zeros((600, 900, 3)), np.full((100, 100), np.nan)],
    ids=["thin", "colour", "nan"],
)
def test_what_is_no_frame_is_refused(picture):
    with pytest.raises(NoRulerError, match="too small to find a ruler in"):
        find_ruler(picture)


@pytest.mark.parametrize("degrees", [0, 30])
def test_the_made_up_ruler_has_the_spacing_it_was_asked_for(degrees):
    """By counting edges along a line of the picture, not by the finder."""
    angle = math.radians(degrees)
    picture = ruler_picture(1200, 1200, 50.0, angle=angle, blur=0.5)
    along = np.arange(-400, 400, 0.5)
    across = -100  # where the short ticks are
    x = along * math.cos(angle) - across * math.sin(angle) + 599.5
    y = along * math.sin(angle) + across * math.cos(angle) + 599.5
    dark = picture[y.round().astype(int), x.round().astype(int)] < 0.5
    starts = along[1:][dark[1:] & ~dark[:-1]]
    assert np.diff(starts) == pytest.approx(np.full(len(starts) - 1, 50.0), abs=1.6)
    assert len(starts) == 16
