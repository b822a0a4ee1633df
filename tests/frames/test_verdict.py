"""The one answer: what it says of what cannot be told."""

from types import SimpleNamespace

import numpy as np
import pytest

from just_plane.contract.check import GapReport
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.frames.verdict import steps_untold, verdict


def stack(untold, pairs=20):
    steps = np.ones(pairs)
    steps[:untold] = np.nan
    return SimpleNamespace(order=list(range(pairs + 1)), steps=steps)


@pytest.mark.parametrize(("untold", "said"), [(0, 0), (5, 0), (6, 6), (20, 20)])
def test_steps_that_are_not_told_count_from_a_quarter_on(untold, said):
    assert steps_untold(stack(untold)) == said


@pytest.mark.parametrize(("untold", "answer"), [(5, "No depth"), (6, "As far as it can be told, no depth")])
def test_a_stack_whose_steps_are_not_told_may_come_down_as_far_as_can_be_told(untold, answer):
    places = [SimpleNamespace(covered=True)]
    told = verdict([], places, [], StackNumbers(), stack(untold), [])
    assert told.may_come_down
    assert told.answer == f"Yes, the set can come down. {answer} between first and last frame is missing."


def test_what_is_missing_in_front_is_said_without_a_length_too():
    gap = GapReport(
        from_steps=0, to_steps=1, from_mm=None, to_mm=None, after=None, before=2, frames_needed=1, focuses_mm=[]
    )
    told = verdict([], [], [gap], StackNumbers(), stack(0), ["a.jpg", "b.jpg", "c.jpg"])
    assert told.answer == "Not yet: before c.jpg a part is sharp in no frame."
    assert told.action == "Take one more frame before c.jpg."


@pytest.mark.parametrize(
    ("units", "where", "at"),
    [("mm", "25.40 to 50.80 mm", "at 30.48 and 45.72 mm"), ("in", "1.000 to 2.000 in", "at 1.200 and 1.800 in")],
)
def test_what_is_missing_is_said_in_the_unit_in_use(units, where, at):
    gap = GapReport(
        from_steps=4,
        to_steps=8,
        from_mm=25.4,
        to_mm=50.8,
        after=3,
        before=4,
        frames_needed=2,
        focuses_mm=[30.48, 45.72],
    )
    told = verdict([], [], [gap], StackNumbers(units=units), stack(0), [])
    assert told.answer == f"Not yet: {where} is sharp in no frame."
    assert told.action == f"Take 2 more frames, {at} behind the nearest point."
