"""What is said of pairs by their numbers alone."""

import numpy as np
import pytest

from just_plane.core.frames.check.findings import pair_findings
from just_plane.core.frames.check.moving import Moved
from just_plane.core.frames.check.pairs import Pairs
from just_plane.core.frames.check.steps import Steps

COUNT = 14


def told(
    count=COUNT, *, shift=(), turn=(), likeness=(), steps=(), grown=(), parts=(), blind=(), usual=0.9, across=1000
):
    """Findings of pairs that are as always but where something is given: pair to value. The view sways by 0.02 px.

    Shifts are px right and down; turns degrees; likeness is what it is more or less than usual, in shares of that;
    steps are by what is sharp, grown are by how much the view grew.
    """
    aside, turns, alike, found = np.zeros((count, 2)), np.zeros(count), np.full(count, usual), np.ones(count)
    by_growth = np.isin(np.arange(count), list(dict(grown)))
    aside[:, 1] = 0.02 * (-1.0) ** np.arange(count)
    moved = [None] * count
    for pair, (right, down) in dict(shift).items():
        aside[pair] += (right, down)
    for pair, degrees in dict(turn).items():
        turns[pair] = np.radians(degrees)
    for pair, more in dict(likeness).items():
        alike[pair] = usual * (1 + more)
    for pair, far in (dict(steps) | dict(grown)).items():
        found[pair] = far
    for pair, part in dict(parts).items():
        moved[pair] = part
    pairs = Pairs(alike, aside, turns, np.full(count, 1.004), np.zeros(count), moved)
    return pair_findings(pairs, list(range(count + 1)), Steps(found, by_growth), 2, across, blind)


def said(shift):
    return [(one.code, one.frame, one.amount) for one in told(shift=shift)]


def codes(**what):
    return [(one.code, one.frame) for one in told(**what)]


def test_a_view_that_sways_a_little_is_no_knock():
    assert said({}) == []


def test_a_knock_is_told_with_its_frame_in_px_of_the_full_frame():
    assert said({6: (0.5, 0.0)}) == [("bump", 7, pytest.approx(2 * 0.5, rel=0.1))]
    # The last pair has others on one side only.
    assert said({13: (-0.5, 0.0)}) == []
    assert said({13: (-0.7, 0.0)}) == [("bump", 14, pytest.approx(2 * 0.7, rel=0.1))]


def test_amounts_come_with_their_units():
    (knock,) = told(shift={6: (0.5, 0.0)})
    assert knock.unit == "px"


def test_two_small_moves_one_after_the_other_the_same_way_are_no_knock():
    # Where nothing is in focus any more, at the end of a stack, frames are laid on each other a little worse.
    assert said({11: (0.4, 0.0), 12: (0.5, 0.0)}) == []
    # A view that goes and comes back was knocked, and what is plain is one whatever comes after it.
    assert [code for code, _, _ in said({6: (0.5, 0.0), 7: (-0.5, 0.0)})] == ["bump", "bump"]
    assert [frame for _, frame, _ in said({6: (2.0, 0.0), 7: (0.5, 0.0)})] == [7, 8]
    # Nor are three.
    assert said({5: (0.4, 0.0), 6: (0.5, 0.0), 7: (0.45, 0.0)}) == []
    assert said({6: (0.4, 0.0), 7: (0.5, 0.0)}) == []


def test_seven_frames_do_not_tell_what_is_usual():
    assert codes(count=6, shift={3: (40.0, 0.0)}) == []
    assert codes(count=7, shift={3: (40.0, 0.0)}) == [("bump", 4)]


@pytest.mark.parametrize(
    ("likeness", "step", "missing"),
    [
        # A sign of it, and a step that was found wide: as many as it says, less one.
        (-0.065, 2.0, 1),
        (-0.065, 3.0, 2),
        (-0.065, 1.45, 1),
        (-0.055, 2.0, None),
        (-0.065, 1.35, None),
        # A plain sign is believed against the step; a very plain one is two, where the step does not say one.
        (-0.135, 1.0, 1),
        (-0.125, 1.0, None),
        (-0.26, 1.0, 2),
        (-0.24, 1.0, 1),
        (-0.26, 2.0, 1),
        (-0.26, 2.2, 2),
        # A step that could not be found.
        (-0.135, np.nan, 1),
        (-0.26, np.nan, 2),
        (-0.1, np.nan, None),
    ],
)
def test_a_skipped_step_by_its_sign_and_by_the_step_found(likeness, step, missing):
    found = told(likeness={6: likeness}, steps={6: step})
    expected = [] if missing is None else [("skipped_step", 7, 6, float(missing), "steps")]
    assert [(one.code, one.frame, one.before, one.amount, one.unit) for one in found] == expected


@pytest.mark.parametrize(
    ("likeness", "step", "missing"), [(-0.24, 1.0, None), (-0.19, np.nan, 1), (-0.17, np.nan, None), (-0.3, np.nan, 1)]
)
def test_where_noise_has_a_say_a_sign_is_believed_only_with_a_step_or_without_any(likeness, step, missing):
    found = told(likeness={6: likeness}, steps={6: step}, usual=0.7)
    assert [one.amount for one in found] == ([] if missing is None else [missing])


def test_a_sign_must_stand_out_of_what_the_stack_does_anyway():
    """Likeness that goes up and down by 0.03 spreads by about that: five spreads of it are more than 0.15."""
    restless = {pair: 0.03 * (-1.0) ** pair for pair in range(COUNT)}
    assert codes(likeness=restless | {6: -0.15}) == []
    assert codes(likeness=restless | {6: -0.6}) == [("skipped_step", 7)]


def test_a_frame_too_dark_or_shaken_tells_nothing_of_steps():
    plain = {"likeness": {6: -0.2}, "steps": {6: 2.0}}
    assert codes(**plain) == [("skipped_step", 7)]
    assert codes(**plain, blind={6}) == codes(**plain, blind={7}) == []
    assert codes(**plain, blind={5, 8}) == [("skipped_step", 7)]


@pytest.mark.parametrize(
    ("step", "likeness", "missing"),
    [
        # One step is believed by growth alone, whatever what is sharp says; half a step more is none more.
        (2.0, 0.0, 1),
        (2.4, 0.05, 1),
        (1.4, -0.05, None),
        (1.6, 0.0, 1),
        (1.0, -0.5, None),
        # Two are believed only where something of it is seen.
        (3.0, 0.0, None),
        (3.0, -0.05, None),
        (3.0, -0.07, 2),
        (4.1, -0.07, 3),
        # The view went nowhere: the same frame twice, not a step to take back.
        (0.2, 0.0, None),
    ],
)
def test_a_skipped_step_by_how_much_the_view_grew(step, likeness, missing):
    found = told(likeness={6: likeness}, grown={6: step})
    expected = [] if missing is None else [("skipped_step", 7, 6, float(missing), "steps")]
    assert [(one.code, one.frame, one.before, one.amount, one.unit) for one in found] == expected


def test_growth_tells_steps_of_dark_frames_too_but_not_of_a_view_that_was_knocked():
    assert [one.amount for one in told(grown={6: 3.0}, blind={7})] == [2.0]
    assert codes(grown={6: 2.0}, shift={6: (1.0, 0.0)}) == [("bump", 7)]
    assert codes(grown={6: 2.0}, turn={6: 0.08}) == [("rotation", 7)]
    # Then what is sharp must say it.
    assert codes(grown={6: 2.0}, likeness={6: -0.1}, shift={6: (1.0, 0.0)}) == [("skipped_step", 7)]


def test_a_knock_silences_a_skipped_step_that_was_not_found_wide():
    """What is not laid right is less like: the sign is the knock's own."""
    assert codes(likeness={6: -0.2}, shift={6: (1.0, 0.0)}) == [("bump", 7)]
    assert codes(likeness={6: -0.2}, turn={6: 0.08}) == [("rotation", 7)]


def test_beside_a_step_found_wide_a_knock_must_be_plain():
    wide = {"likeness": {6: -0.1}, "steps": {6: 2.0}}
    assert codes(**wide, shift={6: (1.4, 0.0)}, turn={6: 0.09}) == [("skipped_step", 7)]
    assert codes(**wide, shift={6: (1.6, 0.0)}) == [("skipped_step", 7), ("bump", 7)]
    assert codes(**wide, turn={6: 0.11}) == [("skipped_step", 7), ("rotation", 7)]


def test_a_turn_is_told_in_degrees_when_it_shows_at_the_edge():
    (found,) = told(turn={6: -0.06})
    assert (found.code, found.frame, found.before, found.unit) == ("rotation", 7, 6, "deg")
    assert found.amount == pytest.approx(-0.06)
    assert codes(turn={6: 0.045}) == []
    # At an end twice as much is needed, as of a knock.
    assert codes(turn={0: 0.09}) == []
    assert codes(turn={0: 0.11}) == [("rotation", 1)]
    # A quarter of a pixel at 100 px from the middle is 0.14 degrees.
    assert codes(turn={6: 0.13}, across=200) == []
    assert codes(turn={6: 0.15}, across=200) == [("rotation", 7)]


@pytest.mark.parametrize(
    ("likeness", "step", "is_one"), [(0.05, 0.3, True), (0.03, 0.3, False), (0.05, 0.4, False), (0.05, 0.0, True)]
)
def test_a_frame_taken_twice_is_hardly_a_step_away_and_more_like(likeness, step, is_one):
    found = told(likeness={6: likeness}, steps={6: step})
    assert [(one.code, one.frame, one.before, one.amount) for one in found] == [("duplicate", 7, 6, step)] * is_one


def test_where_all_steps_are_found_longer_one_that_is_skipped_is_longer_than_those_beside():
    stretched = dict.fromkeys(range(9, COUNT), 1.5)
    assert codes(likeness={COUNT - 1: -0.2, 11: -0.1}, steps=stretched) == []
    (found,) = told(likeness={11: -0.1}, steps=stretched | {11: 3.0})
    assert (found.code, found.frame, found.amount) == ("skipped_step", 12, 1.0)


def test_a_step_back_is_no_frame_taken_twice():
    assert codes(likeness={6: 0.1}, steps={6: -0.3}) == [("duplicate", 7)]
    assert codes(likeness={6: 0.1}, steps={6: -8.2}) == []


@pytest.mark.parametrize(("pair", "frame"), [(0, 1), (COUNT - 1, COUNT)])
@pytest.mark.parametrize("likeness", [-0.2, -0.7])
def test_at_an_end_where_less_is_in_focus_a_dip_alone_is_no_skipped_step(pair, frame, likeness):
    assert codes(likeness={pair: likeness}, steps={pair: np.nan}) == []
    assert codes(likeness={pair: likeness}, steps={pair: 1.0}) == []
    assert codes(likeness={pair: likeness}, steps={pair: 2.0}) == [("skipped_step", frame)]
    assert codes(likeness={pair: likeness}, grown={pair: 2.0}) == [("skipped_step", frame)]
    inside = {0: 1, COUNT - 1: COUNT - 2}[pair]
    assert codes(likeness={inside: likeness}, steps={inside: np.nan}) == [("skipped_step", inside + 1)]


def test_a_part_that_moved_is_told_in_px_of_the_full_frame_unless_there_is_a_plainer_cause():
    part = Moved(shift=(3.0, -4.0), place=(30.0, 10.0), share=0.02)
    (found,) = told(parts={6: part})
    assert (found.code, found.frame, found.before, found.unit) == ("moved", 7, 6, "px")
    assert found.amount == pytest.approx(2 * 5.0)
    # Of two pixels that became one the middle lies between them.
    assert found.place == pytest.approx((60.5, 20.5))
    for cause in ({"shift": {6: (1.0, 0.0)}}, {"likeness": {6: -0.2}}, {"turn": {6: 0.08}}, {"blind": {7}}):
        assert "moved" not in [code for code, _ in codes(parts={6: part}, **cause)]


def test_where_likeness_swings_a_dip_must_stand_out_from_that():
    # A dip to four fifths tells of a step that was not found, among pairs that are alike; not where all swing by 4 %.
    assert codes(likeness={6: -0.2}) == [("skipped_step", 7)]
    swings = {pair: 0.04 * (-1) ** pair for pair in range(COUNT)}
    assert codes(likeness=swings | {6: -0.2}) == []
