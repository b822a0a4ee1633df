"""Calm after a move, and the sway of a hand: from places and frames made here, of known truth."""

import numpy as np
import pytest
from tests.trials.made import slope_stack

from just_plane.core.trials.calm import read_calm
from just_plane.core.trials.hand import hand_sway, sharp_lines
from just_plane.core.trials.rows import row_energies


def swinging(made, swing, tau, frames=40, every=0.04, rest=0.02):
    times = every * np.arange(frames)
    phase, hertz = made.uniform(0, 2 * np.pi), made.uniform(6, 20)
    along = swing * np.exp(-times / tau) * np.cos(2 * np.pi * hertz * times + phase)
    way = made.uniform(0, np.pi)
    places = np.stack([along * np.cos(way), along * np.sin(way)], axis=-1) + made.normal(0, rest, (frames, 2))
    return times, places + made.uniform(-50, 50, 2)


def test_a_swing_that_dies_away_is_read_whatever_its_phase_and_direction():
    off_time, off_swing = [], []
    for seed in range(30):
        made = np.random.default_rng(seed)
        swing, tau = made.uniform(2, 20), made.uniform(0.15, 0.4)
        found = read_calm(*swinging(made, swing, tau))
        assert found.seen
        off_time.append(abs(found.calms_in / tau - 1))
        off_swing.append(abs(np.log(found.swing / swing)))
        assert abs(found.calms_in - tau) < 4 * found.doubt
    assert np.median(off_time) < 0.12
    assert np.median(off_swing) < 0.35


def test_a_rail_that_does_not_swing_is_called_calm_and_one_that_never_rests_is_refused():
    made = np.random.default_rng(1)
    still = read_calm(*swinging(made, 0.0, 0.3))
    assert not still.seen
    assert (still.calms_in, still.doubt) == (0.0, 0.0)
    assert still.rest == pytest.approx(0.02 * np.sqrt(2 * np.log(2)), rel=0.5)
    assert still.swing < 0.3
    times = 0.04 * np.arange(40)
    for_ever = np.stack([5 * np.cos(61.0 * times), np.zeros(40)], axis=-1) + made.normal(0, 0.02, (40, 2))
    refused = read_calm(times, for_ever)
    assert isinstance(refused, str) or not refused.seen
    assert "too few" in read_calm(times[:5], for_ever[:5])


@pytest.mark.parametrize("patchy", [False, True])
@pytest.mark.parametrize(("along", "across"), [(0.15, 0.1), (0.4, 0.4), (0.8, 0.3)])
def test_the_sway_along_is_told_from_the_sway_across(along, across, patchy):
    made = np.random.default_rng(7)
    places, shifted = made.normal(0, along, 30), made.normal(0, across, (30, 2)) / 0.006
    frames = list(slope_stack(places, m=1.0, phi_deg=40.0, shape=(900, 160), noise=0.01, patchy=patchy))
    moved = [
        np.roll(frame, np.rint(shift[::-1]).astype(int), (0, 1)) for frame, shift in zip(frames, shifted, strict=True)
    ]
    shifts = np.rint(shifted) - np.rint(shifted[0])
    lines = sharp_lines([row_energies(frame)[0] for frame in moved], shifts[:, 1])
    found = hand_sway(lines, shifts, 0.006, 1.0, np.radians(40.0))
    if patchy and isinstance(found, str):
        return  # a print of uneven strength may be refused
    assert found.along == pytest.approx(places.std(), rel=0.2 if patchy else 0.12)
    assert found.across == pytest.approx(np.sqrt(shifted.var(axis=0).mean()) * 0.006, rel=0.05)


def test_frames_without_a_sharp_line_inside_are_refused():
    flat = np.random.default_rng(2).uniform(0.9, 1.1, (30, 400))
    told = hand_sway(sharp_lines(flat, np.zeros(30)), np.zeros((30, 2)), 0.006, 1.0, 0.7)
    assert "sharp line" in told
