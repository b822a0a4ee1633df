"""Stacks that were given in pieces: numbers that went round, halves exchanged, frames far from where they belong."""

import cv2
import numpy as np
import pytest

from core.frames.test_later import COUNT, PLAN, mended
from just_plane.core.frames.check.coverage import gaps
from just_plane.core.frames.check.runs import bridge_runs, join_runs
from just_plane.core.frames.check.series import Follower
from stacks.camera import Faults
from stacks.kept import grey, stack_of

ROUND = [*range(9, COUNT), *range(9)]
"""Files of which the first nine were taken before the camera began to count anew."""
PIECES = {
    "numbers that went round": ROUND,
    "halves exchanged": [*range(7, COUNT), *range(7)],
    "a frame from the far end in front, others mixed": [0, 1, 12, 2, 3, 5, 4, 6, 7, 8, 9, 10, 11, 13, 14],
    "two from the far end in the middle": [0, 1, 2, 12, 13, 3, 4, 5, 6, 7, 8, 9, 10, 11, 14],
    "one in front": [12, *range(12), 13, 14],
}


@pytest.mark.parametrize("kind", ["plane", "terraces", "dome"])
@pytest.mark.parametrize("taken", PIECES.values(), ids=PIECES)
def test_a_stack_in_pieces_is_put_together(kind, taken):
    checked = mended(kind, taken)
    assert [taken[frame] for frame in checked.order] == list(range(COUNT))
    assert checked.left_out == {}
    assert {one.code for one in checked.findings} == {"wrong_order"}
    assert [checked.places[frame] for frame in checked.order] == pytest.approx(range(COUNT), abs=0.4)
    assert gaps(checked, PLAN) == []


def test_the_pieces_that_are_out_of_order_are_told_by_their_frames():
    (said,) = mended("dome", ROUND).findings
    assert said.frames == tuple(range(6))


def test_a_knock_and_a_change_of_light_between_the_pieces_are_none():
    checked = mended("dome", ROUND, Faults(bump=(9, 40.0, 0.0)))
    assert [one.code for one in checked.findings] == ["wrong_order"]


def piece(places, more):
    """A follower of frames of a clean stack, and others of another one behind them."""
    pictures = [grey(stack_of("dome", 4, count=COUNT).frames[place]) for place in places] + list(more)
    follower = Follower(pictures[0].shape, PLAN, 1)
    for frame, picture in enumerate(pictures):
        follower.add(frame, picture)
    return follower, pictures


def test_frames_of_another_subject_are_not_taken_in():
    other = [grey(frame) for frame in stack_of("terraces", 9, count=COUNT).frames[:3]]
    follower, pictures = piece(range(6), other)
    assert follower.runs() == [list(range(6)), [6, 7, 8]]
    assert join_runs(follower, pictures.__getitem__, list(range(6))) == (list(range(6)), [])
    assert follower.runs() == [list(range(6)), [6, 7, 8]]


def test_a_stack_that_was_taken_twice_is_not_laid_end_to_end():
    again = [grey(frame) for frame in stack_of("dome", 4, count=COUNT).frames[:11]]
    follower, pictures = piece(range(12), again)
    assert len(follower.runs()) == 2
    assert join_runs(follower, pictures.__getitem__, list(range(12))) == (list(range(12)), [])


def test_a_run_that_is_laid_on_another_keeps_where_its_frames_lie():
    follower, pictures = piece([*range(9, 13), *range(9)], [])
    before = {frame: follower.between(0, frame) for frame in range(4)}
    order, out = join_runs(follower, pictures.__getitem__, list(range(4, 13)))
    assert (order, out) == ([*range(4, 13), *range(4)], [0, 1, 2, 3])
    assert {follower.frames[frame].run for frame in order} == {follower.frames[4].run}
    for frame in range(4):
        assert follower.between(0, frame) == pytest.approx(before[frame], abs=1e-9)
    # Laid on the one it follows as it is in a stack that was given whole.
    whole, _ = piece(range(13), [])
    assert follower.between(12, 0) == pytest.approx(whole.between(8, 9), abs=0.02)
    assert follower.frames[0].light_ev == pytest.approx(0.0, abs=0.02)


@pytest.mark.parametrize(("kind", "missing"), [("dome", 5), ("terraces", 5), ("weak", 3)])
def test_frames_past_a_gap_of_several_steps_are_kept_and_the_gap_is_told(kind, missing):
    checked = mended(kind, [*range(4), *range(4 + missing, COUNT)])
    assert checked.left_out == {}
    assert checked.order == list(range(COUNT - missing))
    (said,) = checked.findings
    assert (said.code, said.before, said.frame) == ("skipped_step", 3, 4)
    assert 2 <= said.amount <= missing
    first = gaps(checked, PLAN)[0]
    assert (first.before, first.after) == (3, 4) or (first.after, first.before) == (3, 4)
    # As many are asked for as were planned and are not here, wherever they are thought to be missing.
    assert checked.places[checked.order[-1]] <= COUNT - 1


def test_blurred_frames_at_an_end_are_of_the_stack_and_frames_of_another_subject_are_not():
    """In front of the subject next to nothing is in focus, and noise is all that is fine in such a frame."""
    noise = np.random.default_rng(5)
    pictures = [grey(frame) for frame in stack_of("dome", 4, count=COUNT).frames]
    for place in (0, 1):
        blurred = cv2.GaussianBlur(pictures[place], (0, 0), 6.0)
        pictures[place] = (blurred + noise.normal(0, 0.03, blurred.shape)).astype(np.float32)
    pictures[7] = grey(stack_of("terraces", 9, count=COUNT).frames[7])
    follower = Follower(pictures[0].shape, PLAN, 1)
    for frame, picture in enumerate(pictures):
        follower.add(frame, picture)
    main = follower.main_run()
    assert main == [2, 3, 4, 5, 6, *range(8, COUNT)]
    assert bridge_runs(follower, pictures.__getitem__, main) == [0, 1, *main]
    assert {frame for run in follower.runs() for frame in run if len(run) == 1} == {7}
