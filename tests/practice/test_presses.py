"""Rocking and reading: hands made here, of nothing that the program knows but the drill."""

import numpy as np
import pytest
from scipy.optimize import brentq

from just_plane.core.practice.drill import Setting, make_drill
from just_plane.core.practice.reading import reading_score, rounds_of, sharpest_of
from just_plane.core.practice.rocking import (
    SHUTTER_LAG_S,
    carried,
    carried_across,
    chances,
    hits,
    lateness,
    make_rocking,
    rocking_score,
)
from just_plane.core.practice.seeing import worst_blur
from just_plane.core.practice.sway import subject_moved

SEEDS = range(30)


def test_the_hand_is_the_same_again_and_sways_as_much_as_it_should():
    times = np.arange(0, 600, 0.02)
    rock = 2.0 * np.sin(2 * np.pi * 0.4 * times)
    for hold, sway in (("rested", 0.15), ("braced", 0.4), ("standing", 1.2)):
        for seed in range(4):
            drill = make_rocking(seed, hold)
            place = carried(times, drill)
            assert np.array_equal(place, carried(times, drill))
            assert (place - rock).std() == pytest.approx(sway, rel=0.15)
            across = np.array([carried_across(t, drill) for t in times[::50]])
            assert across.std(axis=0) == pytest.approx([sway, sway], rel=0.3)
            assert abs(np.corrcoef(across[:, 0], (place - rock)[::50])[0, 1]) < 0.3
    assert not np.allclose(carried(times, make_rocking(1)), carried(times, make_rocking(2)))
    assert carried(3.0, make_rocking(1), slower=2.0) == pytest.approx(carried(1.5, make_rocking(1)))


def test_a_draught_comes_in_gusts_and_a_living_thing_holds_still_between_jumps():
    times = np.arange(0, 1200, 0.01)
    blown = subject_moved(times, 3, "draught")
    assert 0.05 < blown.std() < 0.3
    # Gusts of four seconds: the strength in a tenth of one swells and dies.
    strength = np.abs(blown[: len(blown) // 400 * 400]).reshape(-1, 10, 40).mean(axis=(0, 2))
    assert strength.min() < 0.1 * strength.max()
    alive = subject_moved(times, 3, "alive")
    still = np.abs(np.diff(alive)) < 1e-9
    assert still.mean() == pytest.approx(1 - 0.2 * 0.08, abs=0.01)  # 0.2 jumps a second, each of 80 ms
    landed = np.unique(np.round(alive[1:][still], 6))
    assert set(landed) <= {-1.0, 0.0, 1.0}
    assert np.all(subject_moved(times, 3) == 0)


def test_a_living_thing_jumps_but_is_nowhere_at_once():
    """A jump of a millimetre in 80 ms is 19 mm a second at its fastest, as it begins and ends at rest."""
    times = np.arange(0, 300, 0.001)
    places = subject_moved(times, 3, "alive")
    fastest = np.abs(np.diff(places)).max() / 0.001
    assert np.ptp(places) >= 1
    assert fastest < 1.52 * np.ptp(places) / 0.08


def test_what_moves_is_chased_by_the_same_press_and_a_random_one_is_worth_as_little():
    for hold, subject in (("standing", "still"), ("braced", "draught"), ("rested", "alive")):
        drill = make_rocking(4, hold, subject)
        times = np.arange(0, 60, 0.002)
        off = carried(times, drill) - carried(times, make_rocking(4, hold))
        assert np.allclose(off, subject_moved(times, 4, subject))
        through = times[np.flatnonzero(np.diff(np.sign(carried(times, drill))))][:10]
        assert rocking_score(drill, through - SHUTTER_LAG_S) > 90
    random = [
        rocking_score(make_rocking(seed, "standing", "draught"), np.random.default_rng(seed).uniform(0, 60, 10))
        for seed in SEEDS
    ]
    assert np.mean(random) < 20


def crossings(drill):
    times = np.arange(0, 60, 0.002)
    place = carried(times, drill)
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
    expected = np.abs(carried(times + 0.06, drill)) <= drill.depth / 2
    assert np.array_equal(hits(drill, times), expected)
    # 2 c N (1 + m) / m^2
    assert drill.depth == pytest.approx(0.06 * drill.f_number * (1 + drill.magnification) / drill.magnification**2)


def test_presses_that_all_hit_are_worth_a_hundred_and_none_is_worth_more():
    drill = make_rocking(5)
    times = np.linspace(0, 20, 400)
    assert rocking_score(drill, times[hits(drill, times)]) == 100
    assert rocking_score(drill, times[~hits(drill, times)]) == 0
    assert drill == make_rocking(5, "braced", "still")


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


def test_a_crossing_is_known_far_closer_than_what_is_looked_at_in_steps():
    """By its exact moment, which bisection finds: a look is 5 ms long."""
    drill = make_rocking(3)
    exact = []
    for near in crossings(drill)[:12]:
        moment = brentq(lambda t: float(carried(t, drill)), near - 0.02, near + 0.02, xtol=1e-9)
        exact.append(lateness(drill, [moment - SHUTTER_LAG_S]))
    assert exact == pytest.approx(np.zeros(12), abs=2e-4)


def test_presses_later_than_any_look_are_judged_by_crossings_of_then():
    drill = make_rocking(3)
    times = np.arange(130, 150, 0.001)
    through = times[np.flatnonzero(np.diff(np.sign(carried(times, drill))))]
    assert lateness(drill, through - SHUTTER_LAG_S + 0.05) == pytest.approx(0.05, abs=0.01)


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
