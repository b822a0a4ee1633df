"""A comb along one direction: ticks whose places are known, read from the run of their phase."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.core.frames.comb import _finest, comb_along
from just_plane.core.frames.spectrum import SQUARE, evened

SIZE = (320, 460)


def ticks(spacing, angle=0.0, *, first=0.0, width=0.3, noise=0.0, inside=None, grows=0.0):
    """Dark strokes on white, so many pixels apart along a direction; ``grows``: share by which they draw apart."""
    y, x = np.mgrid[: SIZE[0], : SIZE[1]].astype(float)
    along = x * np.cos(angle) + y * np.sin(angle)
    turns = (along - first) / spacing
    if grows:
        turns = turns - grows * (turns**2) * spacing / (2 * SIZE[1])
    away = np.abs(turns - np.round(turns)) * spacing
    light = np.clip(away - width * spacing / 2 + 0.5, 0, 1)
    if inside is not None:
        across = y * np.cos(angle) - x * np.sin(angle)
        light = np.where((across > inside[0]) & (across < inside[1]), light, 1.0)
    return (200 * light + noise * np.random.default_rng(3).standard_normal(SIZE)).astype(np.float32)


def found(frame, spacing, angle=0.0, off=0.0):
    pace = 1 / spacing + off
    return comb_along(evened(frame), (pace * np.cos(angle), pace * np.sin(angle)))


@settings(max_examples=20, deadline=None)
@given(st.floats(6.0, 40.0), st.floats(-0.6, 2.1), st.floats(0.0, 1.0))
def test_spacing_and_direction_are_found_to_two_thousandths(spacing, angle, start):
    comb = found(ticks(spacing, angle, first=start * spacing), spacing, angle)
    assert comb.spacing == pytest.approx(spacing, rel=2e-3)
    assert np.sin(comb.angle - angle) == pytest.approx(0, abs=3e-3)
    assert comb.uncertainty < 0.01 * spacing


@pytest.mark.parametrize("first", [0.0, 3.0, 9.0])
def test_ticks_stand_where_they_were_drawn(first):
    comb = found(ticks(17.0, first=first), 17.0)
    places = (comb.ticks - first) / 17.0
    assert np.abs(places - np.round(places)).max() * 17 < 0.6
    assert np.diff(comb.ticks) == pytest.approx(np.full(len(comb.ticks) - 1, 17.0), abs=0.05)
    assert len(comb.ticks) >= SIZE[1] // 17 - 2


def test_light_ticks_are_found_as_dark_ones_are():
    comb = found(200 - ticks(17.0, first=3.0), 17.0)
    places = (comb.ticks - 3.0) / 17.0
    assert np.abs(places - np.round(places)).max() * 17 < 0.6


def test_a_direction_that_is_a_little_off_is_mended():
    comb = comb_along(evened(ticks(15.0, 0.2)), (np.cos(0.23) / 15.0, np.sin(0.23) / 15.0))
    assert comb.angle == pytest.approx(0.2, abs=2e-3)
    assert comb.spacing == pytest.approx(15.0, rel=1e-3)


def test_where_across_it_the_comb_shows_is_told():
    comb = found(ticks(14.0, inside=(100, 180)), 14.0)
    # Strips are a twenty-fourth of the frame's height.
    assert comb.across == (pytest.approx(100, abs=28), pytest.approx(180, abs=28))


def test_noise_makes_it_less_sure_not_wrong():
    clean, noisy = (found(ticks(15.0, 0.1, noise=noise), 15.0, 0.1) for noise in (0.0, 120.0))
    assert noisy.spacing == pytest.approx(15.0, rel=2e-3)
    assert abs(noisy.spacing - 15.0) < 6 * noisy.uncertainty
    assert noisy.score < clean.score


def test_ticks_that_draw_apart_have_their_drift_and_the_spacing_of_their_middle():
    even, drawn = (found(ticks(15.0, grows=grows), 15.0) for grows in (0.0, 0.05))
    assert even.drift == pytest.approx(0, abs=0.005)
    # Turns run as s - g s^2/2 over the frame: their pace falls by g from end to end.
    assert abs(drawn.drift) == pytest.approx(0.05, abs=0.015)
    assert drawn.spacing == pytest.approx(15.0 / (1 - 0.05 / 2), rel=0.01)


@pytest.mark.parametrize("angle", [0.0, 0.3])
def test_in_a_band_the_comb_of_the_band_is_measured_and_no_other(angle):
    """Two rulers one above the other: 12 px and 15 px a tick."""
    above, below = ticks(12.0, angle, inside=(-200, 90)), ticks(15.0, angle, inside=(140, 600))
    frame = evened(np.minimum(above, below))

    def along(spacing, band):
        return comb_along(frame, (np.cos(angle) / spacing, np.sin(angle) / spacing), band)

    assert along(12.0, (-20, 80)).spacing == pytest.approx(12.0, rel=2e-3)
    assert along(15.0, (160, 280)).spacing == pytest.approx(15.0, rel=2e-3)
    # Asked for the other's spacing, it is the band's own that is found.
    assert along(15.0, (-20, 80)).spacing == pytest.approx(12.0, rel=2e-3)
    low, high = along(15.0, (160, 280)).across
    assert 159 <= low < high <= 281
    # Ticks stand where they stand in the whole frame.
    whole, band = comb_along(frame, (np.cos(angle) / 15, np.sin(angle) / 15)), along(15.0, (160, 280))
    off = (band.ticks[:, None] - whole.ticks[None, :]) / 15
    assert np.abs(off - np.round(off)).max() * 15 < 0.5


@pytest.mark.parametrize(
    "frame",
    [
        200 * np.random.default_rng(1).standard_normal(SIZE).astype(np.float32),
        np.full(SIZE, 120.0, np.float32),
        np.tile(np.arange(SIZE[1], dtype=np.float32), (SIZE[0], 1)),
    ],
    ids=["noise", "nothing", "a ramp"],
)
def test_where_there_is_no_comb_none_is_found(frame):
    assert found(frame, 15.0) is None


def test_a_few_strokes_are_no_comb():
    frame = ticks(15.0)
    frame[:, 75:] = 200
    assert found(frame, 15.0) is None


def test_strokes_at_uneven_places_are_no_comb():
    frame = np.full(SIZE, 200.0, np.float32)
    for at in np.cumsum(np.random.default_rng(2).uniform(6, 26, 30)).astype(int):
        if at < SIZE[1] - 4:
            frame[:, at : at + 4] = 20
    assert found(frame, 16.0) is None


@pytest.mark.parametrize("off", [-0.7, -0.2, 0.0, 0.4, 0.74])
@pytest.mark.parametrize("pace", [1 / 9.3, 1 / 24.7])
def test_a_pace_is_found_between_the_samples_of_the_spectrum(pace, off):
    """A wave of forty turns and more in a window that ends softly: its spectrum peaks at its own pace."""
    profile = 3 + np.cos(2 * np.pi * pace * np.arange(1000) + 0.7)
    assert _finest(profile, 0, 1000, pace + off / SQUARE) == pytest.approx(pace, rel=1e-4)


def test_a_comb_of_few_ticks_is_measured_straight():
    # Windows of three ticks a tick apart: five of them, too few to tell a bend.
    comb = found(ticks(60.0, width=0.2), 60.0)
    assert comb.spacing == pytest.approx(60.0, rel=2e-3)
