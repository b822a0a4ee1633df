"""Rocking and reading: hands made here, of nothing that the program knows but the drill."""

import numpy as np
import pytest

from just_plane.core.practice.drill import Setting, make_drill, worst_blur
from just_plane.core.practice.reading import reading_score, rounds_of, sharpest_of
from just_plane.core.practice.rocking import (
    SHUTTER_LAG_S,
    carried,
    chances,
    hits,
    lateness,
    make_rocking,
    rocking_score,
)

SEEDS = range(30)


def test_the_hand_is_the_same_again_and_sways_as_much_as_it_should():
    times = np.arange(0, 600, 0.02)
    for seed in range(4):
        place = carried(times, seed)
        assert np.array_equal(place, carried(times, seed))
        rock = 2.0 * np.sin(2 * np.pi * 0.4 * times)
        assert (place - rock).std() == pytest.approx(0.4, rel=0.15)
    assert not np.allclose(carried(times, 1), carried(times, 2))
    assert carried(3.0, 1, slower=2.0) == pytest.approx(carried(1.5, 1))


def crossings(drill):
    times = np.arange(0, 60, 0.002)
    place = carried(times, drill.seed)
    return times[np.flatnonzero(np.sign(place[1:]) != np.sign(place[:-1]))]


def test_a_hand_that_leads_by_the_lag_hits_and_one_that_waits_until_it_is_sharp_does_not():
    led, waited, blind = [], [], []
    for seed in SEEDS:
        drill = make_rocking(seed)
        through = crossings(drill)[:10]
        led.append(rocking_score(drill, through - SHUTTER_LAG_S))
        waited.append(rocking_score(drill, through + 0.2))
        blind.append(rocking_score(drill, np.random.default_rng(seed).uniform(0, 60, 10)))
    assert np.mean(led) > 95
    assert np.mean(waited) < 20
    assert np.mean(blind) < 20


def test_a_press_is_sharp_when_the_camera_is_within_the_depth_as_the_shutter_opens():
    drill = make_rocking(5)
    times = np.linspace(0, 20, 400)
    expected = np.abs(carried(times + 0.06, 5)) <= drill.depth / 2
    assert np.array_equal(hits(drill, times), expected)
    # 2 c N (1 + m) / m^2
    assert drill.depth == pytest.approx(0.06 * drill.f_number * (1 + drill.magnification) / drill.magnification**2)


def test_chances_are_those_of_presses_without_number():
    drill = make_rocking(8)
    random, led = chances(drill)
    many = np.random.default_rng(2).uniform(0, 120, 40_000)
    assert hits(drill, many).mean() == pytest.approx(random, abs=0.01)
    assert led > 2 * random


@pytest.mark.parametrize("late", [-0.08, 0.0, 0.12])
def test_how_late_the_presses_were_is_found(late):
    drill = make_rocking(3)
    assert lateness(drill, crossings(drill)[:10] - SHUTTER_LAG_S + late) == pytest.approx(late, abs=0.01)
    assert lateness(drill, []) is None


def test_one_of_five_is_sharpest_and_they_come_closer_together():
    places = set()
    for seed in SEEDS:
        rounds = rounds_of(seed)
        assert len(rounds) == 10
        for clicks in rounds:
            assert len(set(clicks)) == 5
            blurs = [worst_blur(make_drill("magnifier", seed), Setting(focus=click)) for click in clicks]
            assert int(np.argmin(blurs)) == sharpest_of(clicks)
            assert sorted(blurs)[0] < sorted(blurs)[1]
            places.add(sharpest_of(clicks))
        assert np.ptp(rounds[0]) > 3 * np.ptp(rounds[-1])
    assert places == {0, 1, 2, 3, 4}


def test_all_right_is_a_hundred_and_chance_is_nothing():
    right = [sharpest_of(clicks) for clicks in rounds_of(6)]
    assert reading_score(6, right) == 100
    made = np.random.default_rng(4)
    scores = [reading_score(seed, made.integers(0, 5, 10).tolist()) for seed in range(300)]
    assert np.mean(scores) < 20
