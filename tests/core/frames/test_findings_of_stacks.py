"""Whole stacks with one thing wrong, or nothing: what is found, where, and how much."""

import numpy as np
import pytest

from just_plane.core.frames.check.checked import check_stack
from just_plane.core.frames.check.coverage import covered_at, gaps, open_ends
from just_plane.core.frames.check.series import Follower
from stacks.camera import Faults, depth_view
from stacks.kept import FACTS, SIZE, grey, judged, stack_of

pytestmark = pytest.mark.xdist_group("stacks")
KINDS = ("dome", "hairs")


def codes(checked):
    return [one.code for one in checked.findings]


@pytest.mark.parametrize("kind", ["dome", "plane", "terraces", "hairs", "spines", "weak", "sparkle"])
def test_nothing_is_said_of_a_clean_stack(kind):
    checked = judged(kind, 4)
    assert codes(checked) == []
    assert checked.order == list(range(12))
    assert gaps(checked, FACTS) == []


def test_of_one_frame_nothing_is_measured():
    picture = grey(stack_of("dome", 4).frames[0])
    follower = Follower(picture.shape, FACTS, 1)
    follower.add(0, picture)
    checked = check_stack(follower, lambda frame: picture, {})
    assert (checked.order, checked.left_out, checked.findings) == ([0], {}, [])
    assert (checked.reference, checked.pairs, checked.fit, checked.stillness, checked.grid) == (None,) * 5
    assert (checked.places, checked.light, checked.to_reference, checked.clipped) == ({}, {}, {}, {})
    assert len(checked.steps) == 0


def test_two_other_subjects_in_one_folder_are_told_apart():
    pictures = [grey(frame) for frame in stack_of("dome", 4).frames[:10]]
    pictures += [grey(frame) for seed in (9, 12) for frame in stack_of("dome", seed).frames[4:6]]
    follower = Follower(pictures[0].shape, FACTS, 1)
    for frame, picture in enumerate(pictures):
        follower.add(frame, picture)
    checked = check_stack(follower, lambda frame: pictures[frame], {})
    apart = [(one.code, one.frames) for one in checked.findings if one.code == "registration_failed"]
    assert apart == [("registration_failed", (10, 11)), ("registration_failed", (12, 13))]


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize("missing", [1, 2])
def test_a_skipped_step_is_found_where_it_is_and_counted(kind, missing):
    checked = judged(kind, 4, Faults(skipped=(6, missing)))
    assert [(one.code, one.frame, one.before) for one in checked.findings] == [("skipped_step", 6, 5)]
    assert checked.findings[0].amount == missing
    assert checked.places[6] - checked.places[5] == 1 + missing


def test_one_step_missing_is_covered_still_and_two_are_a_gap():
    assert gaps(judged("dome", 4, Faults(skipped=(6, 1))), FACTS) == []
    (gap,) = gaps(judged("dome", 4, Faults(skipped=(6, 2))), FACTS)
    assert (gap.before, gap.after) == (5, 6)
    assert (gap.start, gap.end) == pytest.approx((6.0, 7.0))


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize(
    ("faults", "code", "frame", "amount", "within"),
    [
        (Faults(bump=(6, 2.4, 1.8)), "bump", 6, 3.0, 0.5),
        (Faults(bump=(7, -24.0, 18.0)), "bump", 7, 30.0, 1.0),
        (Faults(rotation=(6, 0.25)), "rotation", 6, 0.25, 0.06),
        (Faults(drift_ev=0.06), "light_drift", None, 0.06, 0.015),
        (Faults(jump=(6, -0.2)), "light_jump", 6, -0.2, 0.03),
        (Faults(dead_flash=5), "dead_flash", 5, -3.0, 0.1),
        (Faults(twice=6), "duplicate", 6, 0.0, 0.35),
        (Faults(same_file=6), "duplicate", 6, 0.0, 0.0),
        (Faults(foreign=6), "foreign_frame", 6, 1.0, 0.0),
        (Faults(swapped=5), "wrong_order", 5, 2.0, 0.0),
    ],
    ids=lambda value: "" if isinstance(value, Faults) else None,
)
def test_one_fault_is_found_with_its_frame_and_amount_and_nothing_else(kind, faults, code, frame, amount, within):
    (found,) = judged(kind, 4, faults).findings
    assert (found.code, found.frame) == (code, frame)
    assert found.amount == pytest.approx(amount, abs=within)


@pytest.mark.parametrize("angle", [0.0, 45.0])
def test_a_shaken_frame_is_found_whichever_way_it_was_shaken_and_left_out(angle):
    checked = judged("dome", 4, Faults(shake=(6, 9.0, angle)))
    assert [(one.code, one.frame) for one in checked.findings] == [("shake", 6)]
    assert checked.left_out == {6: "shake"}


def test_a_stack_taken_from_far_to_near_is_counted_from_the_near_end():
    stack = stack_of("dome", 4)
    pictures = [grey(frame) for frame in stack.frames[::-1]]
    follower = Follower(pictures[0].shape, FACTS, 1)
    for frame, picture in enumerate(pictures):
        follower.add(frame, picture)
    checked = check_stack(follower, lambda frame: pictures[frame], {})
    assert checked.findings == []
    assert checked.order == list(range(11, -1, -1))
    assert checked.places[11] == 0
    # The middle of the dome is its nearest part.
    middle = checked.grid.down // 2 * checked.grid.across + checked.grid.across // 2
    assert checked.fit.depths[middle] == pytest.approx(1.2, abs=0.5)


def test_a_stack_that_ends_short_of_its_plan_has_a_gap_there():
    checked = judged("dome", 4, count=12)
    longer = FACTS._replace(frames=20)
    (gap,) = gaps(checked, longer)
    assert (gap.start, gap.end, gap.before, gap.after) == (12.0, 19.0, 11, None)
    # One spare frame less than planned is none: what it holds the last one holds to its middle.
    assert gaps(checked, FACTS._replace(frames=13)) == []


def test_two_faults_at_once_are_both_found():
    checked = judged("dome", 4, Faults(skipped=(4, 1), drift_ev=0.08))
    assert sorted(codes(checked)) == ["light_drift", "skipped_step"]
    checked = judged("plane", 4, Faults(dead_flash=3, bump=(8, 4.0, 0.0)))
    assert sorted(codes(checked)) == ["bump", "dead_flash"]


def test_swapped_frames_are_put_in_order_and_their_places_with_them():
    checked = judged("dome", 4, Faults(swapped=5))
    assert checked.order == [0, 1, 2, 3, 4, 6, 5, *range(7, 12)]
    assert checked.places[6] == 5


def test_a_part_that_moved_in_focus_is_found_at_its_place():
    # The middle of the dome is its nearest part: in focus in the first frames.
    checked = judged("dome", 4, Faults(moved=(2, 144.0, 96.0, 34.0, 4.0)))
    (found,) = checked.findings
    assert (found.code, found.frame) == ("moved", 2)
    assert found.amount == pytest.approx(4.0, abs=1.2)
    assert np.hypot(found.place[0] - 144, found.place[1] - 96) < 15


def test_the_reference_is_never_a_dark_frame():
    checked = judged("dome", 4, Faults(dead_flash=6))
    assert checked.reference != 6
    assert abs(checked.light[checked.reference]) == 0
    assert checked.left_out == {6: "dead_flash"}


def test_what_is_covered_is_covered_by_the_truth_of_the_scene():
    faults = Faults(skipped=(6, 2))
    stack, checked = stack_of("plane", 4, faults), judged("plane", 4, faults)
    places = checked.grid.places
    depth = depth_view(stack, checked.reference)[
        np.clip(places[:, 1].round().astype(int), 0, SIZE[0] - 1),
        np.clip(places[:, 0].round().astype(int), 0, SIZE[1] - 1),
    ]
    away = np.abs(depth[:, np.newaxis] - stack.places).min(axis=1)
    told = covered_at(places, checked, FACTS, 1)
    # Blur of 2.7 px a step keeps 20 % at 3 px up to 1.06 steps (the airy disc of f/12 takes its part of it).
    sure = np.abs(away - 1.06) > 0.25
    agree = [one.covered == (far < 1.06) for one, far in zip(told, away, strict=True) if one.covered is not None]
    assert np.mean(np.array(agree)[sure]) > 0.95
    assert any(one.covered is False for one in told)


@pytest.mark.parametrize("times", [1, 2])
def test_a_place_at_the_very_edge_is_judged_and_one_beside_the_frame_is_not(times):
    checked, (high, wide) = judged("plane", 4), SIZE
    # Pixels are counted from the middle of the first: the frame reaches from half a pixel before it.
    left, right, top, bottom = -0.5, times * wide - 0.5, -0.5, times * high - 0.5
    middle = (times * wide / 2, times * high / 2)
    edges = [(left, middle[1]), (right, middle[1]), (middle[0], top), (middle[0], bottom)]
    beside = [(left - 0.01, middle[1]), (right + 0.01, middle[1]), (middle[0], top - 0.01), (middle[0], bottom + 0.01)]
    told = covered_at(np.array([*edges, *beside]), checked, FACTS, times)
    assert [one.depth is not None for one in told] == [True] * 4 + [False] * 4


def test_a_hand_held_stack_is_not_told_of_its_own_movement():
    assert judged("dome", 4, mode="hand").findings == []


def test_seven_frames_are_not_judged_by_what_is_usual():
    checked = judged("dome", 4, Faults(bump=(4, 5.0, 0.0)), count=7)
    assert checked.findings == []
    assert checked.dust is None


def test_a_subject_that_goes_on_past_the_last_frame_shows_it():
    assert max(open_ends(judged("dome", 4))) < 0.03
    pictures = [grey(frame) for frame in stack_of("dome", 4).frames[:8]]
    follower = Follower(pictures[0].shape, FACTS, 1)
    for frame, picture in enumerate(pictures):
        follower.add(frame, picture)
    near, far = open_ends(check_stack(follower, lambda frame: pictures[frame], {}))
    # Depth 7.5 to 10 of 1 to 10 lies past frame 7; it grows with the square of the radius, so a quarter of the disc.
    assert near < 0.03
    assert far > 0.1
