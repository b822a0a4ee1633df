"""Frames as they are followed: on which each is laid, in runs, and the same whichever way they come in."""

import numpy as np
import pytest

from just_plane.core.frames.check.series import RECENT_RUNS, Follower, glance, paired, the_other_way
from just_plane.core.frames.check.similarity import chained, inverse
from stacks.kept import FACTS, grey, stack_of

pytestmark = pytest.mark.xdist_group("stacks")


def pictures(kind="dome", seed=3, count=6):
    return [grey(frame) for frame in stack_of(kind, seed).frames[:count]]


def following(shown):
    follower = Follower(shown[0].shape, FACTS, 1)
    for frame, picture in enumerate(shown):
        follower.add(frame, picture)
    return follower


def same(one, other):
    """Whether two frames are known alike."""
    assert (one.run, one.before, one.moved) == (other.run, other.before, other.moved)
    assert np.array_equal(one.measured.energy, other.measured.energy)
    assert one.light_ev == pytest.approx(other.light_ev, abs=1e-9, nan_ok=True)
    if one.before is not None:
        assert one.laid.similarity == pytest.approx(other.laid.similarity, abs=1e-9)


STRANGE = pictures("terraces", 9)


def test_the_grid_is_that_of_the_plan_in_the_pixels_that_are_measured():
    follower = Follower((192, 288), FACTS, 2)
    # 0.03 mm of pixels of 0.02 mm is 1.5 px, and finer than two no picture holds; a step blurs 0.027 mm.
    assert (follower.circle_px, follower.grid.circle_px) == (2.0, 2.0)
    assert follower.grid.step_blur_px == pytest.approx(1.35)
    assert (follower.grid.width, follower.grid.height) == (288, 192)


def test_each_frame_is_laid_on_the_last_and_a_stranger_on_none():
    shown = pictures()
    follower = following([*shown[:3], STRANGE[0], *shown[3:]])
    assert [follower.frames[frame].before for frame in range(7)] == [None, 0, 1, None, 2, 4, 5]
    assert follower.runs() == [[0, 1, 2, 4, 5, 6], [3]]
    assert follower.main_run() == [0, 1, 2, 4, 5, 6]
    assert np.isnan(follower.frames[3].light_ev)
    assert (follower.frames[3].laid, follower.frames[3].moved) == (None, None)


def test_a_frame_is_tried_on_the_last_of_three_runs():
    """Three strangers that do not fit each other; the fourth frame would lie on the first, but that is too long ago."""
    noise = [np.random.default_rng(seed).uniform(0.2, 0.8, (192, 288)).astype(np.float32) for seed in range(3)]
    shown = pictures()
    assert RECENT_RUNS == 3
    follower = following([shown[0], *noise[:2], shown[1]])
    assert follower.frames[3].before == 0
    follower = following([shown[0], *noise, shown[1]])
    assert follower.frames[4].before is None
    assert len(follower.runs()) == 5


def test_nothing_followed_is_no_run():
    assert Follower((192, 288), FACTS, 1).main_run() == []


def test_frames_that_were_measured_elsewhere_are_known_as_if_they_had_been_added_here():
    shown = pictures()
    added, joined = following(shown), Follower(shown[0].shape, FACTS, 1)
    looked_at = []

    def load(frame):
        looked_at.append(frame)
        return shown[frame]

    first, second = (glance(frame, shown[frame], 3.0) for frame in (1, 2))
    numbers = [added.frames[frame].measured for frame in range(6)]
    known = paired(first, second, numbers[1], numbers[2], added.grid)
    for frame in range(6):
        joined.join(frame, numbers[frame], {1: known} if frame == 2 else {}, load)
    for frame in range(6):
        same(joined.frames[frame], added.frames[frame])
    # The pair that was known is not looked at; of each other pair both frames once.
    assert looked_at == [0, 1, 2, 3, 4, 5]


def test_a_frame_taken_in_beside_an_earlier_one_belongs_to_its_run():
    shown = pictures()
    follower = following(shown[:4])
    assert follower.add_beside(9, shown[4], 3, shown[3]).before == 3
    assert follower.main_run() == [0, 1, 2, 3, 9]
    # One that does not fit is a run of its own, and nothing that comes is laid on it.
    stray = follower.add_beside(10, STRANGE[0], 3, shown[3])
    assert (stray.before, stray.laid) == (None, None)
    assert follower.runs() == [[0, 1, 2, 3, 9], [10]]
    assert follower.add(11, shown[5]).before == 3
    assert len({follower.frames[frame].run for frame in (0, 10)}) == 2


def test_where_a_frame_lies_is_told_along_the_chain():
    follower = following(pictures())
    steps = [follower.frames[frame].laid.similarity for frame in (1, 2, 3)]
    assert follower.from_first(0) == pytest.approx(np.eye(2, 3))
    assert follower.from_first(3) == pytest.approx(chained(chained(steps[0], steps[1]), steps[2]))
    assert follower.between(1, 3) == pytest.approx(chained(steps[1], steps[2]))
    assert follower.between(3, 1) == pytest.approx(inverse(chained(steps[1], steps[2])))


def test_a_pair_laid_the_other_way_lies_back_and_its_light_is_the_opposite():
    follower = following(pictures())
    there = follower.frames[2]._replace(light_ev=0.25)
    back = the_other_way(there, follower.frames[1].measured, 2)
    assert back.before == 2
    assert back.measured is follower.frames[1].measured
    assert chained(back.laid.similarity, there.laid.similarity) == pytest.approx(np.eye(2, 3), abs=1e-12)
    assert (back.light_ev, back.laid.likeness) == (-0.25, there.laid.likeness)


def test_two_that_are_neighbours_after_all_are_laid_on_each_other_again():
    shown = pictures()
    follower = following([shown[0], shown[2], shown[1]])
    again = follower.relaid(2, shown[1], 1, shown[2])
    assert again.before == 2
    assert again.laid.similarity == pytest.approx(following(shown[:3]).frames[2].laid.similarity, abs=1e-6)
    # Where they do not fit by themselves, they lie as the chain says.
    blank = np.full_like(shown[0], 0.5)
    kept = follower.relaid(0, shown[0], 1, blank)
    assert kept.laid.similarity == pytest.approx(follower.between(0, 1), abs=0.05)
