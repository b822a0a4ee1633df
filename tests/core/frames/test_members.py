"""Which frames make a stack, in which order, by hand: a follower that only knows what it is told."""

from types import SimpleNamespace

import numpy as np
import pytest

from just_plane.core.frames.check.facts import StackFacts
from just_plane.core.frames.check.findings import Found
from just_plane.core.frames.check.members import copies, in_order, light_of, near_first, outsiders, reference_of


def follower(runs=(), *, before=(), light=(), growth=1.0, facts=None):
    """Frames of runs; frame to the one before it and to EV against that; a view that grows so much a frame."""
    frames = {
        frame: SimpleNamespace(run=run, before=dict(before).get(frame), light_ev=dict(light).get(frame))
        for run, numbers in enumerate(runs)
        for frame in numbers
    }

    def between(first, second):
        return growth ** (second - first) * np.array([[1.0, 0, 0], [0, 1, 0]])

    return SimpleNamespace(
        frames=frames, runs=lambda: [list(run) for run in runs], between=between, facts=facts or StackFacts()
    )


def test_one_frame_of_another_run_is_foreign_and_several_could_not_be_laid():
    left_out, said = outsiders(follower([[0, 1, 2], [3], [4, 5]]), [0, 1, 2], [7, 8])
    assert left_out == {
        3: "foreign_frame",
        4: "registration_failed",
        5: "registration_failed",
        7: "unreadable",
        8: "unreadable",
    }
    assert said == [
        Found("foreign_frame", 3, 1.0, "frames", frames=(3,)),
        Found("registration_failed", 4, 2.0, "frames", frames=(4, 5)),
    ]


def test_of_two_frames_that_do_not_fit_neither_is_the_foreign_one():
    assert outsiders(follower([[0, 1], [2]]), [0, 1], ())[0] == {2: "registration_failed"}
    assert outsiders(follower([[0, 1, 2], [3]]), [0, 1, 2], ())[0] == {3: "foreign_frame"}


def test_a_run_of_which_frames_were_taken_in_leaves_only_the_rest():
    left_out, said = outsiders(follower([[0, 1, 2], [3, 4, 5]]), [0, 1, 2, 4], ())
    assert list(left_out) == [3, 5]
    assert said[0].frames == (3, 5)


def test_copies_are_told_with_what_they_repeat_where_that_is_of_the_stack():
    left_out, said = copies({3: 1, 6: 2, 4: 9}, [0, 1, 2, 3, 4, 5])
    assert left_out == {3: "duplicate", 6: "duplicate"}
    assert [(one.frame, one.before, one.frames) for one in said] == [(3, 1, (3,)), (6, 2, (6,))]


def test_many_copies_are_said_once_and_all_left_out():
    four = {4: 0, 5: 1, 6: 2, 7: 3}
    left_out, said = copies(four, [0, 1, 2, 3])
    assert left_out == dict.fromkeys(four, "duplicate")
    assert said == [Found("duplicate", 4, 0.0, "steps", before=0, frames=(4, 5, 6, 7))]
    del four[7]
    assert [one.frames for one in copies(four, [0, 1, 2, 3])[1]] == [(4,), (5,), (6,)]


def test_a_card_that_was_copied_twice_is_no_other_subject():
    left_out, said = outsiders(follower([[0, 1, 2], [3, 4, 5]]), [0, 1, 2], (), {3: "duplicate", 4: "duplicate"})
    assert left_out == {5: "foreign_frame"}
    assert [one.frames for one in said] == [(5,)]


@pytest.mark.parametrize(
    ("kind", "growth", "turned"),
    [
        ("rail", 1.002, False),
        ("rail", 1 / 1.002, True),
        ("ring", 1.002, True),
        ("ring", 1 / 1.002, False),
        # Under a half of a thousandth a frame it cannot be told.
        ("rail", 1 / 1.0004, False),
        ("rail", 1 / 1.0006, True),
        ("ring", 1.0004, False),
        ("hand", 1 / 1.002, False),
    ],
)
def test_the_view_grows_towards_the_far_end_by_a_rail_and_shrinks_by_a_ring(kind, growth, turned):
    main = list(range(6))
    planned = follower([main], growth=growth, facts=StackFacts(kind=kind, step=1.0))
    assert near_first(planned, main) == (main[::-1] if turned else main)


def test_without_a_plan_or_of_five_frames_the_order_given_is_that_of_focus():
    main = list(range(6))
    assert near_first(follower([main], growth=0.99, facts=StackFacts(step=None)), main) == main
    assert near_first(follower([main], growth=0.99, facts=StackFacts(step=1.0)), main[:5]) == main[:5]


def test_light_adds_up_along_what_each_frame_was_laid_on():
    told = follower([[0, 1, 2, 3]], before={1: 0, 2: 1, 3: 1}, light={1: 0.5, 2: -0.2, 3: 0.25})
    assert light_of(told, [0, 1, 2, 3]) == pytest.approx({0: 0.0, 1: 0.5, 2: 0.3, 3: 0.75})


def test_light_of_a_frame_that_was_laid_on_one_that_came_after_it():
    """Frames given out of order: 0 is the first of the run, 2 was laid on 4."""
    told = follower([[0, 2, 3, 4]], before={4: 0, 2: 4, 3: 2}, light={4: 1.0, 2: 0.5, 3: 0.25})
    assert light_of(told, [0, 3, 2, 4]) == pytest.approx({0: 0.0, 4: 1.0, 2: 1.5, 3: 1.75})


def test_after_a_frame_whose_light_is_not_known_the_last_known_counts():
    told = follower([[0, 1, 2, 3]], before={1: 0, 2: 1, 3: 2}, light={1: 0.5, 2: np.nan, 3: 0.25})
    light = light_of(told, [0, 1, 2, 3])
    assert np.isnan(light[2])
    assert (light[1], light[3]) == (0.5, 0.75)


def test_the_frame_that_all_are_laid_on_is_the_middle_one_that_has_light():
    main = [0, 1, 2, 3, 4, 5]
    assert reference_of(main, main, []) == 3
    assert reference_of(main, [0, 1, 5], []) == 1
    assert reference_of(main, main, [3]) == 2
    assert reference_of(main, [2, 4], [2, 4]) == 2


def tiles(places):
    """Energies of frames that are sharp at places along a row of sixty tiles."""
    across = np.linspace(0, 11, 60)
    return {
        frame: np.stack([np.exp(-((place - across) ** 2) / wide) for wide in (2, 4, 12, 30)])
        for frame, place in places.items()
    }


def test_frames_that_were_exchanged_are_put_back_and_told():
    order, said = in_order([0, 1, 2, 3, 4, 5], [], tiles({0: 0, 1: 1, 2: 3, 3: 2, 4: 4, 5: 5}), [])
    assert order == [0, 1, 3, 2, 4, 5]
    assert said == [Found("wrong_order", 2, 2.0, "frames", frames=(3, 2))]
    assert in_order([0, 1, 2, 3], [], tiles({0: 0, 1: 1, 2: 2, 3: 3}), []) == ([0, 1, 2, 3], [])


def test_a_dark_frame_stays_where_it_was():
    shown = tiles({0: 0, 1: 1, 2: 9, 3: 3, 4: 2, 5: 4, 6: 5})  # 2 is dark: what is sharp in it says nothing
    order, said = in_order([0, 1, 2, 3, 4, 5, 6], [2], shown, [])
    assert order == [0, 1, 2, 4, 3, 5, 6]
    assert said[0].frames == (4, 3)
    assert in_order([0, 1, 2], [1, 2], tiles({0: 0, 1: 1, 2: 2}), []) == ([0, 1, 2], [])


def test_frames_that_were_put_at_their_places_before_are_told_as_out_of_order_once():
    shown = tiles({0: 0, 1: 1, 5: 2, 2: 3, 3: 4, 4: 5})
    order, said = in_order([0, 1, 5, 2, 3, 4], [], shown, [5, 9])
    assert order == [0, 1, 5, 2, 3, 4]
    assert said == [Found("wrong_order", 5, 1.0, "frames", frames=(5,))]
    # One that is moved once more is not told again.
    _, said = in_order([0, 5, 1, 2, 3, 4], [], shown, [5, 1])
    assert [one.frames for one in said] == [(5, 1)]
