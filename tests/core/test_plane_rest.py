"""Tilt and turn solved together, against rays: after the turn and the tilt, every point of the plane is sharp."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from tests.core.still_camera import StillCamera

from just_plane.core.plane import fit_plane
from just_plane.core.plane.rest import least_turn, rolled
from just_plane.core.plane.tilting_lens import ACROSS, UP, TiltingLens, lay_plane

F, M = 90.0, 0.4
XY = np.array([(-30.0, -18.0), (28.0, -20.0), (2.0, 3.0), (-26.0, 21.0), (30.0, 19.0)])


def lens(limit_deg=6.0, rest=UP, *, turns=False, click=None):
    return TiltingLens(F, F * (1 + 1 / M), M, 1.0, math.radians(limit_deg), rest, turns, click, None)


def plane_points(angle_deg, azimuth):
    slope = math.tan(math.radians(angle_deg))
    return np.column_stack([XY, F * (1 + 1 / M) + slope * (XY @ [math.cos(azimuth), math.sin(azimuth)])])


def moved(points, toward, angle):
    """The camera on an arc round the middle of the subject, as a rotation matrix by hand: about the axis in the frame
    across ``toward``."""
    axis = np.array([-math.sin(toward), math.cos(toward), 0.0])
    cross = np.array([[0, -axis[2], axis[1]], [axis[2], 0, -axis[0]], [-axis[1], axis[0], 0]])
    spin = np.eye(3) + math.sin(angle) * cross + (1 - math.cos(angle)) * cross @ cross
    middle = np.array([0, 0, F * (1 + 1 / M)])
    return (points - middle) @ spin.T + middle


MECHANISMS = [
    lens(),
    lens(rest=ACROSS),
    lens(limit_deg=3.0),
    lens(turns=True),
    lens(turns=True, click=math.radians(30)),
    lens(turns=True, click=math.radians(90)),
]


@pytest.mark.parametrize("mechanism", MECHANISMS)
@settings(max_examples=30, deadline=None)
@given(st.floats(5, 50), st.floats(-math.pi, math.pi))
def test_after_turn_and_tilt_rays_meet_on_the_sensor(mechanism, angle_deg, azimuth):
    points = plane_points(angle_deg, azimuth)
    laid = lay_plane(mechanism, points)
    assume(laid.limited)
    turn = least_turn(mechanism, points, laid.wanted)
    setting = turn.laid.setting
    assert setting.tilt <= mechanism.limit * (1 + 1e-9)
    camera = StillCamera(F, setting.image_distance)
    camera.set(*setting[:2])
    for point in moved(points, turn.toward, turn.angle):
        assert camera.blur(point, 0.0, 4.0) < 2e-3
    # The mechanism leans only along where it can.
    if not mechanism.turns:
        assert abs(math.sin(setting.azimuth - mechanism.rest)) * math.sin(setting.tilt) < 1e-4


@settings(max_examples=25, deadline=None)
@given(st.floats(10, 45), st.floats(-math.pi, math.pi))
def test_no_smaller_turn_would_do(angle_deg, azimuth):
    """Brute force: every turn to any side by 4 % less leaves more off the plane."""
    points = plane_points(angle_deg, azimuth)
    for mechanism in (lens(), lens(turns=True)):
        laid = lay_plane(mechanism, points)
        if not laid.limited:
            continue
        turn = least_turn(mechanism, points, laid.wanted)
        if turn.angle < math.radians(1):
            continue
        for toward in np.linspace(-math.pi, math.pi, 73):
            less = lay_plane(mechanism, moved(points, toward, turn.angle * 0.96))
            assert less.setting is None or less.fit.largest_deviation > 1e-3


@pytest.mark.parametrize("scale_behind", [0.8, 1.3])
def test_rolled_by_a_quarter_turn_is_a_mechanism_at_rest_the_other_way(scale_behind):
    upright, points = replace(lens(), scale_behind=scale_behind), plane_points(20, 0.4)
    one, other = rolled(upright, points), lay_plane(replace(upright, rest=ACROSS), points)
    assert (one.fit.slope_x, one.fit.slope_y, one.fit.z0) == pytest.approx(
        (other.fit.slope_x, other.fit.slope_y, other.fit.z0), rel=1e-9
    )
    assert one.setting == other.setting


def test_a_mechanism_that_turns_needs_only_the_angle_beyond_its_reach():
    # 40 degrees; sin 6 z0 / f = 0.366: it follows 20.1 degrees at this distance.
    turn = least_turn(lens(turns=True), plane_points(40, math.pi / 2), fit_plane(plane_points(40, math.pi / 2)))
    assert math.degrees(turn.angle) == pytest.approx(40 - math.degrees(math.atan(math.sin(math.radians(6)) * 3.5)))
    assert turn.toward == pytest.approx(math.pi / 2)


def test_a_plane_receding_sideways_under_an_upright_mechanism():
    """15 degrees to the side: the camera goes 15 degrees to that side; or on its side no turn is needed."""
    points = plane_points(15, 0.0)
    laid = lay_plane(lens(), points)
    turn = least_turn(lens(), points, laid.wanted)
    assert math.degrees(turn.angle) == pytest.approx(15, abs=1e-6)
    assert turn.toward == pytest.approx(0, abs=1e-6)
    assert rolled(lens(), points).fit.largest_deviation == pytest.approx(0, abs=1e-6)
    assert rolled(replace(lens(), rest=ACROSS), points).fit.largest_deviation > 1


@pytest.mark.parametrize("angle_deg", [5, 40])
def test_a_lens_that_does_not_tilt_is_at_its_limit_whatever_the_plane(angle_deg):
    laid = lay_plane(lens(limit_deg=0.0), plane_points(angle_deg, math.pi / 2))
    assert laid.limited
    assert laid.setting is None
    assert laid.fit == laid.wanted


def test_of_a_plane_off_its_axis_a_mechanism_lays_the_part_along_it_to_either_side():
    for side in (1, -1):
        points = plane_points(15, side * math.radians(60))
        laid, along = lay_plane(lens(), points), math.tan(math.radians(15)) * math.sin(math.radians(60))
        assert laid.limited
        # Down or up by the part of the slope that runs that way; what runs across stays where it is.
        assert laid.fit.slope_y == pytest.approx(side * along, rel=0.05)
        assert laid.fit.slope_x == pytest.approx(0, abs=1e-6)


@pytest.mark.parametrize(
    ("magnification", "behind", "effective", "f_number"),
    # Alone at half size f/8 works as f/12; a 2x converter doubles that again; at infinity a lens is what it is.
    [(0.5, 1.0, 12.0, 8.0), (0.5, 2.0, 24.0, 8.0), (0.0, 1.0, 5.6, 5.6), (1.0, 1.4, 28.0, 10.0)],
)
def test_the_f_number_of_a_tilting_lens_is_what_its_own_size_and_a_converter_leave(
    magnification, behind, effective, f_number
):
    lens = TiltingLens(90.0, 300.0, magnification, behind, 0.14, 0.0, False, None, None)
    assert lens.f_number(effective) == pytest.approx(f_number)
