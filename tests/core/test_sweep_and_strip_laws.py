"""Laws of the frames that go on where the tilt leaves off, of the strip, of settings and corrections."""

import math

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from just_plane.core.errors import OpticsError
from just_plane.core.plane import TiltSetting, fit_plane, plane_of_setting, tilt_for_plane, wedge_blur, wedge_defocus
from just_plane.core.plane.readings import next_setting, setting_from_rail, setting_from_ring
from just_plane.core.plane.ring import image_distances, ring_defocus
from just_plane.core.plane.strip import strip_along, strip_width
from just_plane.core.plane.sweep import sweep_by_rail, sweep_by_ring

F, N = 90.0, 8.0
PLACES = np.array([(-40.0, -25.0), (35.0, -28.0), (0.0, 0.0), (-30.0, 26.0), (42.0, 24.0), (10.0, -12.0)])
offsets = st.lists(st.floats(-6, 6), min_size=6, max_size=6)
slopes = st.floats(-0.6, 0.6)


def cloud(sx, sy, off):
    return np.column_stack([PLACES, 430 + PLACES @ np.array([sx, sy]) + np.array(off)])


def setting_of(points):
    return tilt_for_plane(F, *fit_plane(points)[:3])


@settings(max_examples=60, deadline=None)
@given(slopes, slopes, offsets, st.floats(0.01, 0.05), st.floats(0, 0.8), st.floats(0, 1))
def test_by_rail_whatever_lies_between_the_points_is_sharp_somewhere(sx, sy, off, blur, overlap, share):
    points = cloud(sx, sy, off)
    setting = setting_of(points)
    frames = sweep_by_rail(F, N, setting, blur, points, overlap)
    # A made-up point at the place of each, anywhere between the shallowest and the deepest.
    plane = plane_of_setting(F, setting)
    behind = points[:, 2] - (plane[0] + points[:, :2] @ np.array(plane[1:]))
    between = points.copy()
    between[:, 2] += behind.min() + share * np.ptp(behind) - behind
    seen = [wedge_blur(F, N, setting, between - [0, 0, place]) for place in frames.places]
    assert np.min(seen, axis=0).max() <= blur * (1 + 1e-6)


@settings(max_examples=60, deadline=None)
@given(slopes, slopes, offsets, st.floats(0.01, 0.05), st.floats(0, 0.8), st.floats(0, 1))
def test_by_ring_whatever_lies_between_the_points_is_sharp_somewhere(sx, sy, off, blur, overlap, share):
    points = cloud(sx, sy, off)
    setting = setting_of(points)
    frames = sweep_by_ring(F, N, setting, blur, points, overlap)
    # Where the ring would stand for something between: the points themselves, seen from there, are within the blur.
    own = image_distances(F, setting, points)
    between = own.min() + share * np.ptp(own)
    moved = points.copy()
    moved[:, 2] += (own - between) * (points[:, 2] / setting.image_distance) ** 2
    for point in moved:
        wanted = image_distances(F, setting, [point])[0]
        if own.min() <= wanted <= own.max():
            assert F / N * np.abs(ring_defocus(F, setting, [point], frames.places)).min() <= blur * 1.1
    assert len(frames.places) == frames.blurs.shape[0]


@pytest.mark.parametrize("sweep", [sweep_by_rail, sweep_by_ring])
def test_one_point_takes_one_frame_in_which_it_is_sharp(sweep):
    setting = setting_of(cloud(0.1, 0.2, [0.0] * 6))
    for off in (-5.0, 0.0, 5.0):
        frames = sweep(F, N, setting, 0.03, [(10.0, -12.0, 430.0 + off)], 0.5)
        assert len(frames.places) == 1
        assert sweep is sweep_by_rail or frames.step == 0
        assert frames.blurs == pytest.approx(0, abs=1e-9)


@given(slopes, slopes, offsets, st.floats(0.02, 0.05))
def test_more_overlap_never_takes_fewer_frames(sx, sy, off, blur):
    points = cloud(sx, sy, off)
    setting = setting_of(points)
    for sweep in (sweep_by_rail, sweep_by_ring):
        counts = [len(sweep(F, N, setting, blur, points, overlap).places) for overlap in (0.0, 0.3, 0.6)]
        assert counts == sorted(counts)


def test_a_rail_too_coarse_for_the_step_leaves_points_between_frames():
    points = cloud(0.2, 0.3, (0, 3, -4, 2, -1, 5))
    fine = sweep_by_rail(F, 2.8, setting_of(points), 0.005, points, 0.5)
    coarse = sweep_by_rail(F, 2.8, setting_of(points), 0.005, points, 0.5, smallest_step=5.0)
    assert coarse.step == 5.0
    assert fine.best.max() <= 0.005 * (1 + 1e-6) < coarse.best.max()


@given(slopes, slopes, offsets)
def test_blur_has_the_sign_of_which_side_of_the_plane(sx, sy, off):
    points = cloud(sx, sy, off)
    setting = setting_of(points)
    z0, px, py = plane_of_setting(F, setting)
    behind = points[:, 2] - (z0 + points[:, 0] * px + points[:, 1] * py)
    defocus = wedge_defocus(F, setting, points)
    clear = np.abs(behind) > 1e-6
    assert (np.sign(defocus[clear]) == np.sign(behind[clear])).all()


@given(slopes, slopes, st.floats(-0.02, 0.02), st.floats(-0.02, 0.02))
def test_readings_by_rail_tell_any_setting(sx, sy, more_x, more_y):
    """What a lens with another tilt would read, read back, gives that tilt."""
    points = cloud(sx, sy, [0.0] * 6)
    shown = setting_of(points)
    true_plane = (431.0, sx + more_x * 3, sy + more_y * 3)
    assume(math.hypot(*true_plane[1:]) > 0.05)
    moved = points[:, 2] - (true_plane[0] + points[:, :2] @ np.array(true_plane[1:]))
    found = setting_from_rail(F, shown, points, moved)
    wanted = tilt_for_plane(F, *true_plane)
    assert found.tilt == pytest.approx(wanted.tilt, rel=1e-6)
    assert math.remainder(found.azimuth - wanted.azimuth, 2 * math.pi) == pytest.approx(0, abs=1e-6)


@given(slopes, slopes, st.floats(-0.03, 0.03), st.floats(-1, 1))
def test_readings_by_ring_tell_any_tilt(sx, sy, more, turned):
    points = cloud(sx, sy, (2, -1, 0, 3, 1, -2))
    shown = setting_of(points)
    assume(shown.tilt > 0.02)
    true = TiltSetting(shown.tilt + more * shown.tilt, shown.azimuth + 0.1 * turned, shown.image_distance)
    found = setting_from_ring(F, shown, points, image_distances(F, true, points))
    assert found.tilt == pytest.approx(true.tilt, rel=2e-3)
    assert math.remainder(found.azimuth - true.azimuth, 2 * math.pi) == pytest.approx(0, abs=5e-3)


tilts = st.tuples(st.floats(0.01, 0.3), st.floats(-3, 3))


@given(tilts, tilts)
def test_a_true_reading_asks_for_no_change(shown, found):
    tilt, azimuth = next_setting(shown, found, found)
    assert tilt == pytest.approx(shown[0])
    assert math.remainder(azimuth - shown[1], 2 * math.pi) == pytest.approx(0, abs=1e-6)


@given(tilts, tilts)
def test_a_scale_that_is_true_is_set_to_what_is_wanted(shown, wanted):
    tilt, azimuth = next_setting(shown, shown, wanted)
    assert (tilt * math.cos(azimuth), tilt * math.sin(azimuth)) == pytest.approx(
        (wanted[0] * math.cos(wanted[1]), wanted[0] * math.sin(wanted[1])), abs=1e-9
    )


@given(
    st.tuples(st.floats(-40, -5), st.floats(-20, 20), st.floats(410, 430)),
    st.tuples(st.floats(5, 40), st.floats(-20, 20), st.floats(410, 430)),
    st.floats(0.05, 0.2),
    slopes,
    slopes,
)
def test_the_strip_holds_its_line_from_end_to_end(first, second, tilt, sx, sy):
    line = np.array([first, second])
    try:
        setting = strip_along(F, line, tilt, (sx, sy))
    except OpticsError:
        return
    share = np.linspace(0, 1, 7)[:, np.newaxis]
    along = line[0] * (1 - share) + line[1] * share
    assert wedge_blur(F, 2.8, setting, along).max() < 1e-9
    assert setting.tilt == tilt


@given(st.floats(0.03, 0.15), st.floats(0.1, 0.6), st.floats(0.005, 0.04))
def test_the_strip_is_as_wide_as_blur_says(tilt, slope, blur):
    line = np.array([(-20.0, 0.0, 424.0), (20.0, 0.0, 424.0)])
    setting = strip_along(F, line, tilt, (0.0, slope))
    width = strip_width(F, 2.8, setting, blur, line, (0.0, slope))
    assume(width < 60)
    # One edge of it, at least, blurs by just what is allowed, and twice as far out by more.
    edges = []
    for side in (-1, 1):
        places = side * np.linspace(0, width, 2001)
        blurs = wedge_blur(F, 2.8, setting, np.column_stack([0 * places, places, 424 + slope * places]))
        edges.append(abs(places[np.argmax(blurs > blur)]))
    assert sum(edges) == pytest.approx(width, rel=0.01)
