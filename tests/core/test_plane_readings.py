"""Corrections from what was read at the camera, on a simulated lens that is not what its scales say."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.errors import OutOfDomainError
from just_plane.core.plane import TiltSetting, fit_plane, tilt_for_plane
from just_plane.core.plane.fit import PlaneFit
from just_plane.core.plane.readings import (
    next_setting,
    node_moved_by_pivot,
    setting_from_rail,
    setting_from_ring,
)
from just_plane.core.plane.ring import image_distances
from just_plane.core.plane.tilting_lens import setting_uncertainty

F = 90.0
PLANE = (420.0, 0.16, 0.31)
PLACES = [(-40.0, -25.0), (35.0, -28.0), (0.0, 0.0), (-30.0, 26.0), (42.0, 24.0)]
POINTS = np.array([(x, y, PLANE[0] + PLANE[1] * x + PLANE[2] * y) for x, y in PLACES])
WANTED = tilt_for_plane(F, *PLANE)


class Lens:
    """A lens whose tilt scale is a degree off and which turns about a pivot well behind its node."""

    def __init__(self, scale_error, pivot_behind_node, reading_error=0.0):
        self.scale_error, self.pivot, self.noise = scale_error, pivot_behind_node, reading_error
        self.rng = np.random.default_rng(3)

    def set(self, tilt, azimuth):
        """The true axis, node and image distance for what the scales show; the ring stays where it is."""
        true = tilt + self.scale_error
        self.axis = np.array([-math.sin(true) * math.cos(azimuth), -math.sin(true) * math.sin(azimuth), math.cos(true)])
        self.node = np.array([0, 0, -self.pivot]) + self.pivot * self.axis
        self.image = WANTED.image_distance + self.node[2]

    def read_on_rail(self, points):
        """How far toward the subject the camera stands when each is sharp: n.p = f (1 + z/A), p seen from the node."""
        seen = points - self.node
        rise = (seen @ self.axis - F - F * seen[:, 2] / self.image) / (self.axis[2] - F / self.image)
        return rise + self.noise * self.rng.standard_normal(len(points))

    def off(self, points):
        """How far the worst point lies from the plane of focus, best placed, mm."""
        moved = self.read_on_rail(points)
        return float(np.ptp(moved)) / 2


@pytest.mark.parametrize("scale_error", [1.0, -1.0])
@pytest.mark.parametrize("pivot", [0.0, 15.0, -12.0])
@pytest.mark.parametrize("read", [[0, 1, 2, 3, 4], [0, 1, 3]])
def test_two_rounds_by_rail_lay_the_plane_right(scale_error, pivot, read):
    lens, shown = Lens(math.radians(scale_error), pivot), (WANTED.tilt, WANTED.azimuth)
    lens.set(*shown)
    before = lens.off(POINTS)
    for _ in range(2):
        found = setting_from_rail(
            F, TiltSetting(*shown, WANTED.image_distance), POINTS[read], lens.read_on_rail(POINTS[read])
        )
        shown = next_setting(shown, found[:2], WANTED[:2])
        lens.set(*shown)
    assert before > 2
    assert lens.off(POINTS) < before / 40
    assert shown[0] + math.radians(scale_error) == pytest.approx(WANTED.tilt, abs=math.radians(0.5))


def test_two_points_read_correct_the_tilt_between_them():
    lens, shown = Lens(math.radians(1), 0.0), (WANTED.tilt, WANTED.azimuth)
    lens.set(*shown)
    ends = POINTS[[0, 4]]
    found = setting_from_rail(F, TiltSetting(*shown, WANTED.image_distance), ends, lens.read_on_rail(ends))
    assert math.degrees(found.tilt - shown[0]) == pytest.approx(1, abs=0.25)


def test_reading_noise_does_not_run_away():
    lens, shown = Lens(math.radians(1), 15.0, reading_error=0.05), (WANTED.tilt, WANTED.azimuth)
    lens.set(*shown)
    for _ in range(4):
        found = setting_from_rail(F, TiltSetting(*shown, WANTED.image_distance), POINTS, lens.read_on_rail(POINTS))
        shown = next_setting(shown, found[:2], WANTED[:2])
        lens.set(*shown)
    lens.noise = 0.0
    assert lens.off(POINTS) < 0.2


def test_a_true_lens_needs_no_more():
    found = setting_from_rail(F, WANTED, POINTS, np.zeros(5))
    assert found == pytest.approx(WANTED)
    found = setting_from_ring(F, WANTED, POINTS, image_distances(F, WANTED, POINTS))
    assert found == pytest.approx(WANTED)


def test_the_far_one_early_means_less_tilt():
    # Read at a smaller advance than the near one: the plane of focus lies too steep.
    moved = np.where(POINTS[:, 2] > 420, -1.0, 0.0)
    found = setting_from_rail(F, WANTED, POINTS, moved)
    assert found.tilt > WANTED.tilt
    assert next_setting(WANTED[:2], found[:2], WANTED[:2])[0] < WANTED.tilt


def test_two_points_across_the_tilt_that_are_sharp_where_they_should_be_change_nothing():
    """They say nothing of the slope along the azimuth: there the scale is believed."""
    asked = tilt_for_plane(F, 420.0, 0.3, 0.0)
    points = np.array([(20.0, y, 420.0 + 0.3 * 20.0) for y in (-30.0, 25.0)])
    found = setting_from_rail(F, asked, points, [0.0, 0.0])
    assert tuple(found) == pytest.approx(tuple(asked), abs=1e-9)
    # Sharp a millimetre nearer, both: the plane lies so much nearer, and slopes as it did.
    nearer = setting_from_rail(F, asked, points, [1.0, 1.0])
    assert tuple(nearer) == pytest.approx(tuple(tilt_for_plane(F, 419.0, 0.3, 0.0)), abs=1e-9)


def test_points_at_one_place_of_the_frame_say_nothing():
    with pytest.raises(OutOfDomainError) as refused:
        setting_from_rail(F, WANTED, [(1, 1, 400), (1, 1, 405)], [0, 1])
    assert refused.value.code == "points.one_place"


def test_a_pivot_behind_the_node_swings_the_node_to_where_the_lens_faces():
    moved = node_moved_by_pivot(TiltSetting(math.radians(8), math.pi / 2, 110.0), 20.0, 0.25)
    assert moved.y == pytest.approx(-20 * math.sin(math.radians(8)))
    assert moved.x == pytest.approx(0, abs=1e-12)
    assert moved.z == pytest.approx(-20 * (1 - math.cos(math.radians(8))))
    assert moved.picture_moves == pytest.approx(moved.y * 1.25)
    assert node_moved_by_pivot(TiltSetting(0.1, 0, 110), 0.0, 0.25).picture_moves == 0
    # A converter magnifies the picture that the lens makes by itself, and so its movement.
    doubled = node_moved_by_pivot(TiltSetting(math.radians(8), math.pi / 2, 110.0), 20.0, 0.25, 2.0)
    assert doubled.picture_moves == pytest.approx(2 * moved.picture_moves)


@given(st.floats(-3, 3), st.lists(st.floats(-4, 4), min_size=5, max_size=5))
def test_rotating_all_points_turns_the_azimuth_and_nothing_else(turn, off):
    spin = np.array([[math.cos(turn), -math.sin(turn), 0], [math.sin(turn), math.cos(turn), 0], [0, 0, 1]])
    points = POINTS + np.outer(off, [0, 0, 1.0])
    one, other = fit_plane(points), fit_plane(points @ spin.T)
    first, second = tilt_for_plane(F, *one[:3]), tilt_for_plane(F, *other[:3])
    assert (second.tilt, second.image_distance) == pytest.approx((first.tilt, first.image_distance), rel=1e-6)
    if first.tilt > 1e-3:
        assert math.remainder(second.azimuth - first.azimuth - turn, 2 * math.pi) == pytest.approx(0, abs=1e-6)


def test_where_nothing_is_left_of_the_tilt_its_direction_stays_as_shown():
    assert next_setting((0.1, 0.3), (0.1, 0.3), (0.0, 1.1)) == (0.0, 0.3)
    # Half a turn the other way is set as such, and never as a tilt below none.
    tilt, azimuth = next_setting((0.05, 0.0), (0.1, 0.0), (0.02, 0.0))
    assert (tilt, abs(azimuth)) == (pytest.approx(0.03), pytest.approx(math.pi))


@pytest.mark.parametrize("slopes", [(0.3, 0.4), (0.0, 0.7), (-0.2, 0.1)])
def test_how_sure_a_setting_is_is_how_far_those_of_planes_beside_it_scatter(slopes):
    """Twenty thousand planes drawn as the spread has them, each with its own tilt and azimuth."""
    rng = np.random.default_rng(3)
    root = np.array([[0.4, 0.0, 0.0], [0.001, 0.003, 0.0], [-0.001, 0.001, 0.002]])
    spread = root @ root.T
    wanted = PlaneFit(400.0, *slopes, 0.0)
    drawn = np.array([wanted.z0, *slopes]) + rng.standard_normal((20_000, 3)) @ root.T
    settings = [tilt_for_plane(90.0, *each) for each in drawn]
    aside = np.array([each.azimuth for each in settings]) - tilt_for_plane(90.0, 400.0, *slopes).azimuth
    tilt, azimuth = setting_uncertainty(tilt_for_plane(90.0, 400.0, *slopes), wanted, spread)
    assert tilt == pytest.approx(np.std([each.tilt for each in settings]), rel=0.03)
    assert azimuth == pytest.approx(np.std((aside + np.pi) % (2 * np.pi) - np.pi), rel=0.03)
