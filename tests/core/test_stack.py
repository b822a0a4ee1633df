import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.errors import OutOfDomainError
from just_plane.core.stack import (
    MOST_FRAMES,
    hold_time,
    kept_frames,
    overlap_left,
    rail_frames_by_stop,
    rail_stack,
    ring_stack,
    slabs,
    stack_time,
)

depths = st.floats(0.0, 200)
depths_of_field = st.floats(0.2, 50)
overlaps = st.floats(0, 0.8)
spares = st.integers(0, 5)


@given(depths, depths_of_field, overlaps, spares, spares)
def test_frames_are_steps_and_one_and_the_far_point_is_reached(depth, dof, overlap, before, after):
    stack = rail_stack(depth, dof, overlap, spare_before=before, spare_after=after)
    assert stack.frames == stack.steps + 1 == len(stack.positions)
    assert stack.positions[before] == 0
    last = stack.positions[before + stack.covering - 1]
    assert last >= depth * (1 - 1e-12)
    assert last - stack.largest_gap < depth or stack.covering == 1


@given(st.integers(1, 400), st.floats(0.001, 1))
def test_a_depth_of_whole_steps_takes_that_many(steps, step):
    assert rail_stack(steps * step, 2 * step, 0.5).covering == steps + 1


@given(st.floats(0.01, 10), st.floats(0.0005, 0.01))
def test_the_rail_is_asked_only_for_steps_it_can_do(step, smallest):
    got = rail_stack(10 * step, 2 * step, 0.5, smallest_step=smallest).smallest_gap
    if step < smallest:
        assert got == pytest.approx(smallest)
        return
    assert got <= step * (1 + 1e-9)
    assert got + smallest > step * (1 - 1e-9)
    assert got / smallest == pytest.approx(round(got / smallest))


def test_a_rail_too_coarse_does_its_smallest_step_and_what_is_left_is_told():
    """3 um a frame, half overlapping, asks for 1.5; a rail of 2 leaves a third, one of 10 leaves 7 in neither frame."""
    assert rail_stack(1.0, 0.003, 0.5, smallest_step=0.002).smallest_gap == pytest.approx(0.002)
    assert overlap_left(0.003, 0.002) == pytest.approx(1 / 3)
    coarse = rail_stack(1.0, 0.003, 0.5, smallest_step=0.01)
    assert (coarse.steps, coarse.smallest_gap) == (100, pytest.approx(0.01))
    assert overlap_left(0.003, 0.01) == pytest.approx(-7 / 3)


def test_the_subject_holds_still_from_the_first_exposure_to_the_last():
    """10 frames, 2 s to settle, 0.5 s open, 1 s to write: nine times 3.5 s, and the last exposure."""
    assert hold_time(10, 2.0, 0.5, 1.0) == pytest.approx(9 * 3.5 + 0.5)
    assert hold_time(1, 2.0, 0.5, 1.0) == 0.5
    assert hold_time(10, 2.0, 0.5, 1.0, noise_reduction=True) == pytest.approx(9 * 4.0 + 0.5)
    assert hold_time(0, 2.0, 0.5, 1.0) == 0


def test_a_ring_whose_depth_never_changes_steps_like_a_rail():
    ring = ring_stack(10.0, lambda _: 1.0, 0.5)
    assert ring.positions == pytest.approx(rail_stack(10.0, 1.0, 0.5).positions)


@given(st.floats(1, 50), st.floats(0.2, 2), overlaps)
def test_a_ring_strides_longer_as_depth_grows_with_distance(depth, dof, overlap):
    def depth_at(place):
        return dof * (1 + place / 100) ** 2

    stack = ring_stack(depth, depth_at, overlap)
    gaps = [b - a for a, b in itertools.pairwise(stack.positions)]
    assert gaps == sorted(gaps)
    assert stack.positions[-1] >= depth * (1 - 1e-12)
    for place, gap in zip(stack.positions, gaps, strict=False):
        assert gap == pytest.approx(depth_at(place) * (1 - overlap))


def test_spare_frames_of_a_ring_lie_outside():
    stack = ring_stack(5.0, lambda _: 1.0, 0.5, spare_before=2, spare_after=1)
    assert stack.positions[:3] == pytest.approx((-1.0, -0.5, 0.0))
    assert stack.frames == stack.covering + 3


def test_every_step_of_a_ring_starts_where_the_last_one_ended():
    """Depth of field 1 + z/10 at z, half of it a step: z' = 1.05 z + 0.5, so z_k = 10 (1.05^k - 1)."""
    plan = ring_stack(4.0, lambda place: 1 + place / 10, 0.5, spare_before=1, spare_after=2)
    # 10 (1.05^7 - 1) = 4.07 is the first at 4 mm or beyond; the one before zero steps by its own half millimetre.
    assert plan.positions == pytest.approx([-0.5, *(10 * (1.05**k - 1) for k in range(10))])
    assert (plan.covering, plan.frames) == (8, 11)


@pytest.mark.parametrize("plan", [rail_stack, lambda t, d, o: ring_stack(t, lambda _: d, o)])
def test_a_stack_without_end_is_refused(plan):
    with pytest.raises(OutOfDomainError, match=f"more than {MOST_FRAMES} frames"):
        plan(1000.0, 0.001, 0.5)


@given(st.integers(0, 1000), st.integers(2, 60), st.data())
def test_slabs_cover_every_frame_and_share_what_they_should(frames, size, data):
    shared = data.draw(st.integers(0, size - 1))
    groups = slabs(frames, size, shared)
    if frames:
        assert groups[0][0] == 1
        assert groups[-1][1] == frames
    for (_, end), (start, _) in itertools.pairwise(groups):
        assert end - start + 1 == shared


def test_time_counts_the_dark_frame_of_noise_reduction():
    assert stack_time(10, 2.0, 1.0, 0.5) == 35
    assert stack_time(10, 2.0, 1.0, 0.5, noise_reduction=True) == 45


@pytest.mark.parametrize("overlap", [1.0, -0.1, math.nan])
def test_overlap_is_a_share(overlap):
    with pytest.raises(OutOfDomainError, match="at least 0 and below 1"):
        rail_stack(1.0, 0.1, overlap)


def test_frames_at_each_stop_by_hand():
    """10 mm in steps of half of 4, 5 and 7 mm: 5, 4 and 3 steps, a frame more, and two spare ones."""
    assert rail_frames_by_stop(10.0, [4.0, 5.0, 7.0], 0.5, spare=2) == [8, 7, 6]
    # A rail of half millimetres goes 2, 2.5 and 3.5; one of two 2, 2 and 2; one of three its three, however fine.
    assert rail_frames_by_stop(10.0, [4.0, 5.0, 7.0], 0.5, smallest_step=0.5) == [6, 5, 4]
    assert rail_frames_by_stop(10.0, [4.0, 5.0, 7.0], 0.5, smallest_step=2.0) == [6, 6, 6]
    assert rail_frames_by_stop(10.0, [4.0, 5.0, 7.0], 0.5, smallest_step=3.0) == [5, 5, 5]
    assert rail_frames_by_stop(0.0, [4.0], 0.5) == [1]


def test_where_there_is_no_depth_or_no_end_no_frames_are_named():
    assert rail_frames_by_stop(10.0, [0.0, 4.0], 0.5) == [None, 6]
    just = 10.0 / MOST_FRAMES
    assert rail_frames_by_stop(10.0, [2 * just, 1.9 * just], 0.5) == [MOST_FRAMES + 1, None]
    # A rail cannot step by nothing either.
    assert rail_frames_by_stop(10.0, [0.0], 0.5, smallest_step=0.5) == [None]


@given(depths, depths_of_field, overlaps, spares, spares, st.none() | st.floats(0.05, 3))
def test_frames_at_a_stop_are_those_of_its_stack(depth, dof, overlap, before, after, smallest):
    stack = rail_stack(depth, dof, overlap, spare_before=before, spare_after=after, smallest_step=smallest)
    counted = rail_frames_by_stop(depth, [dof], overlap, spare=before + after, smallest_step=smallest)
    assert counted == [stack.frames]


@pytest.mark.parametrize(
    ("frames", "every", "kept"),
    [
        (0, 2, ()),
        (1, 3, (0,)),
        (7, 3, (0, 3, 6)),
        (8, 3, (0, 3, 6, 7)),
        (5, 1, (0, 1, 2, 3, 4)),
        (4, 9, (0, 3)),
    ],
)
def test_every_so_manyth_frame_is_kept_and_the_last(frames, every, kept):
    assert kept_frames(frames, every) == kept


@pytest.mark.parametrize("spares", [0, 2])
def test_steps_of_a_ring_lie_between_its_frames(spares):
    plan = ring_stack(10.0, lambda place: 1.0 + 0.05 * place, 0.2, spare_before=spares, spare_after=spares)
    assert (plan.frames, plan.steps) == (len(plan.positions), len(plan.positions) - 1)


def test_no_frames_make_no_slab():
    assert slabs(0) == ()
    assert slabs(1) == ((1, 1),)


@pytest.mark.parametrize("plan", [rail_stack, lambda t, d, o: ring_stack(t, lambda _: d, o)])
def test_of_a_stack_without_end_the_depth_is_at_fault(plan):
    with pytest.raises(OutOfDomainError) as refused:
        plan(1e6, 0.001, 0.2)
    assert (refused.value.code, refused.value.quantity) == ("frames.too_many", "depth")
