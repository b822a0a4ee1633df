"""Turning square, shift and joined frames, the narrow strip, tilt and stack."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.errors import OutOfDomainError, UnreachableError
from just_plane.core.plane import TiltSetting, fit_plane, tilt_for_plane, wedge_blur
from just_plane.core.plane.ring import lens_axis
from just_plane.core.plane.shifting import (
    circle_displacement,
    circle_radius,
    join,
    largest_shift,
    radius_needed,
    shift_for_offset,
)
from just_plane.core.plane.strip import strip_along, strip_width
from just_plane.core.plane.sweep import sweep_by_rail, sweep_by_ring
from just_plane.core.plane.turning import turn_square, turned_points

slopes = st.floats(-1.5, 1.5)
PLACES = [(-40.0, -25.0), (35.0, -28.0), (0.0, 0.0), (-30.0, 26.0), (42.0, 24.0)]


@given(slopes, slopes)
def test_turned_square_a_plane_has_no_depth(sx, sy):
    points = [(x, y, 420 + sx * x + sy * y) for x, y in PLACES]
    square = turn_square(points, fit_plane(points), 420)
    assert square.depth == pytest.approx(0, abs=1e-6)
    assert math.tan(square.angle) == pytest.approx(math.hypot(sx, sy), abs=1e-9)
    assert square.stretch == pytest.approx(1 / math.cos(square.angle))


@given(slopes, slopes, st.floats(-3, 3))
def test_turning_keeps_every_distance_in_the_subject(azimuth_x, azimuth_y, angle):
    points = np.array([(x, y, 400 + x - 0.2 * y) for x, y in PLACES])
    turned = turned_points(points, math.atan2(azimuth_y, azimuth_x), angle, 420)
    apart = lambda cloud: np.linalg.norm(cloud[:, None] - cloud[None, :], axis=-1)  # noqa: E731
    assert apart(turned) == pytest.approx(apart(points), abs=1e-9)


def test_the_near_edge_stands_wider_by_the_ratio_of_distances():
    points = [(x, y, 400 + y) for x in (-10, 10) for y in (-50, 50)]
    square = turn_square(points, fit_plane(points), 400)
    assert square.keystone == pytest.approx(450 / 350)
    assert square.walk == pytest.approx(2 * 400 * math.sin(math.radians(22.5)))
    assert square.offset == pytest.approx(400 * math.sin(math.radians(45)))


def test_shift_brings_a_point_into_the_middle():
    assert shift_for_offset(0.25, 40) == 10
    assert circle_radius(67, 0.5) == pytest.approx(33.5 * 1.5)


def test_tilt_swings_the_circle_and_shift_adds():
    setting = TiltSetting(math.radians(8), math.pi / 2, 110.0)
    assert circle_displacement(110.0, setting, 5.0, 2.0) == pytest.approx((5.0, 2 + 110 * math.tan(math.radians(8))))
    assert radius_needed(36, 24, (5, -3)) == pytest.approx(math.hypot(23, 15))


@pytest.mark.parametrize(
    ("along_x", "displaced", "left"),
    [
        # A circle of 30 mm about a 36 x 24 frame: sqrt(900 - 144) - 18 mm along, sqrt(900 - 324) - 12 upward.
        (True, (0.0, 0.0), 9.4955),
        (False, (0.0, 0.0), 12.0),
        # Moved along already, it has so much less; moved across, the corner is nearer to its edge.
        (True, (-2.0, 0.0), 7.4955),
        (True, (0.0, 3.0), (900 - 15**2) ** 0.5 - 18),
        (False, (0.0, 3.0), 9.0),
        (False, (-2.0, 0.0), (900 - 20**2) ** 0.5 - 12),
        (True, (0.0, 18.0), 0.0),
        (True, (40.0, 0.0), 0.0),
    ],
)
def test_a_circle_moved_by_tilt_leaves_less_shift(along_x, displaced, left):
    assert largest_shift(36, 24, 30, 99, along_x=along_x, displaced=displaced) == pytest.approx(left, abs=1e-3)
    assert largest_shift(36, 24, 30, 5, along_x=along_x, displaced=displaced) == pytest.approx(min(left, 5), abs=1e-3)


@given(st.floats(20, 60), st.floats(0, 20), st.booleans())
def test_the_largest_shift_just_reaches_the_circle_or_the_stop(radius, limit, along_x):
    shift = largest_shift(36, 24, radius, limit, along_x=along_x)
    assert 0 <= shift <= limit
    if shift:
        needed = radius_needed(36, 24, (shift, 0) if along_x else (0, shift))
        assert needed <= radius + 1e-9
        if shift < limit:
            assert needed == pytest.approx(radius)


@given(st.floats(10, 60), st.floats(0, 0.8), st.floats(36, 100))
def test_joined_frames_reach_from_end_to_end_without_a_gap(limit, overlap, wanted):
    try:
        joined = join(36, 24, wanted, overlap, limit)
    except UnreachableError:
        assert (wanted - 36) / 2 > limit
        return
    assert joined.shifts[-1] - joined.shifts[0] == pytest.approx(wanted - 36)
    assert joined.overlap >= overlap - 1e-9
    assert joined.frames == len(joined.shifts)
    assert all(
        right - left <= 36 * (1 - overlap) + 1e-9 for left, right in zip(joined.shifts, joined.shifts[1:], strict=False)
    )


def test_two_frames_at_twelve_to_each_side():
    joined = join(36, 24, 60, 0.3, 12)
    assert (joined.frames, joined.shifts, joined.length) == (2, (-12, 12), 60)
    assert joined.overlap == pytest.approx(1 / 3)
    assert joined.radius == pytest.approx(math.hypot(30, 12))
    with pytest.raises(UnreachableError, match="to each side"):
        join(36, 24, 61, 0.3, 12)
    assert join(36, 24, 30, 0.3, 12).frames == 1


LINE = np.array([(-20.0, 5.0, 424.0), (25.0, -4.0, 431.0)])


@pytest.mark.parametrize("degrees", [2.0, 5.0, 10.0])
def test_the_strip_keeps_its_line_sharp_and_leans_against_the_subject(degrees):
    setting = strip_along(90, LINE, math.radians(degrees), (0.05, 0.4))
    middle = LINE.mean(axis=0)
    assert wedge_blur(90, 2.8, setting, [*LINE, middle]) == pytest.approx(0, abs=1e-9)
    assert math.sin(setting.azimuth) < 0  # the subject recedes upward, the plane downward
    assert setting.tilt == math.radians(degrees)


@pytest.mark.parametrize("steep", [0.2, 0.4, 1.0])
def test_of_a_level_line_the_strip_leans_up_or_down_as_the_subject_asks(steep):
    """Square to the axis at one distance: the tilts that hold it lie exactly up and down."""
    line = [(-20.0, 0.0, 424.0), (25.0, 0.0, 424.0)]
    up, down = (strip_along(90, line, math.radians(4), (0.0, sign * steep)) for sign in (1, -1))
    assert (math.cos(up.azimuth), math.sin(up.azimuth)) == pytest.approx((0, -1), abs=1e-12)
    assert (math.cos(down.azimuth), math.sin(down.azimuth)) == pytest.approx((0, 1), abs=1e-12)


def test_more_tilt_makes_a_narrower_strip_and_its_edge_blurs_as_allowed():
    widths, surface, line = [], (0.0, 0.4), np.array([(-20.0, 0, 424), (20, 0, 424)])
    for degrees in (1, 4, 8):
        setting = strip_along(90, line, math.radians(degrees), surface)
        widths.append(strip_width(90, 2.8, setting, 0.03, line, surface))
    assert widths == sorted(widths, reverse=True)
    blurs = [wedge_blur(90, 2.8, setting, (0, y, 424 + 0.4 * y)) for y in np.linspace(-widths[-1], widths[-1], 4001)]
    sharp = np.array(blurs) <= 0.03
    assert sharp.mean() * 2 * widths[-1] == pytest.approx(widths[-1], rel=0.01)


def test_a_line_that_runs_away_too_steeply_is_refused():
    with pytest.raises(UnreachableError) as refused:
        strip_along(90, [(0, 0, 300), (1, 0, 600)], math.radians(2), (0, 0))
    assert refused.value.code == "strip.line_too_steep"
    with pytest.raises(OutOfDomainError):
        strip_along(90, [(1, 1, 300), (1, 1, 300)], math.radians(2), (0, 0))


POINTS = np.array(
    [(x, y, 420 + 0.2 * x + 0.3 * y + off) for (x, y), off in zip(PLACES, (0, 3, -4, 2, -1), strict=True)]
)
SETTING = tilt_for_plane(90, *fit_plane(POINTS)[:3])


@pytest.mark.parametrize("overlap", [0.0, 0.5])
@pytest.mark.parametrize("sweep", [sweep_by_rail, sweep_by_ring])
def test_every_depth_between_the_points_is_sharp_in_some_frame(sweep, overlap):
    frames = sweep(90, 8, SETTING, 0.02, POINTS, overlap)
    assert frames.best.max() <= 0.02 * (1 + 1e-6)
    assert len(frames.places) > 2
    coarser = sweep(90, 8, SETTING, 0.04, POINTS, overlap)
    assert len(coarser.places) < len(frames.places)


def test_by_rail_the_plane_moves_along_and_by_ring_the_lens_does():
    by_rail = sweep_by_rail(90, 8, SETTING, 0.02, POINTS, 0.3)
    for place, blurs in zip(by_rail.places, by_rail.blurs, strict=True):
        assert blurs == pytest.approx(wedge_blur(90, 8, SETTING, POINTS - [0, 0, place]))
    by_ring = sweep_by_ring(90, 8, SETTING, 0.02, POINTS, 0.3)
    for place, blurs in zip(by_ring.places, by_ring.blurs, strict=True):
        # Seen from where the lens has gone, with so much more behind it.
        out = place - SETTING.image_distance
        axis = lens_axis(SETTING)
        there = SETTING._replace(image_distance=SETTING.image_distance + out * math.cos(SETTING.tilt))
        assert blurs == pytest.approx(wedge_blur(90, 8, there, POINTS - out * axis))


def test_points_in_the_plane_need_one_frame():
    flat = np.array([(x, y, 420 + 0.2 * x + 0.3 * y) for x, y in PLACES])
    setting = tilt_for_plane(90, 420, 0.2, 0.3)
    assert len(sweep_by_ring(90, 8, setting, 0.02, flat, 0.3).places) == 1
    assert sweep_by_rail(90, 8, setting, 0.02, flat, 0.3).best.max() == pytest.approx(0, abs=1e-9)


def test_nothing_allowed_to_blur_is_refused():
    with pytest.raises(OutOfDomainError):
        sweep_by_ring(90, 8, SETTING, 0.0, POINTS, 0.3)
    with pytest.raises(OutOfDomainError) as refused:
        sweep_by_ring(90, 8, SETTING, 1e-7, POINTS, 0.3)
    assert refused.value.code == "sweep.too_many"
