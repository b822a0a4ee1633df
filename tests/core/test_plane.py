import json
import math
from pathlib import Path

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays
from scipy.optimize import linprog

from just_plane.core.errors import OutOfDomainError, UnreachableError
from just_plane.core.plane import (
    TiltSetting,
    carrying_points,
    deviations,
    fit_plane,
    hinge_distance,
    reachable_slope,
    tilt_for_plane,
    tilt_holding_magnification,
    wedge_blur,
)
from just_plane.core.plane.points import spanned

CASES = json.loads((Path(__file__).parents[1] / "data" / "worked_cases.json").read_text())
slopes = st.floats(-0.8, 0.8)
distances = st.floats(300, 1200)
clouds = st.integers(4, 14).flatmap(lambda n: arrays(float, (n, 3), elements=st.floats(-60, 60)))


@pytest.mark.parametrize("case", CASES["tilt"])
def test_worked_tilts(case):
    found = tilt_for_plane(case["focal_length_mm"], case["z0_mm"], case["slope_x"], case["slope_y"])
    assert math.degrees(found.tilt) == pytest.approx(case["tilt_deg"], rel=1e-6)
    assert math.degrees(found.azimuth) == pytest.approx(case["azimuth_deg"], rel=1e-6)
    assert found.image_distance == pytest.approx(case["image_distance_mm"], rel=1e-6)
    assert hinge_distance(case["focal_length_mm"], found.tilt) == pytest.approx(case["hinge_distance_mm"], rel=1e-6)
    assert found.image_distance / case["z0_mm"] == pytest.approx(case["magnification"], rel=1e-6)


@pytest.mark.parametrize("case", CASES["wedge_blur_mm"])
def test_worked_blurs_in_the_wedge(case):
    setting = tilt_for_plane(case["focal_length_mm"], case["z0_mm"], 0.0, case["slope_y"])
    point = (0.0, case["point_y_mm"], case["point_z_mm"])
    blur = wedge_blur(case["focal_length_mm"], case["f_number"], setting, point)
    assert blur == pytest.approx(case["answer"], rel=1e-6)


@pytest.mark.parametrize("case", CASES["fit_plane"])
def test_worked_planes(case):
    found = fit_plane(case["points_mm"])
    assert found == pytest.approx(
        (case["z0_mm"], case["slope_x"], case["slope_y"], case["largest_deviation_mm"]), rel=1e-6
    )
    assert len(carrying_points(case["points_mm"], found)) >= 4


@settings(max_examples=60, deadline=None)
@given(clouds)
def test_no_linear_programme_finds_a_better_plane(cloud):
    cloud = np.round(cloud, 3)  # a micrometre: finer than anyone reads a rail
    assume(np.linalg.svd(cloud[:, :2] - cloud[:, :2].mean(axis=0))[1][-1] > 1)
    n = len(cloud)
    ground = np.column_stack([np.ones(n), cloud[:, :2]])
    ones = np.ones((n, 1))
    best = linprog(
        [0, 0, 0, 1],
        A_ub=np.block([[ground, -ones], [-ground, -ones]]),
        b_ub=np.concatenate([cloud[:, 2], -cloud[:, 2]]),
        bounds=[(None, None)] * 3 + [(0, None)],
    )
    # A tenth of a micrometre: what setting apart costs where points stand together or in one line.
    assert fit_plane(cloud).largest_deviation == pytest.approx(best.fun, abs=1e-4)


@given(distances, slopes, slopes, st.lists(st.tuples(st.floats(-50, 50), st.floats(-50, 50)), min_size=1, max_size=6))
def test_every_point_on_the_solved_plane_is_sharp(z0, sx, sy, places):
    setting = tilt_for_plane(100, z0, sx, sy)
    points = [(x, y, z0 + sx * x + sy * y) for x, y in places]
    assume(min(point[2] for point in points) > 180)
    assert np.abs(wedge_blur(100, 8, setting, points)).max() < 1e-9


@given(distances, slopes, slopes, st.floats(0.01, 6.2))
def test_turning_all_points_turns_the_azimuth_and_nothing_else(z0, sx, sy, turn):
    assume(math.hypot(sx, sy) > 1e-3)
    cos, sin = math.cos(turn), math.sin(turn)
    before = tilt_for_plane(100, z0, sx, sy)
    after = tilt_for_plane(100, z0, cos * sx - sin * sy, sin * sx + cos * sy)
    assert after.tilt == pytest.approx(before.tilt, rel=1e-9)
    assert after.image_distance == pytest.approx(before.image_distance, rel=1e-9)
    assert math.cos(after.azimuth - before.azimuth - turn) == pytest.approx(1, abs=1e-9)


@given(distances, slopes)
def test_with_the_magnification_held_the_tangent_rule_agrees(z0, slope):
    setting = tilt_for_plane(100, z0, 0.0, abs(slope))
    m = setting.image_distance / z0
    assert setting.tilt == pytest.approx(tilt_holding_magnification(abs(slope), m), rel=1e-9, abs=1e-12)


def test_a_square_subject_needs_no_tilt():
    setting = tilt_for_plane(100, 400, 0.0, 0.0)
    assert setting.tilt == 0
    assert setting.image_distance == pytest.approx(1 / (1 / 100 - 1 / 400))
    assert hinge_distance(100, 0.0) == math.inf


def test_an_8_degree_lens_at_life_size_follows_15_7_degrees():
    assert math.degrees(math.atan(reachable_slope(math.radians(8), 1.0))) == pytest.approx(15.7, abs=0.05)


@pytest.mark.parametrize(
    ("points", "code"),
    [
        ([(0, 0, 400), (10, 0, 410)], "points.too_few"),
        ([(0, 0, 400), (10, 10, 410), (20, 20, 430), (5, 5, 401)], "points.in_line"),
        ([(3, 3, 400)] * 4, "points.in_line"),
        ([(0, 0, math.nan), (1, 0, 1), (0, 1, 1)], "points.shape"),
        ([(0, 0), (1, 0), (0, 1)], "points.shape"),
    ],
)
def test_points_that_make_no_plane_are_refused(points, code):
    with pytest.raises(OutOfDomainError) as refusal:
        fit_plane(points)
    assert refusal.value.code == code


def test_points_at_one_depth_are_square():
    assert fit_plane([(0, 0, 400), (30, 0, 400), (0, 30, 400), (30, 30, 400)]) == pytest.approx(
        (400, 0, 0, 0), abs=1e-9
    )


def test_the_steepest_plane_of_all_is_not_refused_for_its_slope():
    """Eighty degrees is given; whether a lens reaches it is asked next."""
    with pytest.raises(UnreachableError) as refusal:
        tilt_for_plane(100, 150, 0.0, math.tan(math.radians(80)))
    assert refusal.value.code == "tilt.none"


@pytest.mark.parametrize(
    ("arguments", "error", "code"),
    [
        ((100, 400, 0.0, 8.0), OutOfDomainError, "slope.too_steep"),
        ((100, 150, 0.0, 3.0), UnreachableError, "tilt.none"),
        ((100, 99, 0.0, 0.1), UnreachableError, "z0.inside_focal_length"),
        ((100, 0, 0.0, 0.1), OutOfDomainError, "z0.not_positive"),
        ((100, 400, math.nan, 0.1), OutOfDomainError, "slope.too_steep"),
    ],
)
def test_planes_out_of_reach_are_refused(arguments, error, code):
    with pytest.raises(error) as refusal:
        tilt_for_plane(*arguments)
    assert refusal.value.code == code


def test_a_point_inside_the_focal_length_is_refused():
    with pytest.raises(OutOfDomainError, match="within a focal length"):
        wedge_blur(100, 8, tilt_for_plane(100, 400, 0.0, 0.2), (0, 0, 90))


def test_a_point_beside_the_lens_is_refused():
    """Far enough aside it lies before the tilted lens, though no distance before the camera."""
    with pytest.raises(OutOfDomainError, match="within a focal length"):
        wedge_blur(100, 8, TiltSetting(0.2, 0.0, 110.0), (-5000, 0, 0))


def test_ghosts_stand_square_to_a_line_wherever_in_the_frame_it_lies():
    points = np.array([(100.0, -10.0, 400.0), (100.0, 0.0, 402.0), (100.0, 10.0, 404.0)])
    spanning, assumed = spanned(points)
    assert assumed
    ghosts = spanning[~np.isclose(spanning[:, 0], 100.0)]
    # To either side by half the line's length, at the depth of their point.
    assert set(np.round(ghosts[:, 0], 9)) == {90.0, 110.0}
    assert ghosts[:, 2] == pytest.approx(402.0 + 0.2 * ghosts[:, 1])


@given(
    st.lists(st.tuples(st.floats(-30, 30), st.floats(-5, 5)), min_size=2, max_size=6, unique_by=lambda p: round(p[0])),
    st.floats(0, math.pi),
)
def test_a_plane_through_a_line_is_square_to_the_camera_across_it(drawn, turn):
    points = np.array([[s * math.cos(turn), s * math.sin(turn), 400 + z] for s, z in drawn])
    spanning, assumed = spanned(points)
    assert assumed
    fit = fit_plane(spanning)
    assert fit.slope_y * math.cos(turn) - fit.slope_x * math.sin(turn) == pytest.approx(0, abs=1e-6)
    if len(points) == 2:
        (s0, z0), (s1, z1) = drawn
        assert fit.slope_x * math.cos(turn) + fit.slope_y * math.sin(turn) == pytest.approx((z1 - z0) / (s1 - s0))
        assert np.abs(deviations(points, fit)).max() < 1e-6


def test_points_that_span_are_left_as_they_are():
    points = np.array([[0.0, 0.0, 400.0], [10.0, 0.0, 410.0], [0.0, 10.0, 405.0]])
    # One point alone lies off the plane through them by what is measured along the axis.
    assert deviations([[10.0, 10.0, 418.0]], fit_plane(points)) == pytest.approx([3.0])
    spanning, assumed = spanned(points)
    assert not assumed
    assert spanning is points or np.array_equal(spanning, points)


def test_a_plane_square_to_the_lens_asks_for_no_tilt_and_faces_nowhere():
    setting = tilt_for_plane(90.0, 400.0, 0.0, 0.0)
    assert (setting.tilt, setting.azimuth) == (0.0, 0.0)
    assert setting.image_distance == pytest.approx(90 * 400 / 310)
