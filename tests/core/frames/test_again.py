"""A stack that was taken again into the same folder, whole or in part: what repeats is set aside, what mends stays."""

from functools import lru_cache

import cv2
import numpy as np
import pytest

from core.frames.test_later import COUNT, PLAN
from just_plane.core.frames.check.again import set_repeats_aside
from just_plane.core.frames.check.checked import check_stack
from just_plane.core.frames.check.coverage import gaps
from just_plane.core.frames.check.series import Follower
from stacks.camera import Faults, photograph
from stacks.kept import PUPIL_STEPS, SIZE, grey, stack_of
from stacks.world import make_world

WHOLE = range(COUNT)


def first_take(kind, faults=None):
    return [grey(frame) for frame in stack_of(kind, 4, faults, count=COUNT).frames]


@lru_cache
def second_take(kind, knock=(0.0, 0.0, 0.0)):
    """The same subject by another run of the same rig, its own sway and noise; the view knocked by px, px, degrees."""
    world = make_world(kind, 4, SIZE, COUNT)
    taken = photograph(world, 77, count=COUNT, kind="rail", jpeg=True, faults=Faults(), pupil_steps=PUPIL_STEPS)
    right, down, degrees = knock
    width, height = SIZE[1], SIZE[0]
    turn = cv2.getRotationMatrix2D((width / 2, height / 2), degrees, 1)
    turn[:, 2] += (right, down)
    frames = [grey(frame) for frame in taken.frames]
    if knock == (0.0, 0.0, 0.0):
        return frames
    beside = {"flags": cv2.INTER_CUBIC, "borderMode": cv2.BORDER_REFLECT}  # what comes into the view is of its kind
    return [cv2.warpAffine(frame, turn, (width, height), **beside) for frame in frames]


def checked(pictures, facts=PLAN):
    follower = Follower(pictures[0].shape, facts, 1)
    for frame, picture in enumerate(pictures):
        follower.add(frame, picture)
    return check_stack(follower, pictures.__getitem__, {})


def set_aside(judged):
    return [(one.frames, one.before) for one in judged.findings if one.code == "taken_again"]


@pytest.mark.parametrize("kind", ["dome", "terraces", "hairs"])
@pytest.mark.parametrize(
    ("first", "second", "aside", "beside", "order"),
    [
        pytest.param(range(6), WHOLE, range(6), 6, range(6, 21), id="broken off and begun anew"),
        pytest.param(WHOLE, range(6), range(15, 21), 0, range(15), id="begun anew and broken off"),
        pytest.param(WHOLE, WHOLE, range(15), 15, range(15, 30), id="twice whole: the later is judged"),
        pytest.param(WHOLE, range(5, 9), range(15, 19), 5, range(15), id="a part of it"),
        pytest.param(WHOLE, range(8, 4, -1), range(15, 19), 5, range(15), id="a part of it, on the way back"),
    ],
)
def test_a_take_that_repeats_another_is_set_aside_and_said_once(kind, first, second, aside, beside, order):
    one, other = first_take(kind), second_take(kind)
    judged = checked([one[place] for place in first] + [other[place] for place in second])
    assert set_aside(judged) == [(tuple(aside), beside)]
    assert [one.code for one in judged.findings] == ["taken_again"]
    assert judged.order == list(order)
    assert judged.left_out == dict.fromkeys(aside, "taken_again")
    assert gaps(judged, PLAN) == []
    assert [judged.places[frame] for frame in judged.order] == pytest.approx(range(COUNT), abs=0.4)


def test_two_takes_that_were_broken_off_are_each_said():
    one, other = first_take("dome"), second_take("dome")
    judged = checked(one[:3] + one[:6] + other)
    assert set_aside(judged) == [((0, 1, 2), 9), ((3, 4, 5, 6, 7, 8), 9)]
    assert judged.order == list(range(9, 24))


def test_a_knock_for_which_it_was_begun_anew_is_none_of_the_stack():
    one, other = first_take("dome"), second_take("dome", (9.0, -6.0, 0.3))
    judged = checked(one[:4] + other)
    assert [found.code for found in judged.findings] == ["taken_again"]
    assert judged.order == list(range(4, 19))


@pytest.mark.parametrize("back", [2, 4])
def test_a_stack_that_goes_on_a_few_frames_back_holds_each_depth_once(back):
    one, other = first_take("dome"), second_take("dome")
    judged = checked(one[:9] + other[9 - back :])
    # The longer of the two takes keeps what both hold.
    aside = tuple(range(9, 9 + back)) if COUNT - 9 + back < 9 else tuple(range(9 - back, 9))
    assert [frames for frames, _ in set_aside(judged)] == [aside]
    assert judged.order == [frame for frame in range(COUNT + back) if frame not in aside]
    assert gaps(judged, PLAN) == []
    assert [judged.places[frame] for frame in judged.order] == pytest.approx(range(COUNT), abs=0.4)


def test_frames_that_close_a_gap_are_none_taken_again():
    one, other = first_take("dome"), second_take("dome")
    judged = checked(one[:6] + one[9:] + other[6:9])
    assert set_aside(judged) == []
    assert judged.order == [*range(6), 12, 13, 14, *range(6, 12)]


def test_every_other_depth_and_then_those_between_are_one_stack_as_planned():
    one, other = first_take("dome"), second_take("dome")
    judged = checked(one[::2] + other[1::2])
    assert set_aside(judged) == []
    assert sorted(judged.order) == list(range(COUNT))
    assert judged.left_out == {}


@pytest.mark.parametrize("faults", [Faults(dead_flash=7), Faults(shake=(7, 5.0, 20.0))])
def test_what_stands_for_a_frame_that_was_dark_or_shaken_is_kept(faults):
    one, other = first_take("dome", faults), second_take("dome")
    judged = checked(one + other[5:10])
    assert set_aside(judged) == [((15, 16, 18, 19), 5)]
    assert 17 in judged.order
    assert judged.left_out[7] in ("dead_flash", "shake")
    assert judged.places[17] == pytest.approx(7.0, abs=0.6)
    assert gaps(judged, PLAN) == []


def test_without_a_plan_the_same_places_are_told_and_others_between_them_are_not():
    one, other = first_take("dome"), second_take("dome")
    unplanned = PLAN._replace(frames=None)
    assert [frames for frames, _ in set_aside(checked(one[:6] + other, unplanned))] == [tuple(range(6))]
    assert set_aside(checked(one[::2] + other[1::2], unplanned)) == []


def test_a_hand_goes_to_and_fro_and_repeats_nothing():
    one, other = first_take("dome"), second_take("dome")
    assert set_aside(checked(one[:6] + other, PLAN._replace(kind="hand"))) == []


def test_frames_of_another_subject_repeat_nothing():
    judged = checked(first_take("dome") + [grey(frame) for frame in stack_of("terraces", 9, count=COUNT).frames[:6]])
    assert set_aside(judged) == []
    assert judged.order == list(WHOLE)


def test_copies_are_left_to_be_said_as_copies():
    pictures = first_take("dome")
    follower = Follower(pictures[0].shape, PLAN, 1)
    for frame, picture in enumerate(pictures + pictures[:6]):
        follower.add(frame, picture)
    again = set_repeats_aside(follower, [*pictures, *pictures].__getitem__, {15 + place: place for place in range(6)})
    assert again == []
    assert np.isfinite(follower.between(0, 14)).all()


def test_a_take_that_was_laid_on_the_next_row_of_things_all_alike_is_laid_anew():
    one, other = first_take("dome"), second_take("dome")
    pictures = one[:9] + other[7:]
    sound, astray = (Follower(pictures[0].shape, PLAN, 1) for _ in range(2))
    for follower in (sound, astray):
        for frame, picture in enumerate(pictures):
            follower.add(frame, picture)
    laid = astray.frames[9].laid
    astray.frames[9] = astray.frames[9]._replace(
        laid=laid._replace(similarity=np.add(laid.similarity, [[0, 0, 40], [0, 0, 0]]))
    )
    right, found = (check_stack(follower, pictures.__getitem__, {}) for follower in (sound, astray))
    assert found.order == right.order == [*range(9), *range(11, 17)]
    for frame in right.order:
        assert found.to_reference[frame] == pytest.approx(right.to_reference[frame], abs=0.3)
