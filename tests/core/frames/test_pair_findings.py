"""What is said of pairs by their numbers alone."""

import numpy as np
import pytest

from just_plane.core.frames.check.findings import pair_findings
from just_plane.core.frames.check.pairs import Pairs

COUNT = 14


def said(shift, turn=0.0):
    """Findings of fifteen frames whose pairs move by these px to the right; they sway by 0.02 px up and down."""
    aside = np.zeros((COUNT, 2))
    aside[:, 1] = 0.02 * (-1.0) ** np.arange(COUNT)
    for pair, (right, down) in shift.items():
        aside[pair] += (right, down)
    pairs = Pairs(np.full(COUNT, 0.9), aside, np.full(COUNT, turn), np.full(COUNT, 1.004), np.zeros(COUNT))
    found = pair_findings(pairs, list(range(COUNT + 1)), np.ones(COUNT), 2, [None] * COUNT, 1000)
    return [(one.code, one.frame, one.amount) for one in found]


def test_a_view_that_sways_a_little_is_no_knock():
    assert said({}) == []


def test_a_knock_is_told_with_its_frame_in_px_of_the_full_frame():
    assert said({6: (0.5, 0.0)}) == [("bump", 7, pytest.approx(2 * 0.5, rel=0.1))]
    # The last pair has others on one side only.
    assert said({13: (-0.5, 0.0)}) == []
    assert said({13: (-0.7, 0.0)}) == [("bump", 14, pytest.approx(2 * 0.7, rel=0.1))]


def test_two_small_moves_one_after_the_other_the_same_way_are_no_knock():
    # Where nothing is in focus any more, at the end of a stack, frames are laid on each other a little worse.
    assert said({11: (0.4, 0.0), 12: (0.5, 0.0)}) == []
    # A view that goes and comes back was knocked, and what is plain is one whatever comes after it.
    assert [code for code, _, _ in said({6: (0.5, 0.0), 7: (-0.5, 0.0)})] == ["bump", "bump"]
    assert [frame for _, frame, _ in said({6: (2.0, 0.0), 7: (0.5, 0.0)})] == [7, 8]
