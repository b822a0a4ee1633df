"""Proofs against the same scene photographed with everything sharp, and by laws."""

import cv2
import numpy as np
import pytest

from just_plane.core.frames.check.similarity import chained
from just_plane.core.frames.proof.brush import needs_brush
from just_plane.core.frames.proof.by_depth import DepthMerge
from just_plane.core.frames.proof.by_detail import SCALE, DetailMerge, depth_window, levels_of, strip_window
from just_plane.core.frames.proof.crop import covered_by_all
from just_plane.core.frames.proof.focus_map import FocusPass, filled
from just_plane.core.frames.proof.strips import Part
from stacks.camera import depth_view, sharp_view
from stacks.kept import SIZE, judged, stack_of

pytestmark = pytest.mark.xdist_group("stacks")


def shifted(x, y):
    return np.array([[1.0, 0.0, x], [0.0, 1.0, y]])


def laid_frames(kind, mode="rail"):
    stack, checked = stack_of(kind, 4, mode=mode), judged(kind, 4, mode=mode)
    used = [frame for frame in checked.order if frame not in checked.left_out]
    box = covered_by_all([checked.to_reference[frame] for frame in used], SIZE[1], SIZE[0])
    crop = np.array([[1.0, 0.0, -box[0]], [0.0, 1.0, -box[1]]])
    size = (box[2] - box[0], box[3] - box[1])
    pictures = []
    for frame in used:
        whole = stack.frames[frame].astype(np.float32) / (255 if stack.jpeg else 65535)
        laid = cv2.warpAffine(whole, chained(checked.to_reference[frame], crop), size, flags=cv2.INTER_CUBIC)
        pictures.append(np.clip(laid, 0, 1))
    return stack, checked, used, box, pictures


def focus_of(pictures):
    passed = FocusPass(pictures[0].shape[:2], 3.0)
    for picture in pictures:
        passed.add(cv2.cvtColor(picture, cv2.COLOR_BGR2GRAY))
    found = passed.map()
    return found, filled(found, 3.0)


def merged(merge, pictures):
    for frame, picture in enumerate(pictures):
        whole = np.rint(picture * SCALE).astype(np.int16)
        height, width = whole.shape[:2]
        part = Part(0, width, 0, height, 0, width, 0, height)
        merge.take(frame, whole if isinstance(merge, DepthMerge) else levels_of(whole), part)
    return merge.picture()


def near(depth, reach_px):
    """Lets only frames near the depth of a place win there."""
    return strip_window(depth, *depth_window(depth, reach_px), 1, 0, depth.shape[0])


def decibels(picture, true):
    return -10 * np.log10(float(np.mean((picture - true) ** 2)))


@pytest.mark.parametrize(("kind", "mode"), [("dome", "rail"), ("terraces", "rail"), ("dome", "hand")])
def test_by_depth_a_surface_comes_out_as_if_all_of_it_were_sharp(kind, mode):
    stack, checked, used, (left, top, right, bottom), pictures = laid_frames(kind, mode)
    _, depth = focus_of(pictures)
    true = sharp_view(stack, checked.reference)[top:bottom, left:right]
    one = pictures[len(pictures) // 2]
    proof = merged(DepthMerge(depth), pictures)
    assert decibels(proof, true) > 36.5
    assert decibels(proof, true) > decibels(one, true) + 8
    seen = depth_view(stack, checked.reference)[top:bottom, left:right]
    wrong = np.abs(depth - np.interp(seen, stack.places[used], np.arange(len(used))))
    assert np.median(wrong) < 0.15
    assert np.mean(wrong < 1) > 0.93


def test_hairs_come_out_better_by_detail_than_by_depth():
    stack, checked, _, (left, top, right, bottom), pictures = laid_frames("hairs")
    _, depth = focus_of(pictures)
    true = sharp_view(stack, checked.reference)[top:bottom, left:right]
    by_depth = decibels(merged(DepthMerge(depth), pictures), true)
    by_detail = decibels(merged(DetailMerge(depth.shape), pictures), true)
    windowed = decibels(merged(DetailMerge(depth.shape, near(depth, 4.5)), pictures), true)
    assert by_detail > 29.0
    assert windowed > 29.0
    assert min(by_detail, windowed) > by_depth


def test_one_frame_alone_is_its_own_proof_by_every_method():
    picture = np.random.default_rng(1).uniform(0.1, 0.9, (64, 96, 3)).astype(np.float32)
    picture = cv2.GaussianBlur(picture, (0, 0), 1)
    depth = np.zeros((64, 96), np.float32)
    assert merged(DepthMerge(depth), [picture]) == pytest.approx(picture, abs=1e-4)
    assert merged(DetailMerge((64, 96)), [picture]) == pytest.approx(picture, abs=2e-3)
    assert merged(DetailMerge((64, 96), near(depth, 4.5)), [picture]) == pytest.approx(picture, abs=2e-3)


def test_of_equal_frames_the_earlier_wins_and_a_second_copy_changes_nothing():
    picture = cv2.GaussianBlur(np.random.default_rng(2).uniform(0, 1, (48, 64, 3)).astype(np.float32), (0, 0), 1)
    once = merged(DetailMerge((48, 64)), [picture])
    assert (merged(DetailMerge((48, 64)), [picture, picture]) == once).all()


def test_how_much_detail_a_place_holds_does_not_depend_on_which_way_round_the_picture_is():
    picture = np.random.default_rng(4).integers(0, SCALE, (65, 81, 3)).astype(np.int16)
    straight, turned = levels_of(picture), levels_of(np.ascontiguousarray(picture[::-1, ::-1]))
    off = np.abs(turned.energy[0][::-1, ::-1] / straight.energy[0] - 1)
    assert np.median(off) < 1e-4
    assert off.max() < 0.05  # whole numbers at the rim


def test_a_frame_outside_its_window_never_wins_where_another_is_inside():
    sharp = np.random.default_rng(3).uniform(0, 1, (64, 64, 3)).astype(np.float32)
    plain = np.full((64, 64, 3), 0.5, np.float32)
    depth = np.zeros((64, 64), np.float32)
    frames = [plain, plain, plain, plain, sharp]
    windowed = merged(DetailMerge((64, 64), near(depth, 3)), frames)
    assert np.abs(windowed - 0.5).max() < 0.1
    assert np.std(merged(DetailMerge((64, 64)), frames)) > 0.2


def test_depth_between_two_frames_is_found_between_them():
    generator = np.random.default_rng(4)
    grain = cv2.GaussianBlur(generator.standard_normal((96, 96)).astype(np.float32), (0, 0), 0.8)
    passed = FocusPass((96, 96), 3.0)
    for k in range(9):
        blurred = cv2.GaussianBlur(grain, (0, 0), 0.3 + 0.9 * abs(k - 4.5))
        passed.add((0.5 + 0.1 * blurred).astype(np.float32))
    assert np.median(passed.map().depth) == pytest.approx(4.5, abs=0.05)


def test_a_plain_place_takes_its_depth_from_around_and_a_sure_one_keeps_its_own():
    grain = cv2.GaussianBlur(np.random.default_rng(5).standard_normal((120, 120)).astype(np.float32), (0, 0), 0.8)
    grain[40:80, 40:80] = 0
    passed = FocusPass((120, 120), 3.0)
    for k in range(9):
        noise = 0.004 * np.random.default_rng(k).standard_normal((120, 120))
        passed.add((0.5 + 0.1 * cv2.GaussianBlur(grain, (0, 0), 0.3 + 0.9 * abs(k - 3)) + noise).astype(np.float32))
    found = passed.map()
    depth = filled(found, 3.0)
    assert np.abs(depth[55:65, 55:65] - 3).max() < 0.8
    sure = found.confidence > 0.9
    sure[34:86, 34:86] = False
    assert (np.abs(depth - found.depth)[sure] <= 1).all()


def test_all_frames_cover_what_the_least_of_them_covers():
    moves = [shifted(3.2, -2.0), shifted(0, 0), shifted(-4.0, 5.0)]
    assert covered_by_all(moves, 100, 80) == (4, 5, 96, 78)
    assert covered_by_all([shifted(0, 0)], 100, 80) == (0, 0, 100, 80)


def test_frames_that_hardly_meet_leave_the_middle():
    left, top, right, bottom = covered_by_all([shifted(0, 0), shifted(98.0, 0)], 100, 80)
    assert right - left >= 16
    assert (top, bottom) == (0, 80)
    assert left >= 0
    assert right <= 100


def test_the_brush_is_needed_on_the_far_side_of_a_jump_as_far_as_the_near_part_is_blurred():
    depth = np.full((120, 160), 10.0, np.float32)
    depth[:, :40] = 2.0
    brush = needs_brush(depth, 2.0)
    # Eight steps of 2 px: the near part is a disc of 16 px there, half of which lies beyond its edge.
    reach = np.flatnonzero(brush.mask[60])
    assert reach.min() >= 40
    assert 44 <= reach.max() <= 40 + 14
    assert brush.share == pytest.approx(len(reach) / 160, abs=0.01)


def test_small_jumps_and_large_ones_need_the_brush_in_one_picture():
    depth = np.full((120, 200), 16.0, np.float32)
    depth[:, :50] = 12.0
    depth[:, 150:] = 2.0
    brush = needs_brush(depth, 2.0)
    reach = np.flatnonzero(brush.mask[60])
    # Beside four steps on the left, beside fourteen on the right; each as far as its own near part is blurred.
    small, large = reach[reach < 100], reach[reach >= 100]
    assert (small.min() >= 50, large.max() < 150) == (True, True)
    assert 2 <= len(small) <= 8
    assert 10 <= len(large) <= 22


def test_a_jump_that_a_map_of_depth_smooths_over_four_pixels_is_a_jump():
    """Six frames in four pixels: within five pixels there are six between near and far, within three only three."""
    depth = np.tile(np.interp(np.arange(160), [40, 44], [2.0, 8.0]).astype(np.float32), (120, 1))
    assert needs_brush(depth, 2.0).mask.any()
    # The same over sixteen is a slope.
    slope = np.tile(np.interp(np.arange(160), [40, 56], [2.0, 8.0]).astype(np.float32), (120, 1))
    assert not needs_brush(slope, 2.0).mask.any()


def test_a_slope_needs_no_brush_and_suits_the_merge_by_depth():
    depth = np.tile(np.linspace(0, 11, 160, dtype=np.float32), (120, 1))
    brush = needs_brush(depth, 2.7)
    assert (brush.share, brush.method) == (0.0, "depth")
    hairs = depth.copy()
    hairs[:, ::8] = 0
    assert needs_brush(hairs, 2.7).method == "pyramid"


def test_frames_that_may_win_are_those_of_the_depths_within_a_disc_and_one_more():
    depth = np.zeros((30, 30), np.float32)
    depth[10, 10] = 5
    low, high = depth_window(depth, 2.0)
    assert (low == -1).all()
    away = np.hypot(*np.subtract(np.mgrid[:30, :30], 10))
    # Two pixels along a row or a column, none of the corners of that square.
    assert (high[away <= 2] == 6).all()
    assert (high[away > 2.3] == 1).all()
    assert depth_window(depth, 0.2)[1][10, 11] == 6  # never less than one pixel
