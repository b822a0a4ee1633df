"""The order of focus, by distances drawn on a line."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.core.frames.check.order import distances, found_order


def line(places):
    """Distances of frames that stand at places: far ones look alike unlike, as pictures do."""
    away = np.abs(np.subtract.outer(places, places))
    return 1 - np.exp(-away / 3)


def test_frames_in_order_stay():
    assert found_order(line(np.arange(12.0))) == list(range(12))


@pytest.mark.parametrize("at", [0, 3, 7, 10])
def test_two_frames_exchanged_are_put_back(at):
    places = np.arange(12.0)
    places[[at, at + 1]] = places[[at + 1, at]]
    order = found_order(line(places))
    assert [places[k] for k in order] == list(range(12))


def test_a_frame_that_came_late_goes_where_it_belongs():
    places = np.array([0.0, 1, 2, 4, 5, 6, 7, 3, 8, 9, 10, 11])
    assert [places[k] for k in found_order(line(places))] == sorted(places)


def test_a_frame_goes_however_far_to_where_it_belongs():
    places = np.array([25.0, *range(25), 26, 27, 28])
    assert [places[k] for k in found_order(line(places))] == sorted(places)
    places = np.array([0.0, *range(2, 28), 1, 28, 29])
    assert [places[k] for k in found_order(line(places))] == sorted(places)


def length(between, order):
    return sum(between[before, this] for before, this in pairwise(order))


@given(st.permutations(range(14)))
@settings(deadline=None)
def test_frames_that_were_mixed_lie_hardly_farther_from_each_other_than_in_order(places):
    """Two steps: so much one end may be turned, which a step that was skipped there would do to the distances, too."""
    between = line(np.array(places, float))
    found = found_order(between)
    assert sorted(found) == list(range(14))
    step = 1 - np.exp(-1 / 3)
    assert length(between, found) <= length(between, np.argsort(places)) + 2 * step + 1e-9


@given(st.integers(3, 9))
def test_two_halves_given_the_wrong_way_round_are_turned_as_most_frames_lie(cut):
    places = np.concatenate([np.arange(cut, 12.0), np.arange(cut)])
    found = [places[k] for k in found_order(line(places))]
    assert sorted(found) in (found, found[::-1])


@given(st.integers(2, 9), st.integers(1, 3))
@settings(deadline=None)
def test_a_skipped_step_is_no_wrong_order(after, missing):
    places = np.arange(12.0)
    places[after:] += missing
    assert found_order(line(places)) == list(range(12))


def test_equal_frames_stay_as_given():
    assert found_order(np.zeros((6, 6))) == list(range(6))
    assert found_order(line(np.array([0.0, 1, 1, 1, 2, 3]))) == list(range(6))


def test_distance_is_nothing_to_itself_and_grows_along_the_stack():
    tiles = np.linspace(0, 11, 60)
    energies = np.stack([np.stack([np.exp(-((k - tiles) ** 2) / w) for w in (2, 4, 12, 30)]) for k in range(12)])
    between = distances(energies)
    assert np.diag(between) == pytest.approx(np.zeros(12))
    assert (np.diff(between[0, :8]) > 0).all()


def test_tiles_that_some_frame_does_not_see_do_not_count():
    energies = np.random.default_rng(2).uniform(0.1, 1, (5, 4, 30))
    seen = distances(energies)
    hidden = energies.copy()
    hidden[2, :, 10:] = np.nan
    assert distances(hidden) == pytest.approx(distances(energies[:, :, :10]))
    assert not np.allclose(seen, distances(hidden))
