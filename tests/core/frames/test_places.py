"""Where frames stand, by hand: left out, skipped, taken later."""

import numpy as np
import pytest

from just_plane.core.frames.check.findings import Found
from just_plane.core.frames.check.places import (
    NOT_LAID,
    STOOD,
    counts_down,
    in_front,
    places_of,
    spans_of,
)
from just_plane.core.frames.check.steps import steps_around_later, steps_of_order

FOUR = [0, 1, 2, 3]


def places(order, found, *, judged=None, later=(), left_out=(), said=()):
    judged = order if judged is None else judged
    steps = steps_of_order(order, judged, np.array(found))
    around = steps_around_later(order, judged, np.array(found), later)
    return list(places_of(order, steps, said, spans_of(order, dict(left_out)), around).values())


def test_frames_stand_as_planned_whatever_a_step_was_found_to_be():
    assert places(FOUR, [0.8, 1.3, np.nan]) == [0, 1, 2, 3]


def test_a_step_that_was_skipped_or_repeated_is_counted_where_it_was():
    skipped = Found("skipped_step", 2, 2.0, "steps")
    assert places(FOUR, [1, 3, 1], said=[skipped]) == [0, 1, 4, 5]
    repeated = Found("duplicate", 2, 0.1, "steps")
    assert places(FOUR, [1, 0.1, 1], said=[repeated]) == pytest.approx([0, 1, 1.1, 2.1])


def test_across_frames_that_were_left_out_whole_steps_are_believed_and_no_more_than_there_can_be():
    # Frame 2 is gone: one step to a copy, two to a stranger, as found where it was found.
    rest = [0, 1, 3]
    assert places(rest, [1, 1.9], left_out={2: "foreign_frame"}.items()) == [0, 1, 3]
    assert places(rest, [1, 1.2], left_out={2: "foreign_frame"}.items()) == [0, 1, 2]
    assert places(rest, [1, 3.9], left_out={2: "foreign_frame"}.items()) == [0, 1, 3]
    assert places(rest, [1, np.nan], left_out={2: "duplicate"}.items()) == [0, 1, 2]
    assert places(rest, [1, np.nan], left_out={2: "foreign_frame"}.items()) == [0, 1, 3]


def test_a_frame_taken_later_fills_a_gap_of_two_steps():
    order = [0, 1, 4, 2, 3]
    assert places(order, [1, 1.1, 0.9, 1], later=[4]) == pytest.approx([0, 1, 2.1, 3, 4])


def test_a_frame_taken_later_at_a_place_that_is_there_adds_no_step():
    order = [0, 1, 4, 2, 3]
    assert places(order, [1, 0.05, 1.05, 1], later=[4]) == pytest.approx([0, 1, 1.05, 2, 3], abs=0.01)


def test_a_frame_taken_in_the_stead_of_one_that_is_dark_stands_where_that_stood():
    order = [0, 1, 2, 5, 3, 4]
    found = [1, 1.1, 0.9, 1]  # between 0, 1, 5, 3 and 4: frame 2 is dark
    assert places(order, found, judged=[0, 1, 5, 3, 4], later=[5]) == pytest.approx([0, 1, 2.1, 2.1, 3, 4])


def test_where_nothing_is_found_around_a_frame_taken_later_each_stands_a_step_on():
    order = [0, 1, 4, 2, 3]
    assert places(order, [1, np.nan, 1, 1], later=[4]) == [0, 1, 2, 3, 4]


@pytest.mark.parametrize(
    ("order", "down"),
    [
        ([0, 1, 2, 3], False),
        ([3, 2, 1, 0], True),
        ([2, 3, 0, 1], False),  # numbers that went round
        ([1, 0, 3, 2], True),
        ([5, 4, 2, 3, 1, 0], True),
        ([0, 1], False),
        ([1, 0], True),
        ([0], False),
        ([], False),
    ],
)
def test_frames_were_taken_from_far_to_near_where_most_count_down(order, down):
    assert counts_down(order) == down


def test_frames_in_front_that_could_not_be_laid_or_read_stood_there_all_the_same():
    apart = {0: "registration_failed", 1: "registration_failed", 2: "unreadable", 3: "foreign_frame", 7: "unreadable"}
    assert in_front([4, 5, 6], apart, STOOD) == 3
    assert in_front([4, 5, 6], apart, NOT_LAID) == 2
    # Taken from far to near the last to come are in front.
    assert in_front([6, 5, 4], apart, STOOD) == 1
    # Numbers that went round: 6 is the one before the first, and 3 lies between others.
    round_again = {3: "unreadable", 6: "unreadable"}
    assert in_front([7, 8, 9, 0, 1, 2, 4, 5], round_again, STOOD) == 1
    assert spans_of([7, 8, 9, 0, 1, 2, 4, 5], round_again) == {5: ["unreadable"]}
    assert places_of([4, 5, 6], np.array([1.0, 1.0]), [], {}, {}, 3) == {4: 3, 5: 4, 6: 5}
