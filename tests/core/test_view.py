"""The live view against rays, the wedge and the transfer function: nothing expected comes from the view itself."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.core.contrast import contrast
from just_plane.core.plane import tilt_for_plane, wedge_blur
from just_plane.core.plane.tilt import TiltSetting
from just_plane.core.view.focus import focus_of_lens, focus_of_rig
from just_plane.core.view.geometry import Grid, _texels, seen
from just_plane.core.view.levels import LADDER, Levels, _interpolated, spectrum_of
from just_plane.core.view.live import Live, Sight, blur_now
from just_plane.core.view.marking import honest_marks, sharp_edges, sharp_ratio
from just_plane.core.view.scene import Scene, made_scene
from just_plane.core.view.sensor import Sensor, electrons_of, toned

PITCH, WORKS_AS = 0.006, 11.0


@settings(max_examples=60, deadline=None)
@given(
    f=st.floats(24, 200),
    n=st.floats(2, 32),
    tilt=st.floats(-0.2, 0.2),
    azimuth=st.floats(0, 2 * math.pi),
    m=st.floats(0.05, 1.0),
)
def test_blur_of_the_view_is_the_blur_of_the_wedge(f, n, tilt, azimuth, m):
    image = f * (1 + m)
    setting = TiltSetting(tilt, azimuth, image)
    grid = Grid(5, 7, 4.0)
    xi, yi = np.meshgrid(*grid.places())
    z = np.linspace(1.6 * f, 40 * f, xi.size).reshape(xi.shape)
    points = np.stack([xi * z / image, yi * z / image, z], axis=-1).reshape(-1, 3)
    along = points[:, 2] * math.cos(tilt) - math.sin(tilt) * (
        points[:, 0] * math.cos(azimuth) + points[:, 1] * math.sin(azimuth)
    )
    if along.min() <= f * 1.01:
        return
    expected = wedge_blur(f, n, setting, points)
    got = focus_of_lens(f, n, setting).blur(grid, 1 / z).ravel()
    assert got == pytest.approx(expected, abs=2e-6 * max(1, expected.max()))


def test_blur_of_a_rig_near_its_plane_is_what_depth_of_field_counts():
    focus = focus_of_rig(3.0, 16.0, 80.0)
    z = np.array([[79.9, 80.0, 80.1]])
    blur = 3.0**2 * 0.1 / 16.0
    assert focus.blur(Grid(1, 3, 1.0), 1 / z)[0] == pytest.approx(np.array([blur, 0.0, blur]), rel=2e-3, abs=1e-9)


def slanted(slope_x, slope_y, dome):
    rows, columns, texel = 600, 900, 0.05
    x = (np.arange(columns) - (columns - 1) / 2) * texel
    y = -(np.arange(rows) - (rows - 1) / 2) * texel
    relief = -dome * np.exp(-(x[np.newaxis, :] ** 2 + y[:, np.newaxis] ** 2) / 30)
    light = np.broadcast_to(x[np.newaxis, :], (3, rows, columns)).astype(np.float32)
    return Scene(100.0, slope_x, slope_y, relief.astype(np.float32), light, texel)


@pytest.mark.parametrize("place", [(0.0, 0.0, 0.0), (1.5, -0.8, 6.0)])
def test_depth_is_where_a_ray_meets_the_surface(place):
    scene, grid, image = slanted(0.3, -0.2, 1.5), Grid(9, 13, 1.2), 120.0
    found = seen(scene, grid, image, place)
    xi, yi = np.meshgrid(*grid.places())
    for row, column in np.ndindex(xi.shape):
        # March along the ray in steps of a hundredth of a mm to the first place that lies behind the surface.
        z = np.arange(60.0, 140.0, 0.01)
        x, y = place[0] + xi[row, column] * z / image, place[1] + yi[row, column] * z / image
        surface = 100.0 + 0.3 * x - 0.2 * y - 1.5 * np.exp(-(x**2 + y**2) / 30) - place[2]
        met = z[np.argmax(z >= surface)]
        assert 1 / found.inverse[row, column] == pytest.approx(met, abs=0.03)
        # What is seen there is painted with its own x.
        assert found.light[row, column, 0] == pytest.approx(place[0] + xi[row, column] * met / image, abs=0.06)


def frequency_of_twenty(profile):
    """Cycles per px at which the contrast of a step's picture first falls to 20 %."""
    spread = np.diff(profile)
    spread = spread * np.hanning(len(spread) + 2)[1:-1] if spread[0] else spread
    frequency = np.linspace(0, 0.5, 4001)
    at = np.arange(len(spread)) - (len(spread) - 1) / 2
    seen_contrast = np.abs(np.exp(-2j * np.pi * frequency[:, np.newaxis] * at) @ spread) / spread.sum()
    return frequency[np.argmax(seen_contrast < 0.2)]


@pytest.mark.parametrize("blur_px", [3.4, 4.9, 6.9, 9.7, 13.0, 17.0])
def test_a_blurred_step_falls_to_twenty_percent_where_the_optics_say(blur_px):
    step = np.where(np.arange(512) < 256, 0.2, 0.8)
    plane = np.tile(step, (64, 1))
    levels = Levels(spectrum_of(plane, 90), WORKS_AS * 0.00055 / PITCH)
    profile = levels.mixed(np.full(plane.shape, blur_px, dtype=np.float32))[32, 156:357]
    frequency = np.linspace(1e-4, 0.5, 20001)
    ideal = contrast(frequency / PITCH, WORKS_AS, blur_px * PITCH)
    expected = frequency[np.argmax(ideal < 0.2)]
    assert frequency_of_twenty(profile) == pytest.approx(expected, rel=0.01)


def test_contrast_between_the_steps_of_the_ladder_is_within_what_was_promised():
    worst = 0.0
    rows = np.arange(480)
    for period in (6, 9, 16, 33):
        plane = 1 + 0.5 * np.sin(2 * np.pi * rows / period)[:, np.newaxis] * np.ones((1, 32))
        levels = Levels(spectrum_of(plane, 90), 0.3)
        for low, high in pairwise(LADDER[1:9]):
            blur = (low + high) / 2
            seen_now = levels.mixed(np.full(plane.shape, blur, dtype=np.float32))
            wave = np.exp(-2j * np.pi * rows / period)[:, np.newaxis]
            inner = slice(2 * 33, 2 * 33 + 8 * 33) if period == 33 else slice(96, 96 + 144)
            got = 2 * np.abs((seen_now * wave)[inner].mean()) / 0.5
            s, pitch = 0.3 / period, 0.001
            expected = abs(contrast(1 / (period * pitch), s * period * pitch / 0.00055, blur * pitch))
            worst = max(worst, abs(got - expected))
    assert worst < 0.074


def live_view(seed=0):
    scene = made_scene("pralines", (300, 400), 0.06, 200.0, (0.0, 0.4), 1.0, seed=seed)
    return Live(scene)


def sight(along=0.0):
    return Sight(120.0, Grid(120, 160, 0.06), (0.0, 0.0, along))


def test_a_frame_does_not_depend_on_what_was_looked_at_before():
    focus = focus_of_lens(90.0, 5.6, TiltSetting(0.03, 1.5, 120.0))
    fresh = live_view().light(sight(0.7), focus, 8.0)
    used = live_view()
    for along in (0.0, 0.5, 3.0, 0.65):
        used.light(sight(along), focus_of_lens(90.0, 11.0, TiltSetting(0.0, 0.0, 121.0)), 16.0)
    assert np.array_equal(used.light(sight(0.7), focus, 8.0), fresh)


def test_moving_the_camera_moves_what_is_sharp():
    lens, places = focus_of_rig(0.6, 8.0, 200.0), []
    for along in (-2.0, 0.0, 2.0):
        blur = blur_now(live_view().scene, sight(along), lens)
        places.append(np.unravel_index(blur[:, 80:81].argmin(), (120, 1))[0])
    # The surface goes away upward; a camera farther back is sharp on what is nearer: lower in the picture.
    assert places[0] > places[1] > places[2]


def test_sway_shifts_the_picture_and_nothing_else():
    view, focus = live_view(), focus_of_rig(0.6, 8.0, 200.0)
    still = view.light(sight(), focus, 8.0)
    moved = view.light(sight(), focus, 8.0, shift=(3.0, -2.0))
    assert np.array_equal(moved[:-2, 3:], still[2:, :-3])


def test_noise_has_the_spread_that_electrons_have():
    light = np.full((200, 300, 3), 0.25, dtype=np.float32)
    sensor = Sensor(full=10_000.0, read=20.0, seed=3)
    counted = sensor.counted(light)
    assert counted.mean() == pytest.approx(0.25, abs=2e-4)
    assert counted.std() == pytest.approx(math.sqrt(0.25 * 10_000 + 400) / 10_000, rel=0.02)
    again = sensor._replace(frame=1).counted(light)
    assert not np.array_equal(counted, again)
    assert np.array_equal(counted, sensor.counted(light))


@pytest.mark.parametrize(("gain", "counted"), [(0.5, 0.1), (1.0, 0.2), (2.0, 0.4), (8.0, 1.0)])
def test_gain_multiplies_light_until_the_pixel_is_full(gain, counted):
    light = np.full((60, 80, 3), 0.2, dtype=np.float32)
    light[:30] = 0.1
    seen = Sensor(gain=gain, full=1e6, read=0.0).counted(light)
    assert seen[30:].mean() == pytest.approx(counted, abs=1e-3)
    assert seen[:30].mean() == pytest.approx(min(0.1 * gain, 1.0), abs=1e-3)
    assert light[0, 0, 0] == np.float32(0.1)  # what was given is left as it was


def test_a_view_of_the_whole_frame_holds_more_light_a_pixel():
    assert electrons_of(0.056) == pytest.approx(100 * electrons_of(0.0056))
    assert electrons_of(0.0056, iso=800) == pytest.approx(electrons_of(0.0056) / 8)


def test_tones_are_those_of_a_common_screen():
    assert toned(np.array([0.0, 0.2140411, 1.0])).tolist() == [0, 127, 255]


@pytest.mark.parametrize(("reach", "margin"), [(0.0, 4), (7.0, 8), (20.0, 14), (100.0, 19)])
def test_a_plane_is_bordered_by_half_of_what_blurs_it_as_far_as_its_mirror_image_reaches(reach, margin):
    spectrum = spectrum_of(np.zeros((40, 60)), reach)
    assert (spectrum.margin, spectrum.shape) == (margin, (40, 60))
    assert all(
        size >= side + 2 * margin and size % 4 == 0 for size, side in zip(spectrum.padded, (40, 60), strict=True)
    )


def step_at(blur_px, contrast_of_step, noise, seed):
    edge = np.tile(np.where(np.arange(120) < 60, 0.5 - contrast_of_step / 2, 0.5 + contrast_of_step / 2), (80, 1))
    seen_now = Levels(spectrum_of(edge, 30), 0.5).mixed(np.full(edge.shape, blur_px, dtype=np.float32))
    return seen_now + np.random.default_rng(seed).standard_normal(edge.shape) * noise


@pytest.mark.parametrize("strength", [0.1, 0.6])
def test_a_mark_tells_a_sharp_edge_from_a_soft_one_whatever_its_strength(strength):
    pitch = PITCH
    threshold = sharp_ratio(5 * pitch, 0.5 * pitch / 0.00055, pitch)
    sharp, soft = (
        sharp_edges(step_at(blur, strength, 0.002, 4), 0.002, threshold)[20:60, 58:62].mean() for blur in (2.5, 8.0)
    )
    assert sharp > 0.9
    assert soft < 0.1


@pytest.mark.parametrize(("strength", "noise"), [(0.3, 0.02), (0.6, 0.05)])
def test_noise_on_a_soft_edge_does_not_make_it_sharp(strength, noise):
    threshold = sharp_ratio(5 * PITCH, 0.5 * PITCH / 0.00055, PITCH)
    assert sharp_edges(step_at(8.0, strength, noise, 4), noise, threshold)[20:60, 58:62].mean() < 0.1


def test_noise_alone_is_not_marked():
    noise = 0.5 + 0.01 * np.random.default_rng(2).standard_normal((200, 200))
    assert sharp_edges(noise, 0.01, sharp_ratio(0.03, 8.0, 0.006)).mean() < 0.02


@pytest.mark.parametrize("noise", [0.005, 0.01])
def test_an_edge_that_stands_out_of_noise_is_marked(noise):
    """A step of five times the noise is one that any eye sees."""
    threshold = sharp_ratio(5 * PITCH, 0.5 * PITCH / 0.00055, PITCH)
    marked = sharp_edges(step_at(2.5, 5 * noise, noise, 5), noise, threshold)
    assert marked[20:60, 58:62].mean() > 0.9


def test_between_two_marks_what_comes_nearer_to_the_plane_of_focus_comes_up_sharper():
    """Seen from a mark, drawn past it: along 0.9 mm and -0.9 mm are drawn from the same one."""
    view, lens = live_view(), focus_of_rig(0.6, 8.0, 200.0)
    sharpness, blur = [], []
    for along in (-0.9, 0.9):
        looked_at = sight(along)._replace(grid=Grid(120, 160, 0.06), image_distance=120.0)
        rows = slice(90, 120)  # where it is nearest, on one side of the plane of focus
        drawn = view.light(looked_at, lens, 8.0).mean(axis=2)[rows]
        sharpness.append(float(np.abs(np.diff(drawn, axis=0)).mean()))
        blur.append(float(blur_now(view.scene, looked_at, lens)[rows].mean()))
    assert (sharpness[0] > 1.02 * sharpness[1]) == (blur[0] < blur[1])
    assert abs(math.log(sharpness[0] / sharpness[1])) > 0.02


@pytest.mark.parametrize("along", [0.9, 1.6, -1.6])
def test_a_photograph_is_seen_from_just_where_the_camera_stands(along):
    """A ramp of light 200 mm away, through a pinhole 120 mm before the sensor: how steep it is tells how far away."""
    x = (np.arange(4300) - 2149.5) * 0.005
    ramp = np.broadcast_to((0.5 + x / 40).astype(np.float32), (3, 1200, 4300))
    view = Live(Scene(200.0, 0.0, 0.0, np.zeros((1200, 4300), np.float32), ramp, 0.005), within_px=0.02)
    there = Sight(120.0, Grid(8, 160, 0.06), (0.0, 0.0, along))
    drawn = view.light(there, focus_of_rig(0.6, 8.0, 200.0), 8.0)[:, 20:140].mean(axis=(0, 2))
    steep = np.polyfit(np.arange(120), drawn, 1)[0]
    # Marks a pixel apart would be 2.5 mm apart: from the nearest of those it would be off by 0.45 %.
    assert steep == pytest.approx((200 - along) / 120 * 0.06 / 40, rel=5e-4)


def test_marks_of_a_whole_frame_are_not_called_the_depth_of_field():
    assert honest_marks(0.03, 0.006)
    assert not honest_marks(0.03, 0.056)


def test_the_setting_that_lays_a_plane_makes_the_view_sharp_along_it():
    setting = tilt_for_plane(90.0, 420.0, 0.0, 0.8)
    scene = Scene(420.0, 0.0, 0.8, np.zeros((200, 300), np.float32), np.ones((3, 200, 300), np.float32), 0.4)
    blur = blur_now(scene, Sight(setting.image_distance, Grid(40, 60, 0.3)), focus_of_lens(90.0, 5.6, setting))
    assert blur.max() < 1e-4


def test_pixels_of_a_view_lie_about_its_middle_rows_from_the_top():
    xi, yi = Grid(4, 3, 2.0, (10.0, -1.0)).places()
    assert xi.tolist() == [8.0, 10.0, 12.0]
    assert yi.tolist() == [2.0, 0.0, -2.0, -4.0]


@given(st.lists(st.floats(-1, 1), min_size=6, max_size=6), st.sampled_from([2, 4]))
def test_between_pixels_a_quintic_is_met_exactly(factors, times):
    """Six values fix a polynomial of the fifth degree, and between them it is that one."""
    places = (np.arange(24) - 12) / 12
    plane = np.outer(np.polynomial.polynomial.polyval(places, factors), np.ones(24)).astype(np.float32)
    fine = _interpolated(_interpolated(plane, 2), 2) if times == 4 else _interpolated(plane, 2)
    assert fine == pytest.approx(_interpolated(plane, times), abs=1e-6)
    exact = np.polynomial.polynomial.polyval((np.arange(24 * times) / times - 12) / 12, factors)
    # Rolled planes meet their other side at the rim: the middle is looked at.
    inside = slice(8 * times, 16 * times)
    assert fine[inside, inside] == pytest.approx(np.outer(exact, np.ones(24 * times))[inside, inside], abs=2e-5)
    across = _interpolated(plane.T.copy(), times)
    assert across[inside, inside] == pytest.approx(fine[inside, inside].T, abs=1e-6)


def test_beyond_the_page_its_rim_is_read():
    scene = Scene(*[None] * len(Scene._fields))._replace(relief=np.zeros((20, 30), np.float32), texel=0.5)
    rows, columns = _texels(scene, np.array([-999.0, 0.0, 999.0]), np.array([999.0, 0.0, -999.0]))
    assert (rows.min(), rows.max(), columns.min(), columns.max()) == (0, 19, 0, 29)
    # Half a texel from the middle of thirty is their fifteenth and sixteenth.
    assert list(_texels(scene, np.array([-0.25, 0.25]), np.zeros(2))[1]) == [14, 15]
