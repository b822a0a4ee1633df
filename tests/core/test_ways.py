import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.core.contrast import contrast
from just_plane.core.defocus import View
from just_plane.core.depth import allowed_blur
from just_plane.core.errors import OutOfDomainError
from just_plane.core.ranking import NEVER, merit, ranked
from just_plane.core.stack import rail_stack
from just_plane.core.ways import Band, FramesView, Pace, Single, Way, one_frame, one_frames, stacked

PACE = Pace(settle=2.0, recovery=0.5)


def view(depth=4.0, m=0.5, pupil=300.0, c=0.02):
    return View(m, pupil, c, depth)


@given(st.floats(0.05, 40), st.floats(2, 30), st.floats(0.2, 2))
def test_cover_is_the_measured_share_of_sharp_points(depth, ne, m):
    scene = view(depth, m)
    way = one_frame(scene, Single(ne, ne, allowed_blur("contrast", 0.02, ne), 0.5), PACE)
    points = np.linspace(0, depth, 4001)
    sharp = scene.contrast_at(points - way.focuses[0], ne) >= 0.2
    assert way.cover == pytest.approx(sharp.mean(), abs=2e-3)


def test_blur_at_the_band_edge_is_the_blur_allowed():
    scene = view()
    way = one_frame(scene, Single(8.0, 12.0, 0.02, 0.5, focus=1.0), PACE)
    near, far = way.bands[0]
    assert scene.blur_at(near - 1.0, 12.0) == pytest.approx(0.02, rel=1e-12)
    assert scene.blur_at(far - 1.0, 12.0) == pytest.approx(0.02, rel=1e-12)


def test_focus_placed_by_hand_moves_the_band_and_the_worst_point():
    scene = view()
    best = one_frame(scene, Single(8.0, 12.0, 0.02, 0.5), PACE)
    front = one_frame(scene, Single(8.0, 12.0, 0.02, 0.5, focus=0.0), PACE)
    assert front.worst_contrast < best.worst_contrast
    assert front.bands[0].near < 0 < front.bands[0].far
    assert front.worst_at > best.focuses[0]


@given(st.floats(0.1, 30), st.floats(0, 1), st.floats(3, 30))
def test_worst_contrast_is_the_lowest_of_many_points(depth, share, ne):
    scene = view(depth)
    way = one_frame(scene, Single(ne, ne, 0.02, 0.5, focus=share * depth), PACE)
    points = np.linspace(0, depth, 2001)
    contrasts = scene.contrast_at(points - share * depth, ne)
    assert way.worst_contrast == pytest.approx(contrasts.min(), abs=0.004)
    assert scene.contrast_at(way.worst_at - share * depth, ne) == pytest.approx(way.worst_contrast, abs=1e-6)


def test_frames_worked_out_together_agree_with_each_alone():
    scene = view(9.0)
    singles = [Single(4, 6, 0.02, 0.1), Single(8, 12, 0.015, 0.4, focus=1.0), Single(22, 33, 0.0, 3.0)]
    assert one_frames(scene, singles, PACE) == [one_frame(scene, single, PACE) for single in singles]


def test_a_focus_that_puts_the_subject_behind_the_lens_is_refused():
    with pytest.raises(OutOfDomainError, match="behind the lens"):
        one_frame(view(9.0), Single(8, 12, 0.02, 0.5, focus=301.0), PACE)


def test_a_flat_subject_is_covered_by_any_frame_with_depth():
    assert one_frame(view(0.0), Single(4, 6, 0.02, 0.5), PACE).cover == 1
    assert one_frame(view(0.0), Single(4, 6, 0.0, 0.5), PACE).cover == 0


@given(st.floats(0.5, 40), st.floats(0, 0.7))
def test_a_planned_stack_covers_everything(depth, overlap):
    scene = view(depth)
    blur = allowed_blur("contrast", 0.02, 8.0)
    dof = 2 * blur * 8.0 / 0.25
    plan = rail_stack(depth, dof * 0.999, overlap)  # the exact near limit is a little shorter than half the total
    way = stacked(scene, "rail", 5.6, FramesView(0.5, 300.0, 8.0, blur), plan, 0.5, PACE)
    assert way.cover > 0.995
    assert way.frames == plan.frames
    assert way.time == pytest.approx(plan.frames * 3.0)


def test_worst_contrast_of_a_stack_is_half_way_between_frames():
    scene = view()
    plan = rail_stack(4.0, 0.8, 0.5)
    way = stacked(scene, "rail", 5.6, FramesView(0.5, 300.0, 8.4, 0.02), plan, 0.5, PACE)
    assert way.worst_contrast == pytest.approx(contrast(50.0, 8.4, 0.25 / 8.4 * 0.2))


@settings(max_examples=60)
@given(
    st.floats(0.2, 12),
    st.floats(0.1, 0.7),
    st.integers(0, 3),
    st.floats(0.3, 2.0),
    st.floats(60, 400),
    st.booleans(),
)
def test_worst_contrast_of_a_stack_is_the_lowest_of_many_points(depth, overlap, spare, m, pupil, by_ring):
    """Each of many points of the subject in the frame that blurs it least; the last step may end far past it."""
    ne, circle = 8.0 * (1 + m), 0.03
    scene = View(m, pupil, circle, depth)
    blur = allowed_blur("contrast", circle, ne)
    if blur == 0:
        return
    plan = rail_stack(depth, 2 * blur * ne / m**2, overlap, spare_before=spare, spare_after=spare)
    count = len(plan.positions)
    if by_ring:
        sizes = m * np.linspace(1.0, 0.93, count)
        frames = FramesView(sizes, np.linspace(pupil, pupil * 1.05, count), 8.0 * (1 + sizes), np.full(count, blur))
    else:
        frames = FramesView(m, pupil, ne, blur)
    way = stacked(scene, "ring" if by_ring else "rail", 8.0, frames, plan, 0.5, PACE)
    points = np.linspace(0, depth, 1201)
    blurs, contrasts = [], []
    for index, place in enumerate(plan.positions):
        one = View(float(np.broadcast_to(frames.magnification, count)[index]),
                   float(np.broadcast_to(frames.pupil_distance, count)[index]), circle, depth)  # fmt: skip
        works_as = float(np.broadcast_to(frames.effective_f_number, count)[index])
        blurs.append(one.blur_at(points - place, works_as))
        contrasts.append(one.contrast_at(points - place, works_as))
    best = np.argmin(blurs, axis=0)
    seen = np.array(contrasts)[best, np.arange(len(points))]
    assert way.worst_contrast == pytest.approx(seen.min(), abs=0.01)
    assert seen[int(np.argmin(np.abs(points - way.worst_at)))] == pytest.approx(way.worst_contrast, abs=0.02)
    assert 0 <= way.worst_at <= depth


def test_a_stack_is_held_still_for_from_its_first_exposure_to_its_last():
    """Settle 2 s, exposure 0.5 s, recovery 0.5 s: 3 s from one exposure to the next, and the last one itself."""
    plan = rail_stack(4.0, 0.8, 0.5)
    frames = FramesView(0.5, 300.0, 8.4, 0.02)
    way = stacked(view(), "rail", 5.6, frames, plan, 0.5, PACE)
    assert way.hold == pytest.approx(3.0 * (plan.frames - 1) + 0.5)
    # What a frame blurs at its own edge is no time: the same at any pace.
    slow = stacked(view(), "rail", 5.6, frames, plan, 0.5, Pace(settle=20.0, recovery=0.5))
    assert (slow.hold, slow.edge_blur) == (pytest.approx(21.0 * (plan.frames - 1) + 0.5), way.edge_blur)


def test_frames_that_differ_hold_what_each_would_alone():
    """Sizes 0.5 and 0.45, works as f/12 and f/11.6, pupil 300 and 310 mm: limits by similar triangles at the pupil."""
    plan = rail_stack(1.4, 2.0, 0.3)
    assert plan.positions == pytest.approx([0.0, 1.4])
    sizes, pupils, works_as = np.array([0.5, 0.45]), np.array([300.0, 310.0]), np.array([12.0, 11.6])
    way = stacked(view(), "ring", 8.0, FramesView(sizes, pupils, works_as, np.full(2, 0.02)), plan, 0.5, PACE)
    for band, place, m, pupil, ne in zip(way.bands, plan.positions, sizes, pupils, works_as, strict=True):
        # A point t behind the plane blurs by m^2 p t / (ne (p + t)); one t before it by the same with p - t.
        far, near = band.far - place, place - band.near
        assert m**2 * pupil * far / (ne * (pupil + far)) == pytest.approx(0.02)
        assert m**2 * pupil * near / (ne * (pupil - near)) == pytest.approx(0.02)


def test_a_frame_that_is_sharp_to_infinity_says_so_and_the_one_beside_it_how_far():
    """Far off, a point blurs by m^2 p / ne: 0.0125 mm in the first frame, less than allowed, 0.05 in the second."""
    plan = rail_stack(1.4, 2.0, 0.3)
    sizes, pupils, works_as = np.array([0.01, 0.02]), np.array([1000.0, 1000.0]), np.array([8.0, 8.0])
    way = stacked(view(), "ring", 8.0, FramesView(sizes, pupils, works_as, np.full(2, 0.02)), plan, 0.5, PACE)
    assert math.isinf(way.bands[0].far)
    assert 0.0004 * 1000 * (way.bands[1].far - 1.4) / (8 * (1000 + way.bands[1].far - 1.4)) == pytest.approx(0.02)


def test_of_ways_alike_in_all_else_the_one_with_more_contrast_is_better_and_then_the_quicker():
    one = Way("rail", 8.0, 12.0, (0.0, 1.0), (Band(0.0, 2.0),), 1.0, 0.5, 0.0, 6.0)
    merits = [
        merit(way, 0.2)
        for way in (
            one,
            replace(one, worst_contrast=0.52, time=9.0),
        )
    ]
    assert ranked(merits) == [1, 0]
    # What nobody sees (half a thousandth) does not count before the time.
    hardly = [merit(way, 0.2) for way in (one, replace(one, worst_contrast=0.5004, time=9.0))]
    assert ranked(hardly) == [0, 1]


def test_a_stack_that_ends_far_past_a_thin_subject_is_judged_by_the_subject():
    """0.2 mm deep, step 1.1 mm: no point lies more than 0.2 mm off the first frame."""
    scene = View(0.5, 300.0, 0.02, 0.2)
    plan = rail_stack(0.2, 2.2, 0.5)
    way = stacked(scene, "rail", 5.6, FramesView(0.5, 300.0, 8.4, 0.02), plan, 0.5, PACE)
    assert way.worst_contrast == pytest.approx(float(scene.contrast_at(0.2, 8.4)), abs=1e-9)
    assert way.worst_at == pytest.approx(0.2)


def test_contrast_ahead_of_focus_is_the_contrast_of_its_blur():
    scene = view()
    assert scene.contrast_at(-1.0, 12.0) == pytest.approx(contrast(50.0, 12.0, 0.25 / 12 * 300 / 299))


def make(cover, frames, worst, time):
    return Way("x", 8.0, 12.0, (0.0,) * frames, (Band(0, 1),), cover, worst, 0.0, time)


@pytest.mark.parametrize(
    ("ways", "excesses", "choice"),
    [
        ([make(0.3, 1, 0.0, 1), make(1.0, 12, 0.5, 40)], (1, 1), 1),  # everything beats something
        ([make(1.0, 1, 0.3, 1), make(1.0, 12, 0.5, 40)], (1, 1), 0),  # one frame that passes beats many
        ([make(1.0, 1, 0.1, 1), make(1.0, 12, 0.5, 40)], (1, 1), 1),  # but not below the threshold
        ([make(1.0, 30, 0.5, 90), make(1.0, 12, 0.5, 40)], (1.5, 0.7), 1),  # in the time there is
        ([make(0.3, 1, 0.0, 1), make(0.6, 1, 0.0, 1)], (1, 1), 1),  # else the most cover
        ([make(0.3, 1, 0.0, 1), make(1.0, 12, 0.5, 40)], (1, NEVER), 0),  # what cannot be done is never first
        ([make(0.3, 1, 0.0, 1), make(1.0, 12, 0.5, 33)], (1, 11), 0),  # nor 33 s of a subject that holds 3
        ([make(0.3, 1, 0.0, 1), make(1.0, 12, 0.5, 40)], (1, 1.2), 1),  # a fifth too long may be tried
        ([make(0.3, 1, 0.0, 1), make(1.0, 12, 0.5, 40)], (10, 40), 0),  # of the impossible what is nearest to it
    ],
)
def test_the_choice_follows_what_matters(ways, excesses, choice):
    merits = [merit(way, 0.2, excess) for way, excess in zip(ways, excesses, strict=True)]
    assert ranked(merits)[0] == choice


def test_an_endless_far_limit_covers_to_the_end():
    scene = View(0.004, 12000.0, 0.02, 3000.0)
    way = one_frame(scene, Single(16, 16, 0.02, 0.5, focus=1000), PACE)
    assert math.isinf(way.bands[0].far)
    assert way.cover == 1
