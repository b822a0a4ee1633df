"""What is sharp in some frame: gaps, places and open ends, told by hand."""

from types import SimpleNamespace

import numpy as np
import pytest

from just_plane.core.frames.check.coverage import covered_at, gaps, open_ends
from just_plane.core.frames.check.facts import StackFacts
from just_plane.core.frames.check.tiles import grid_for

GRID = grid_for(400, 300, 2.5, 2.5)
"""Tiles of 10 px: 40 across, 30 down."""
PLAN = StackFacts(
    kind="rail", magnification=0.5, effective_f_number=12.0, pixel_pitch=0.01, circle=0.03, depth_of_field=2.4, step=1.0
)
"""A frame holds 1.2 steps on either side."""


def stack(places, *, left_out=(), depths=None):
    return SimpleNamespace(
        order=list(range(len(places))),
        places=dict(enumerate(places)),
        left_out=dict.fromkeys(left_out, "shake"),
        fit=None if depths is None else SimpleNamespace(depths=np.asarray(depths, float)),
        grid=GRID,
    )


def flat(depth):
    return np.full(GRID.across * GRID.down, depth)


def test_frames_a_step_apart_leave_no_gap():
    assert gaps(stack([0, 1, 2, 3]), PLAN) == []


def test_depth_that_no_frame_holds_is_told_from_end_to_end():
    (gap,) = gaps(stack([0, 1, 5, 6]), PLAN)
    assert (gap.before, gap.after) == (1, 2)
    assert (gap.start, gap.end) == pytest.approx((1 + 1.2, 5 - 1.2))


def test_frames_that_only_just_meet_leave_none():
    assert gaps(stack([0, 2.4]), PLAN) == []
    assert gaps(stack([0, 2.44]), PLAN) == []  # within two hundredths: places are known no better
    assert len(gaps(stack([0, 2.46]), PLAN)) == 1


def test_a_frame_left_out_holds_nothing():
    assert gaps(stack([0, 1, 2, 3], left_out=[1]), PLAN) == []
    (gap,) = gaps(stack([0, 1, 2, 3], left_out=[1, 2]), PLAN)
    assert (gap.before, gap.after) == (0, 3)


def test_gaps_go_by_where_frames_stand_not_by_their_numbers():
    assert gaps(stack([0, 1, 4, 2, 3]), PLAN) == []


def test_a_stack_that_ends_short_of_its_plan_has_a_gap_to_its_end():
    (gap,) = gaps(stack([0, 1, 2]), PLAN._replace(frames=6))
    assert (gap.start, gap.end, gap.before, gap.after) == (pytest.approx(3.2), 5.0, 2, None)
    # One frame short: what it would hold beyond the last reaches to its own middle.
    assert gaps(stack([0, 1, 2, 3, 4]), PLAN._replace(frames=6)) == []
    assert gaps(stack([0, 1, 2]), PLAN._replace(frames=6, step=None)) == []


def test_spare_frames_past_the_subject_need_not_be_there():
    spare = PLAN._replace(frames=7, spare_before=1, spare_after=2)
    # Of 7 frames the fifth reaches the farthest point, the fourth as far as frames only just meet.
    assert gaps(stack([0, 1, 2, 3]), spare) == []
    (gap,) = gaps(stack([0, 1, 2]), spare)
    assert (gap.start, gap.end, gap.before, gap.after) == (3.2, 4.0, 2, None)
    assert gaps(stack([0, 1, 2, 3, 4, 5, 6]), spare) == []


def test_a_first_frame_that_is_lost_leaves_the_near_end_open():
    (gap,) = gaps(stack([0, 1, 2, 3], left_out=[0, 1]), PLAN)
    assert (gap.start, gap.end, gap.before, gap.after) == (0.0, 0.8, None, 2)
    # It reaches as far as frames only just meet; a spare frame in front need not be there.
    assert gaps(stack([0, 1, 2, 3], left_out=[0]), PLAN) == []
    assert gaps(stack([0, 1, 2, 3], left_out=[0, 1]), PLAN._replace(spare_before=1)) == []
    (gap,) = gaps(stack([0, 1, 2, 3], left_out=[0, 1, 2]), PLAN._replace(spare_before=1))
    assert (gap.start, gap.end) == pytest.approx((1.0, 1.8))
    # By hand nobody planned where it begins, and without a step nobody knows.
    assert gaps(stack([0, 1, 2, 3], left_out=[0, 1]), PLAN._replace(kind="hand")) == []
    assert gaps(stack([0, 1, 2, 3], left_out=[0, 1]), PLAN._replace(step=None)) == []


def test_where_frames_in_front_could_not_be_laid_the_ends_are_not_known():
    apart = stack([2, 3, 4])
    apart.order, apart.places = [2, 3, 4], {2: 2, 3: 3, 4: 4}
    apart.left_out = dict.fromkeys((0, 1), "registration_failed")
    assert gaps(apart, PLAN._replace(frames=9)) == []
    behind = stack([0, 1, 2])
    behind.left_out = dict.fromkeys((3, 4), "registration_failed")
    (gap,) = gaps(behind, PLAN._replace(frames=9))
    assert (gap.start, gap.before) == (3.2, 2)


def test_without_a_plan_a_frame_holds_one_step_either_side():
    bare = StackFacts()
    assert gaps(stack([0, 2]), bare) == []
    assert len(gaps(stack([0, 2.1]), bare)) == 1


def test_a_place_is_held_best_by_the_frame_nearest_to_its_depth():
    (one,) = covered_at(np.array([[200.0, 150.0]]), stack([0, 1, 2, 3], depths=flat(1.8)), PLAN, 1)
    assert (one.covered, one.frame, one.depth) == (True, 2, pytest.approx(1.8))
    (other,) = covered_at(np.array([[200.0, 150.0]]), stack([0, 1, 2, 3], left_out=[2], depths=flat(1.8)), PLAN, 1)
    assert other.frame == 1
    assert other.contrast < one.contrast


def test_contrast_falls_with_distance_and_is_all_there_in_focus():
    """At 33 lines a mm and f/12 of 550 nm a perfect lens keeps 1 - 4/pi x 0.22 of the finest detail, about."""
    near, far = (
        covered_at(np.array([[200.0, 150.0]]), stack([0.0], depths=flat(away)), PLAN, 1)[0] for away in (0.0, 6.0)
    )
    share = 12 * 0.00055 / 0.03
    perfect = 2 / np.pi * (np.arccos(share) - share * np.sqrt(1 - share**2))
    assert near.contrast == pytest.approx(perfect, abs=0.01)
    # Six steps away the blur is five circles wide: nothing of it is left.
    assert (far.covered, near.covered) == (False, True)
    assert far.contrast < 0.1


def test_without_optics_a_place_is_held_within_the_reach_of_a_frame():
    bare = PLAN._replace(magnification=None)
    held, missed = (
        covered_at(np.array([[10.0, 10.0]]), stack([0.0], depths=flat(away)), bare, 1)[0] for away in (1.2, 1.3)
    )
    assert (held.covered, held.contrast) == (True, None)
    assert (missed.covered, missed.frame) == (False, 0)


def test_each_place_is_asked_of_its_own_tile_in_pixels_of_the_full_frame():
    depths = flat(np.nan).reshape(30, 40)
    depths[14, 7] = 1.0
    # Tile 7 across, 14 down, of pixels twice as wide: pixels 140 to 159 and 280 to 299, from edge to edge.
    inside = [[139.7, 279.7], [159.3, 299.3]]
    outside = [[139.3, 290.0], [159.7, 290.0], [150.0, 279.3], [150.0, 299.7]]
    told = covered_at(np.array(inside + outside), stack([0, 1, 2], depths=depths.ravel()), PLAN, 2)
    assert [one.covered for one in told] == [True, True, None, None, None, None]


def test_outside_of_the_frame_and_without_texture_nothing_is_told():
    asked = np.array([[-2.0, 10.0], [10.0, -2.0], [401.0, 10.0], [10.0, 301.0]])
    assert {one.covered for one in covered_at(asked, stack([0, 1], depths=flat(0.0)), PLAN, 1)} == {None}
    assert covered_at(asked[:1], stack([0, 1]), PLAN, 1)[0].covered is None
    everything = stack([0, 1], left_out=[0, 1], depths=flat(0.0))
    assert covered_at(np.array([[5.0, 5.0]]), everything, PLAN, 1)[0].covered is None


def test_ends_are_open_by_the_share_of_places_that_lie_past_them():
    depths = np.concatenate([np.full(700, 1.5), np.full(300, -0.6), np.full(200, 3.6), [np.nan] * 50])
    assert open_ends(stack([0, 1, 2, 3], depths=depths)) == pytest.approx((300 / 1200, 200 / 1200))
    # Half a step past an end still is the end's own.
    assert open_ends(stack([0, 1, 2, 3], depths=np.array([-0.4, 3.4, 1.0]))) == (0, 0)
    assert open_ends(stack([0, 1], depths=[np.nan])) == (0.0, 0.0)
    assert open_ends(stack([0, 1])) == (0.0, 0.0)
