"""The one answer: what it says of what cannot be told."""

from types import SimpleNamespace

import numpy as np
import pytest

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
