"""What is kept of a frame, against waves and ramps whose energies are known by formula."""

import numpy as np
import pytest

from just_plane.core.frames.check.similarity import IDENTITY
from just_plane.core.frames.check.tiles import (
    COARSE,
    COARSEST,
    CURVE,
    FINE,
    grid_for,
    light_between,
    measured,
    sampled,
)

SIZE = (320, 480)
GRID = grid_for(SIZE[1], SIZE[0], 3.0, 2.7)


def across(cycles_a_px, height=0.1, mean=0.5, turn_deg=0.0):
    """A wave that runs to the right, or turned toward the bottom."""
    y, x = np.mgrid[: SIZE[0], : SIZE[1]]
    along = x * np.cos(np.radians(turn_deg)) + y * np.sin(np.radians(turn_deg))
    return (mean + height * np.cos(2 * np.pi * cycles_a_px * along)).astype(np.float32)


def inside(cells):
    """Without the outermost cells, to which the edge of the picture comes."""
    return cells[..., 4:-4, 4:-4]


def sampled_bell(sigma, cycles_a_px):
    """Of a wave, by a bell curve that is sampled at whole pixels: a sum of cosines."""
    n = np.arange(-40, 41)
    weights = np.exp(-(n**2) / (2 * sigma**2))
    return float((weights * np.cos(2 * np.pi * cycles_a_px * n)).sum() / weights.sum())


def energy_of(sigma, cycles_a_px, times=1, height=0.1, mean=0.5):
    """Of a wave in the band from sigma to 1.6 sigma, over the square of the light, at so many times fewer pixels."""
    box = np.sin(np.pi * times * cycles_a_px) / (times * np.sin(np.pi * cycles_a_px))
    passed = box * (
        sampled_bell(sigma / times, cycles_a_px * times) - sampled_bell(1.6 * sigma / times, cycles_a_px * times)
    )
    return 0.5 * (height * passed) ** 2 / (mean + 0.01) ** 2


def test_tiles_are_a_fortieth_of_the_width_and_at_least_four_circles():
    assert (GRID.across, GRID.down) == (40, 27)
    coarse = grid_for(480, 320, 6.0, 5.0)
    assert (coarse.across, coarse.down) == (20, 13)
    assert grid_for(30, 30, 6.0, 5.0)[2:4] == (3, 3)


def test_middles_of_tiles_lie_evenly_and_as_far_from_either_edge():
    places = GRID.places.reshape(27, 40, 2)
    assert np.diff(places[0, :, 0]) == pytest.approx(12.0)
    assert np.diff(places[:, 0, 1]) == pytest.approx(320 / 27)
    # The first pixel's middle is at 0: the picture reaches from -0.5 to 479.5.
    assert places[0, 0, 0] + 0.5 == pytest.approx(479.5 - places[0, -1, 0])
    assert (places[0, 0, 0], places[0, 0, 1]) == (pytest.approx(5.5), pytest.approx(320 / 54 - 0.5))


def test_a_place_is_in_the_tile_whose_middle_is_nearest():
    assert (GRID.tile_at(GRID.places) == np.arange(27 * 40)).all()
    # Pixels are counted from the middle of the first: tiles are 12 px wide, from half a pixel before it.
    assert list(GRID.tile_at([(11.4, 0.0), (11.6, 0.0), (0.0, 320 / 27 - 0.6), (0.0, 320 / 27 - 0.4)])) == [0, 1, 0, 40]
    # Beside the picture the nearest.
    assert list(GRID.tile_at([(-9.0, -9.0), (479.6, 0.0), (490.0, 330.0), (0.0, 319.6)])) == [0, 39, 1079, 1040]


def test_the_curve_is_looked_at_where_a_step_blurs_so_that_five_samples_hold_it():
    fine, curve, coarse, coarsest = GRID.frequencies
    assert (fine, coarse, coarsest) == pytest.approx((1 / 3, 1 / 24, 1 / 60))
    assert curve == pytest.approx(0.42 / 2.7)
    # Never finer than the circle of confusion, however short the step.
    assert grid_for(480, 320, 3.0, 0.5).frequencies[1] == pytest.approx(1 / 3)


@pytest.mark.parametrize(("place", "times"), [(FINE, 1), (CURVE, 1), (COARSE, 4), (COARSEST, 4)])
def test_energy_of_a_wave_in_each_band_is_what_the_formula_gives(place, times):
    frequency = GRID.frequencies[place]
    # Cells of the wide bands are narrower than a wave: their mean is that of whole waves.
    got = inside(measured(across(frequency, 0.02), GRID).energy[place])[:, :60]
    assert got.mean() == pytest.approx(energy_of(0.175 / frequency, frequency, times, 0.02), rel=0.02)


def test_light_drops_out_of_energy_and_strength_goes_in_squared():
    frequency = GRID.frequencies[CURVE]
    once, twice, darker = (
        float(np.median(inside(measured(picture, GRID).energy[CURVE])))
        for picture in (across(frequency), across(frequency, height=0.2), across(frequency, 0.05, 0.25))
    )
    assert twice == pytest.approx(4 * once, rel=0.02)
    # Half the light and half the wave: but for the hundredth that keeps black from being divided by nothing.
    assert darker == pytest.approx(once * (0.51 / 0.26 / 2) ** 2, rel=0.02)


@pytest.mark.parametrize(
    ("turn_deg", "lean", "skew"), [(0, 1.0, 0.0), (90, -1.0, 0.0), (45, 0.0, 1.0), (-45, 0.0, -1.0), (30, 0.5, 0.866)]
)
def test_slopes_say_which_way_detail_runs(turn_deg, lean, skew):
    gxx, gyy, gxy = (float(np.median(inside(part))) for part in measured(across(0.08, 0.1, 0.5, turn_deg), GRID).slopes)
    # Of a wave the gradient lies along it: cos 2a and sin 2a of its direction.
    assert (gxx - gyy) / (gxx + gyy) == pytest.approx(lean, abs=0.03)
    assert 2 * gxy / (gxx + gyy) == pytest.approx(skew, abs=0.03)


def test_light_is_linear_and_burnt_or_black_places_tell_none():
    picture = np.full(SIZE, 0.5, np.float32)
    picture[:, :124] = 0.99
    picture[:, 360:] = 0.001
    found = measured(picture, GRID)
    # A cell is six pixels wide: number 20 is burnt by four of its six.
    assert found.light[:, 22:58] == pytest.approx(0.5**2.2, rel=1e-4)
    assert np.isnan(found.light[:, :21]).all()
    assert np.isnan(found.light[:, 61:]).all()
    assert found.clipped == pytest.approx(124 / 480, abs=0.005)


def ramp(down, across):
    """Cells that rise by one to the right and by ten downward, counted from the middle of the first."""
    y, x = np.mgrid[:down, :across]
    return (x + 10.0 * y)[np.newaxis].astype(np.float32)


def test_cells_are_read_between_their_middles():
    cells = ramp(54, 80)
    # A cell is 6 by 5.93 px; its first middle lies at 2.5, 2.46.
    places = np.array([[2.5 + 6 * 7, 320 / 54 / 2 - 0.5 + 320 / 54 * 9], [2.5 + 6 * 20.5, 320 / 54 * 12.75 - 0.5]])
    expected = [7 + 90, 20.5 + 10 * 12.25]
    assert sampled(cells, GRID, places)[0] == pytest.approx(expected, abs=0.02)


def test_a_cell_is_read_with_those_beside_it_so_that_about_a_tile_counts():
    cells = np.zeros((1, 54, 80), np.float32)
    cells[0, 9, 7] = 1.0
    middle = np.array([[2.5 + 6 * 7, 320 / 54 / 2 - 0.5 + 320 / 54 * 9]])
    beside = middle + np.array([6.0, 0.0])
    # Half of itself and a quarter of either neighbour, each way.
    assert sampled(cells, GRID, middle)[0] == pytest.approx([0.25], abs=0.002)
    assert sampled(cells, GRID, beside)[0] == pytest.approx([0.125], abs=0.002)


def test_outside_of_the_frame_nothing_is_read():
    cells = ramp(54, 80)
    outside = np.array([[-5.0, 100.0], [484.0, 100.0], [100.0, -5.0], [100.0, 324.0]])
    assert np.isnan(sampled(cells, GRID, outside)).all()
    corners = np.array([[1.0, 1.0], [478.0, 318.0]])
    assert np.isfinite(sampled(cells, GRID, corners)).all()


def lit(ev, shift=0):
    """A slow scene, so much lighter, moved to the right by whole pixels."""
    y, x = np.mgrid[: SIZE[0], : SIZE[1]]
    linear = 0.1 + 0.05 * np.cos((x - shift) / 40) * np.cos(y / 55)
    return measured(((linear * 2.0**ev) ** (1 / 2.2)).astype(np.float32), GRID)


@pytest.mark.parametrize("ev", [-1.0, -0.05, 0.0, 0.3, 1.0])
def test_light_between_two_frames_is_told_in_stops(ev):
    assert light_between(lit(0.0), lit(ev), GRID, IDENTITY) == pytest.approx(ev, abs=0.003)


def test_light_is_compared_at_matching_places():
    moved = IDENTITY.copy()
    moved[0, 2] = 24.0
    assert light_between(lit(0.0), lit(0.2, shift=24), GRID, moved) == pytest.approx(0.2, abs=0.003)


@pytest.mark.parametrize(("side", "told"), [(100, False), (110, True)])
def test_where_too_few_places_can_be_compared_light_is_not_told(side, told):
    # Of a lit square those tiles tell that have nothing black within four cells: nine of it, and sixteen.
    dark = np.full(SIZE, 0.001, np.float32)
    dark[100 : 100 + side, 100 : 100 + side] = 0.4
    assert np.isfinite(light_between(measured(dark, GRID), measured(dark, GRID), GRID, IDENTITY)) == told
