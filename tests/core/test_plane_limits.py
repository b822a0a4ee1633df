"""The wedge's faces, the best a limited lens can do, and how sure a plane is."""

import math

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from just_plane.core.errors import OutOfDomainError, UnreachableError
from just_plane.core.plane import (
    PlaneFit,
    TiltSetting,
    deviation_uncertainty,
    deviations,
    fit_on_clicks,
    fit_plane,
    fit_uncertainty,
    fit_within,
    held_deviation_uncertainty,
    hinge_distance,
    plane_of_setting,
    tilt_for_plane,
    wedge_blur,
    wedge_faces,
)

slopes = st.floats(-0.8, 0.8)
distances = st.floats(300, 1200)


@given(distances, slopes, slopes)
def test_the_plane_of_a_setting_is_the_plane_it_was_made_for(z0, sx, sy):
    setting = tilt_for_plane(90, z0, sx, sy)
    assert plane_of_setting(90, setting) == pytest.approx((z0, sx, sy), rel=1e-9, abs=1e-9)


def test_a_focus_past_infinity_has_no_plane():
    with pytest.raises(UnreachableError) as refused:
        plane_of_setting(90, TiltSetting(0.1, 0.0, 89.0))
    assert refused.value.code == "image_distance.beyond_infinity"


@given(distances, slopes, slopes, st.floats(2.8, 32), st.floats(0.005, 0.05))
def test_the_faces_of_the_wedge_meet_in_the_hinge_line(z0, sx, sy, f_number, blur):
    assume(math.hypot(sx, sy) > 0.02)
    setting = tilt_for_plane(90, z0, sx, sy)
    hinge = -hinge_distance(90, setting.tilt)
    for face in wedge_faces(90, f_number, setting, blur):
        if math.isfinite(face.z0):
            assert face.at(hinge) == pytest.approx(0, abs=1e-6 * z0)


@given(distances, slopes, slopes, st.floats(-60, 60), st.floats(-60, 60), st.floats(2.8, 22))
def test_a_point_on_a_face_blurs_by_just_what_is_allowed(z0, sx, sy, x, y, f_number):
    setting, blur = tilt_for_plane(90, z0, sx, sy), 0.03
    across = x * math.cos(setting.azimuth) + y * math.sin(setting.azimuth)
    for face in wedge_faces(90, f_number, setting, blur):
        z = face.at(across)
        assume(math.isfinite(z) and 180 < z < 1e5)
        assume(z * math.cos(setting.tilt) - across * math.sin(setting.tilt) > 95)
        assert wedge_blur(90, f_number, setting, (x, y, z)) == pytest.approx(blur, rel=1e-7)


def test_without_tilt_the_faces_are_the_near_and_far_limits():
    # Symmetrical thin lens: near and far from the pupil, c u/(m D + c) and c u/(m D - c).
    f, n, m, c = 100.0, 8.0, 0.5, 0.03
    u, pupil = f * (1 + 1 / m), f / n
    near, far = wedge_faces(f, n, TiltSetting(0.0, 0.0, f * (1 + m)), c)
    assert u - near.at(0) == pytest.approx(c * u / (m * pupil + c))
    assert far.at(0) - u == pytest.approx(c * u / (m * pupil - c))
    assert near.slope == far.slope == 0


def test_a_far_face_past_infinity_is_endless():
    _, far = wedge_faces(50, 22, TiltSetting(math.radians(3), 0.0, 50.2), 0.05)
    assert far.at(10) == math.inf


cloud = st.lists(st.tuples(st.floats(-50, 50), st.floats(-50, 50), st.floats(380, 480)), min_size=5, max_size=9)


@settings(max_examples=40, deadline=None)
@given(cloud, st.floats(0, 0.6))
def test_no_plane_within_the_limit_is_better(points, steepest):
    points = np.round(points, 2)
    assume(np.linalg.svd(points[:, :2] - points[:, :2].mean(axis=0))[1][-1] > 5)
    found = fit_within(points, steepest)
    assert math.hypot(found.slope_x, found.slope_y) <= steepest + 1e-9
    rng = np.random.default_rng(0)
    angle, size = rng.uniform(0, 2 * np.pi, 400), steepest * np.sqrt(rng.uniform(0, 1, 400))
    off = points[:, 2] - np.outer(size * np.cos(angle), points[:, 0]) - np.outer(size * np.sin(angle), points[:, 1])
    assert found.largest_deviation <= np.ptp(off, axis=1).min() / 2 + 1e-6


def test_enough_room_gives_the_free_plane():
    points = [(0, 0, 400), (40, 0, 410), (0, 30, 404), (20, 20, 409)]
    assert fit_within(points, 1.0) == pytest.approx(fit_plane(points))


@pytest.mark.parametrize("degrees", [30.25, -71.25, 134.2])
def test_too_steep_a_plane_is_followed_along_its_own_direction(degrees):
    """Of a square that stands across and along it, what is left over is the rest of the slope along it."""
    ahead = np.array([math.cos(math.radians(degrees)), math.sin(math.radians(degrees))])
    aside = np.array([-ahead[1], ahead[0]])
    corners = [20 * i * ahead + 20 * j * aside for i in (-1, 1) for j in (-1, 1)]
    found = fit_within([(*corner, 400 + 2.0 * (corner @ ahead)) for corner in corners], 0.5)
    assert (found.slope_x, found.slope_y) == pytest.approx(tuple(0.5 * ahead), abs=1e-6)
    assert found.largest_deviation == pytest.approx(1.5 * 20)


def test_a_mechanism_that_does_not_turn_follows_its_own_direction_only():
    points = [(x, y, 400 + 0.3 * x + 0.2 * y) for x in (-20, 20) for y in (-20, 20)]
    found = fit_within(points, 1.0, azimuth=math.pi / 2)
    assert (found.slope_x, found.slope_y) == pytest.approx((0, 0.2), abs=1e-6)
    assert found.largest_deviation == pytest.approx(0.3 * 20)


@settings(max_examples=40, deadline=None)
@given(cloud, st.floats(0.05, 2), st.sampled_from([15, 30, 40, 45, 65, 90, 130]))
def test_no_other_click_is_better(points, steepest, degrees):
    points = np.round(points, 2)
    assume(np.linalg.svd(points[:, :2] - points[:, :2].mean(axis=0))[1][-1] > 5)
    apart = math.radians(degrees)
    found = fit_on_clicks(points, steepest, apart)
    clicks = range(-(90 // degrees), 90 // degrees + 1)
    every = [fit_within(points, steepest, math.pi / 2 + k * apart) for k in clicks]
    assert found.largest_deviation <= min(each.largest_deviation for each in every) + 1e-6
    turned = math.degrees(math.atan2(found.slope_y, found.slope_x)) - 90
    off = min(abs((turned - k * degrees + 90) % 180 - 90) for k in clicks)
    assert off < 1e-4 or math.hypot(found.slope_x, found.slope_y) < 1e-6


def test_a_plane_that_recedes_along_a_click_is_met_there():
    points = [(x, y, 400 + 0.3 * x * math.sqrt(3) + 0.3 * y) for x in (-20, 20) for y in (-20, 20)]
    assert fit_on_clicks(points, 1.0, math.radians(30)) == pytest.approx(fit_plane(points), abs=1e-6)


@pytest.mark.parametrize("apart", [0, -0.1, math.radians(0.09), 1e-9, 4, math.nan])
def test_clicks_that_cannot_be_are_refused(apart):
    with pytest.raises(OutOfDomainError, match=r"Clicks lie 0\.1 to 180"):
        fit_on_clicks([(0, 0, 400), (1, 0, 400), (0, 1, 400)], 1.0, apart)


def test_three_points_pass_their_errors_on_as_they_should():
    # A plane over an equal-sided arrangement: slope_y = (z3 - (z1 + z2)/2)/h.
    points, errors = np.array([(-10.0, 0, 400), (10, 0, 400), (0, 20, 410)]), np.array([0.1, 0.1, 0.2])
    spread = fit_uncertainty(points, fit_plane(points), errors)
    assert math.sqrt(spread[2, 2]) == pytest.approx(math.hypot(0.2, math.hypot(0.05, 0.05)) / 20)
    assert math.sqrt(spread[1, 1]) == pytest.approx(math.hypot(0.1, 0.1) / 20)


def test_uncertainty_agrees_with_many_tries():
    rng = np.random.default_rng(7)
    points = np.array([(-30, -20, 401), (30, -20, 398), (-30, 20, 430), (30, 20, 424), (0, 0, 413.0)])
    errors = np.full(5, 0.05)
    tried = [
        fit_plane(points + np.outer(rng.standard_normal(5) * 0.05, [0, 0, 1.0]).reshape(5, 3))[1:3] for _ in range(400)
    ]
    found = fit_uncertainty(points, fit_plane(points), errors)
    assert np.sqrt(np.diag(found)[1:]) == pytest.approx(np.std(tried, axis=0), rel=0.15)


def tried(points, errors, measure, times=3000):
    """Standard deviation of ``measure(points)`` when depths err as they may."""
    rng = np.random.default_rng(11)
    off = rng.standard_normal((times, len(points))) * errors
    return np.std([measure(points + np.column_stack([np.zeros((len(points), 2)), each])) for each in off], axis=0)


def test_how_sure_each_deviation_is_agrees_with_many_tries():
    # One point far off the plane of the others, so that the same four carry the limit at every try.
    points = np.array([(-30, -20, 400), (30, -20, 404.0), (-30, 20, 424), (30, 20, 420), (5, 3, 412)])
    errors = np.array([0.02, 0.05, 0.03, 0.08, 0.1])
    found = deviation_uncertainty(points, fit_plane(points), errors)
    many = tried(points, errors, lambda moved: deviations(moved, fit_plane(moved)))
    assert found == pytest.approx(many, rel=0.06)
    # The middle point carries nothing: all of its own error shows, and some of the others'.
    assert found[4] > errors[4]


def test_three_points_are_on_their_plane_whatever_was_read():
    points = np.array([(-30.0, -20, 400), (30, -20, 404), (0, 20, 424)])
    assert deviation_uncertainty(points, fit_plane(points), np.full(3, 0.5)) == pytest.approx(0, abs=1e-9)


def test_with_slopes_held_only_the_distance_follows():
    points = np.array([(-30.0, -20, 400), (30, -20, 406), (-30, 20, 425), (30, 20, 419), (5, 3, 412)])
    errors = np.array([0.02, 0.05, 0.03, 0.08, 0.1])

    def held(moved):
        off = moved[:, 2] - 0.3 * moved[:, 1]
        return off - (off.max() + off.min()) / 2

    middle = float(np.ptp(points[:, 2] - 0.3 * points[:, 1])) / 2 + float((points[:, 2] - 0.3 * points[:, 1]).min())
    fit = PlaneFit(middle, 0.0, 0.3, float(np.abs(held(points)).max()))
    assert held_deviation_uncertainty(points, fit, errors) == pytest.approx(tried(points, errors, held), rel=0.06)


@pytest.mark.parametrize("bad", [-0.1, math.nan, math.inf])
def test_a_limit_that_means_nothing_is_refused(bad):
    with pytest.raises(OutOfDomainError):
        fit_within([(0, 0, 400), (1, 0, 400), (0, 1, 400)], bad)
