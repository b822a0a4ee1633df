"""The made-up ruler by its drawing: where ticks stand, how long they are, what covers and darkens it."""

import numpy as np
import pytest

from just_plane.core.errors import OutOfDomainError
from just_plane.core.frames.ruler_picture import ruler_picture

WIDTH, HEIGHT, SPACING = 600, 400, 20.0
REACH = 0.42 * HEIGHT
EDGE = 0.35 * REACH
LONG = 0.6 * REACH
PAPER, BEYOND, TICK = 0.86, 0.25, 0.86 - 0.72


def picture(**more):
    return ruler_picture(WIDTH + 1, HEIGHT + 1, SPACING, blur=0.4, **more)


def test_the_ruler_is_light_from_its_edge_on_and_what_lies_beyond_is_not():
    seen = picture()
    between = seen[:, WIDTH // 2 + 10]
    middle, edge, far = HEIGHT // 2, HEIGHT / 2 - EDGE, HEIGHT / 2 + REACH
    assert between[middle] == pytest.approx(PAPER, abs=1e-3)
    assert between[int(edge) - 4] == pytest.approx(BEYOND, abs=1e-3)
    assert between[int(edge) + 5] == pytest.approx(PAPER, abs=1e-3)
    assert between[int(far) + 5] == pytest.approx(BEYOND, abs=1e-3)


@pytest.mark.parametrize(
    ("number", "length"), [(0, 1.0), (10, 1.0), (-10, 1.0), (5, 0.75), (-5, 0.75), (1, 0.5), (-3, 0.5), (7, 0.5)]
)
def test_every_tenth_tick_is_long_every_fifth_half_long(number, length):
    seen = picture()
    column = seen[:, WIDTH // 2 + round(number * SPACING)]
    dark = np.flatnonzero(np.abs(column - TICK) < 0.05)
    assert dark[0] == pytest.approx(HEIGHT / 2 - EDGE, abs=2)
    assert len(dark) == pytest.approx(length * LONG, abs=3)


def test_ticks_are_a_sixth_of_the_spacing_wide_and_stand_evenly():
    row = picture()[HEIGHT // 2 - 30]
    dark = row < 0.5 * (PAPER + TICK)
    starts = np.flatnonzero(np.diff(dark.astype(int)) == 1)
    assert np.diff(starts) == pytest.approx(SPACING, abs=1)
    assert dark.mean() == pytest.approx(0.16, abs=0.03)


def test_an_offset_is_a_share_of_the_spacing():
    plain, moved = picture(), picture(offset=0.5)
    assert moved[:, 10:] == pytest.approx(plain[:, :-10], abs=1e-5)


@pytest.mark.parametrize("turned", [np.pi / 2, -np.pi / 2, np.pi])
def test_a_ruler_that_is_turned_is_the_picture_turned(turned):
    """On a square frame; half a turn and quarter turns are exact."""
    level = ruler_picture(401, 401, SPACING)
    quarters = {np.pi / 2: -1, -np.pi / 2: 1, np.pi: 2}[turned]
    assert ruler_picture(401, 401, SPACING, angle=turned) == pytest.approx(np.rot90(level, quarters), abs=2e-2)


def test_a_part_is_covered_from_its_far_end():
    seen = picture(covered=0.25)
    assert seen[:, : round(0.74 * WIDTH)] == pytest.approx(picture()[:, : round(0.74 * WIDTH)], abs=1e-3)
    assert seen[:, round(0.77 * WIDTH) :] == pytest.approx(0.45, abs=1e-3)


def test_light_falls_from_corner_to_corner():
    share = picture(uneven=0.6) / picture()
    assert share[0, 0] == pytest.approx(1 - 0.6 * 0.0, abs=5e-3)
    assert share[HEIGHT // 2, WIDTH // 2] == pytest.approx(1 - 0.6 * 0.5, abs=5e-3)
    assert share[-1, -1] == pytest.approx(1 - 0.6, abs=5e-3)


def test_noise_has_the_spread_asked_and_is_kept_within_black_and_white():
    seen = picture(noise=0.03, generator=np.random.default_rng(3))
    plain = picture()
    even = (plain > 0.2) & (plain < 0.8)
    assert (seen - plain)[even].std() == pytest.approx(0.03, rel=0.03)
    loud = picture(noise=0.5, generator=np.random.default_rng(3))
    assert (loud.min(), loud.max()) == (0.0, 1.0)


def test_blur_softens_the_edge_by_as_much():
    """From a quarter to three quarters of a step: its width grows with the blur."""

    def rise(blur):
        column = ruler_picture(WIDTH + 1, HEIGHT + 1, SPACING, blur=blur)[:, WIDTH // 2 + 10]
        share = (column - BEYOND) / (PAPER - BEYOND)
        edge = slice(round(HEIGHT / 2 - EDGE) - 20, round(HEIGHT / 2 - EDGE) + 20)
        return np.interp([0.25, 0.75], share[edge], np.arange(40))

    two, four = (np.ptp(rise(blur)) for blur in (2.0, 4.0))
    assert four == pytest.approx(2 * two, rel=0.05)
    # Of a bell of that deviation it would be 1.349 of it.
    assert two == pytest.approx(2 * 1.349, rel=0.1)
    assert rise(4.0).mean() == pytest.approx(rise(2.0).mean(), abs=0.4)


@pytest.mark.parametrize("bad", [{"spacing": 0.0}, {"spacing": -3.0}, {"blur": -1.0}])
def test_what_cannot_be_drawn_is_refused(bad):
    with pytest.raises(OutOfDomainError):
        ruler_picture(64, 64, **{"spacing": 10.0, **bad})
