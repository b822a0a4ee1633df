"""Depth and steps from bells that were drawn by hand: Gaussians of known place, width and height."""

import numpy as np
import pytest

from just_plane.core.frames.check.focus_fit import fit_focus, found_steps, noise_floors

WIDTH = 1.3
COUNT = 12


def bells(depths, places, *, noise=1e-3, loss=None, seed=3):
    """Energies (K, N) of tiles at depths, seen from places, over a floor."""
    generator = np.random.default_rng(seed)
    heights = np.exp(generator.normal(0, 0.5, len(depths)))
    away = np.asarray(places)[:, np.newaxis] - np.asarray(depths)
    energy = heights * np.exp(-(away**2) / (2 * WIDTH**2))
    if loss is not None:
        energy[loss[0]] *= np.exp(loss[1])
    return energy + noise * np.exp(generator.normal(0, 0.05, energy.shape))


DEPTHS = np.random.default_rng(1).uniform(1.0, COUNT - 2.0, 400)
PLACES = np.arange(COUNT, dtype=float)


def test_tiles_lie_where_they_were_put_and_the_bell_is_as_wide_as_it_is():
    fit = fit_focus(bells(DEPTHS, PLACES), PLACES)
    assert fit.textured.all()
    assert np.abs(fit.depths - DEPTHS).max() < 0.05
    assert fit.width == pytest.approx(WIDTH, rel=0.03)
    # The logarithms of the heights that were drawn.
    assert fit.tops == pytest.approx(np.random.default_rng(3).normal(0, 0.5, len(DEPTHS)), abs=0.05)


@pytest.mark.parametrize("step", [0.0, 1.0, 1.5, 2.0, 3.0])
def test_a_step_that_is_not_as_planned_is_found_and_no_other(step):
    places = PLACES.copy()
    places[6:] += step - 1
    steps = found_steps(bells(DEPTHS, places))
    assert steps.shape == (COUNT - 1,)
    assert steps[5] == pytest.approx(step, abs=0.15)
    assert np.nanmedian(np.abs(np.delete(steps, 5) - 1)) < 0.1


@pytest.mark.parametrize("step", [0.62, 0.87, 1.38, 2.13])
def test_a_step_between_those_that_are_tried_is_found_between_them(step):
    """They are tried a quarter apart: without looking between, all of these come out an eighth off."""
    places = PLACES.copy()
    places[6:] += step - 1
    uneven = np.exp(np.random.default_rng(5).normal(0, 0.05, (COUNT, len(DEPTHS))))
    assert found_steps(uneven * bells(DEPTHS, places))[5] == pytest.approx(step, abs=0.09)


def test_a_frame_that_lost_detail_is_told_by_how_much():
    fit = fit_focus(bells(DEPTHS, PLACES, loss=(5, -0.6)), PLACES)
    assert fit.losses[5] == pytest.approx(-0.6, abs=0.1)
    assert np.abs(np.delete(fit.losses, 5)).max() < 0.12


def test_a_tile_of_noise_alone_has_no_depth():
    energies = bells(DEPTHS, PLACES)
    energies[:, 7] = 1e-3 * np.exp(np.random.default_rng(5).normal(0, 0.1, COUNT))
    fit = fit_focus(energies, PLACES)
    assert not fit.textured[7]
    assert np.isnan(fit.depths[7])


def test_tiles_in_a_gap_are_drawn_from_both_its_sides():
    places = np.array([0.0, 1, 2, 3, 4, 7, 8, 9, 10, 11])
    fit = fit_focus(bells(DEPTHS, places), places)
    inside = (DEPTHS > 4.6) & (DEPTHS < 6.4)
    assert np.abs(fit.depths - DEPTHS)[inside].max() < 0.3


def test_the_floor_is_what_most_frames_leave_of_a_tile():
    floors = noise_floors(bells(DEPTHS, PLACES, noise=2e-3))
    assert np.median(floors) == pytest.approx(2e-3, rel=0.3)
    few = noise_floors(bells(DEPTHS, PLACES, noise=2e-3)[:6])
    assert few[0] == pytest.approx(2e-3, rel=0.4)
    assert len(set(few)) == 1


def test_too_few_tiles_tell_no_step():
    assert np.isnan(found_steps(bells(DEPTHS[:6], PLACES))).all()
