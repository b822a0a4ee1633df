"""Frames that were taken later: a step that was missed, a frame that was dark; laid where they belong."""

from types import SimpleNamespace

import numpy as np
import pytest

from just_plane.core.frames.check.checked import check_stack
from just_plane.core.frames.check.coverage import gaps
from just_plane.core.frames.check.later import place_later_frames
from just_plane.core.frames.check.series import Follower
from stacks.camera import Faults
from stacks.kept import FACTS, grey, stack_of

COUNT = 15
LATER = (COUNT - 2, COUNT - 1)
PLAN = FACTS._replace(frames=COUNT)


def mended(kind, taken, faults=None, strange=()):
    """A stack whose frames are given in the order ``taken``: places of a clean stack, or of a faulty one where told."""
    clean = [grey(frame) for frame in stack_of(kind, 4, count=COUNT).frames]
    faulty = [grey(frame) for frame in stack_of(kind, 4, faults, count=COUNT).frames] if faults else clean
    pictures = [(clean if len(taken) - k <= 2 else faulty)[place] for k, place in enumerate(taken)]
    pictures += list(strange)
    follower = Follower(pictures[0].shape, PLAN, 1)
    for frame, picture in enumerate(pictures):
        follower.add(frame, picture)
    return check_stack(follower, lambda frame: pictures[frame], {})


@pytest.mark.parametrize("kind", ["plane", "terraces"])
def test_a_step_that_was_missed_and_taken_at_the_end_closes_the_gap(kind):
    without = [*range(6), *range(8, COUNT)]
    assert len(gaps(mended(kind, without), PLAN)) == 1
    checked = mended(kind, [*without, 6, 7])
    order = [*range(6), *LATER, *range(6, COUNT - 2)]
    assert checked.order == order
    assert checked.left_out == {}
    assert gaps(checked, PLAN) == []
    assert [(one.code, one.frames) for one in checked.findings] == [("wrong_order", LATER)]
    assert [checked.places[frame] for frame in order] == pytest.approx(range(COUNT), abs=0.3)
    assert [checked.places[frame] for frame in range(6, COUNT - 2)] == pytest.approx(range(8, COUNT))


def test_a_frame_taken_instead_of_a_dark_one_stands_at_its_place():
    faults = Faults(dead_flash=9)
    checked = mended("plane", [*range(COUNT), 9, 3], faults)
    assert checked.left_out == {9: "dead_flash"}
    assert gaps(checked, PLAN) == []
    assert checked.places[COUNT] == checked.places[9] == pytest.approx(9.0, abs=0.2)
    assert (checked.places[COUNT - 1], checked.places[10]) == (COUNT - 1.0, 10.0)
    # One that repeats a frame that was well is no step, either.
    assert checked.places[COUNT + 1] == pytest.approx(3.0, abs=0.3)


def test_a_view_that_was_knocked_meanwhile_is_told_once():
    checked = mended("plane", [*range(6), *range(8, COUNT), 6, 7], Faults(bump=(3, 6.0, 0.0)))
    assert [one.code for one in checked.findings] == ["wrong_order", "bump"]
    assert gaps(checked, PLAN) == []


def test_a_picture_of_something_else_at_the_end_stays_one():
    strange = np.clip(0.5 + 0.2 * np.random.default_rng(3).standard_normal((192, 288)), 0, 1).astype(np.float32)
    checked = mended("plane", list(range(COUNT)), strange=[strange])
    assert checked.left_out == {COUNT: "foreign_frame"}
    assert [one.code for one in checked.findings] == ["foreign_frame"]


class Told:
    """A follower of frames whose tiles all hold one energy, that lays a frame on one other only."""

    def __init__(self, energies, fits):
        self.frames = {
            frame: SimpleNamespace(measured=SimpleNamespace(energy=np.full((4, 6, 8), energy)))
            for frame, energy in enumerate(energies)
        }
        self.fits = fits
        self.tried = []

    def runs(self):
        return [[frame] for frame in self.frames]

    def lay_on(self, before, _grey_before, this, _grey_this):
        self.tried.append((before, this))
        return before == self.fits


def test_a_frame_is_tried_on_the_three_that_are_likest():
    told = Told([1.0, 1.2, 1.5, 2.0, 4.0, 1.25], fits=0)
    assert place_later_frames(told, lambda frame: None, [0, 1, 2, 3, 4]) == ([0, 5, 1, 2, 3, 4], [5])
    assert told.tried == [(1, 5), (2, 5), (0, 5)]
    told = Told([1.0, 1.2, 1.5, 2.0, 4.0, 1.25], fits=3)
    assert place_later_frames(told, lambda frame: None, [0, 1, 2, 3, 4]) == ([0, 1, 2, 3, 4], [])


@pytest.mark.parametrize(
    ("energy", "fits", "order"),
    [
        (0.9, 0, [5, 0, 1, 2, 3, 4]),  # past the near end
        (1.05, 0, [0, 5, 1, 2, 3, 4]),
        (1.9, 3, [0, 1, 2, 5, 3, 4]),
        (2.2, 3, [0, 1, 2, 3, 5, 4]),
        (5.0, 4, [0, 1, 2, 3, 4, 5]),
        (3.8, 4, [0, 1, 2, 3, 5, 4]),
    ],
)
def test_a_frame_stands_on_the_side_where_what_is_there_is_nearer_to_it(energy, fits, order):
    told = Told([1.0, 1.2, 1.5, 2.0, 4.0, energy], fits=fits)
    assert place_later_frames(told, lambda frame: None, [0, 1, 2, 3, 4]) == (order, [5])


@pytest.mark.parametrize(("strays", "tried"), [(12, 36), (13, 0)])
def test_a_folder_of_many_strangers_is_not_tried_at_all(strays, tried):
    told = Told([1.0] * (20 + strays), fits=None)
    assert place_later_frames(told, lambda frame: None, list(range(20))) == (list(range(20)), [])
    assert len(told.tried) == tried


def test_how_far_the_view_moved_is_not_told_between_frames_that_were_not_taken_one_after_the_other():
    checked = mended("plane", [*range(6), *range(8, COUNT), 6, 7])
    shifts = np.isnan(checked.pairs.shift).all(axis=1)
    # The last two stand between 5 and 6: three pairs.
    assert list(np.flatnonzero(shifts)) == [5, 6, 7]
    assert np.isfinite(checked.pairs.scale).all()
