"""Steps by how much the view grows: told by hand, and in whole stacks whose sharp parts alone do not tell them."""

import numpy as np
import pytest

from just_plane.core.frames.check.coverage import gaps
from just_plane.core.frames.check.growth import steps_by_growth
from stacks.camera import Faults
from stacks.kept import FACTS, judged

PAIRS = 14
PUPIL = 230.0
"""Steps to the entrance pupil: each draws nearer by one of them."""


def scales(skipped=(), off=(), pairs=PAIRS, shrinks=False):
    """Size of each frame against the one before, of a lens that looks from a point; pair to steps more, or a share."""
    steps = np.ones(pairs)
    for pair, more in dict(skipped).items():
        steps[pair] += more
    away = PUPIL - np.append(0, np.cumsum(steps))
    grown = away[:-1] / away[1:]
    for pair, share in dict(off).items():
        grown[pair] = 1 + (grown[pair] - 1) * share
    return 1 / grown if shrinks else grown


def told(dark=(), **what):
    grown = scales(**what)
    return steps_by_growth(grown, np.isin(np.arange(len(grown) + 1), dark))


@pytest.mark.parametrize("shrinks", [False, True])
@pytest.mark.parametrize("skipped", [{}, {0: 1}, {6: 1}, {6: 2, 8: 1}, {13: 3}])
def test_steps_are_what_the_view_grew_against_the_pairs_beside(skipped, shrinks):
    expected = np.ones(PAIRS)
    for pair, more in skipped.items():
        expected[pair] += more
    # From first to last the pupil draws nearer by a sixteenth: within six pairs by less than a thirtieth.
    assert told(skipped=skipped, shrinks=shrinks) == pytest.approx(expected, rel=0.05)


def test_growth_between_two_whole_numbers_tells_nothing():
    steps = told(off={5: 1.45, 9: 0.4})
    assert np.flatnonzero(np.isnan(steps)).tolist() == [5, 9]


def test_growth_that_is_not_steady_tells_nothing():
    noise = 0.2 * np.random.default_rng(2).standard_normal(PAIRS)
    assert np.isnan(told(off=dict(enumerate(1 + noise)))).all()
    # As behind an objective, where all that is left is how well frames are laid on each other.
    still = 1 + 1e-5 * np.random.default_rng(3).standard_normal(PAIRS)
    assert np.isnan(steps_by_growth(still, np.zeros(PAIRS + 1, bool))).all()
    assert np.isnan(told(pairs=5)).all()


def by_sharpness(steps):
    """Steps found by what is sharp: those given, by pair, else one each."""
    found = np.ones(PAIRS)
    found[list(steps)] = list(steps.values())
    return found


def test_between_frames_far_apart_the_nearest_whole_number_is_told():
    # Six steps grew as 5.6: what is sharp tells only that they are many.
    grown = scales(skipped={5: 5}, off={5: 0.93})
    frames = np.zeros(PAIRS + 1, bool)
    assert np.isnan(steps_by_growth(grown, frames, by_sharpness({5: 1.0}))[5])
    told_now = steps_by_growth(grown, frames, by_sharpness({5: 3.4}))
    assert told_now[5] == 6.0
    assert told_now[:5] == pytest.approx(np.ones(5), abs=0.05)
    # A view that grows by one step where what is sharp says more is no sign of many; nor is what no frame is laid on.
    assert np.isnan(steps_by_growth(scales(off={5: 1.5}), frames, by_sharpness({5: 3.4}))[5])
    assert np.isnan(steps_by_growth(scales(off={5: 12.0}), frames, by_sharpness({5: 3.4}))[5])


def test_where_growth_is_steady_but_roughly_it_tells_how_many_and_nothing_else():
    noise = 0.15 * np.random.default_rng(5).standard_normal(PAIRS)
    grown = scales(skipped={6: 4}, off=dict(enumerate(1 + noise)) | {6: 1.0})
    told_now = steps_by_growth(grown, np.zeros(PAIRS + 1, bool), by_sharpness({6: 3.0}))
    assert told_now[6] == 5.0
    assert np.isnan(np.delete(told_now, 6)).all()


@pytest.mark.parametrize(("kind", "seed"), [("dome", 3), ("terraces", 8)])
def test_four_frames_that_are_missing_are_four(kind, seed):
    checked = judged(kind, seed, Faults(skipped=(6, 4)))
    assert [(one.code, one.frame, one.amount) for one in checked.findings] == [("skipped_step", 6, 4.0)]
    assert checked.places[6] - checked.places[5] == 5.0


def test_beside_a_dark_frame_both_sides_must_agree():
    # Laid a tenth too near the frame before it: together they are two, and with a step skipped three.
    assert told(dark=[6], off={5: 0.9, 6: 1.1})[5:7] == pytest.approx([0.9, 1.1], rel=0.02)
    assert told(dark=[6], skipped={6: 1})[5:7] == pytest.approx([1.0, 2.0], rel=0.02)
    assert np.isnan(told(dark=[6], off={5: 0.8, 6: 0.8})[5:7]).all()
    # At an end there is one side only. What is dark is no measure for those beside it.
    assert np.isnan(told(dark=[0])[0])
    assert told(dark=[6], off={5: 9.0, 6: -7.0})[4] == pytest.approx(1.0, rel=0.02)


@pytest.mark.parametrize("kind", ["spines", "hairs", "terraces"])
@pytest.mark.parametrize("at", [2, 5, 9])
def test_a_step_skipped_in_a_subject_of_two_depths_is_found_where_it_is(kind, at):
    checked = judged(kind, 26, Faults(skipped=(at, 1)))
    assert [(one.code, one.frame, one.amount) for one in checked.findings] == [("skipped_step", at, 1.0)]
    narrow = FACTS._replace(depth_of_field=1.5 * FACTS.step, frames=13)
    (gap,) = gaps(checked, narrow)
    assert (gap.before, gap.after) == (at - 1, at)
    assert (gap.start, gap.end) == pytest.approx((at - 1 + 0.75, at + 1 - 0.75))


def test_a_step_skipped_beside_a_dark_frame_is_found():
    checked = judged("dome", 4, Faults(skipped=(6, 1), dead_flash=5))
    assert sorted((one.code, one.frame) for one in checked.findings) == [("dead_flash", 5), ("skipped_step", 6)]
    assert checked.places[6] - checked.places[4] == 3
