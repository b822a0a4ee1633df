"""The made-up set against the optics of the shot that it is made from."""

import math

import numpy as np
import pytest

from just_plane.core.view.geometry import seen
from just_plane.demo.catalogue import demo_shots
from just_plane.planning.pictures.made_set import HEIGHT, WIDTH, made_set


def shot(name):
    return next(each for each in demo_shots() if each.name.startswith(name))


@pytest.fixture(scope="module")
def praline():
    return made_set(shot("Praline"), "rail")


def fine(light, row):
    """Detail of a band of rows, over the square of its light."""
    band = light[max(row - 12, 0) : row + 12, :, 1]
    return float(np.square(band[:, 3:] - band[:, :-3]).mean() / band.mean() ** 2)


def test_it_is_as_deep_as_the_shot_and_three_pixels_to_the_circle(praline):
    depth = praline.live.scene.relief
    assert depth.min() >= -1e-6
    assert depth.max() == pytest.approx(praline.depth, rel=0.01)
    assert praline.numbers.c_mm / praline.pitch == pytest.approx(3.0)
    assert praline.numbers.pixel_pitch_mm == praline.pitch


def test_each_frame_is_sharp_where_its_place_is_and_soft_elsewhere(praline):
    # The page rises from the bottom, near, to the top, far: the sharp band climbs with the rail.
    bands = []
    for place in (praline.places[4], praline.places[len(praline.places) // 2], praline.places[-5]):
        light = praline.light(place)
        bands.append(max(range(24, HEIGHT - 24, 12), key=lambda row, light=light: fine(light, row)))
    assert bands[0] > bands[1] > bands[2]


def test_what_lies_nearer_to_the_pupil_is_larger(praline):
    """A rail that goes on enlarges what stands still: by the distances from the entrance pupil."""
    scene, pupil = praline.live.scene, praline.pupil
    from just_plane.core.view.geometry import Grid

    image = praline.magnification * pupil
    grid = Grid(3, 3, 200 * praline.pitch)
    for along in (0.0, praline.depth):
        there = seen(scene, grid, image, (0.0, 0.0, along))
        z = 1 / there.inverse
        assert z.min() >= pupil - along - 1e-6
        assert z.max() <= pupil + praline.depth - along + 1e-6


def test_a_ring_leaves_the_camera_and_makes_the_picture_smaller():
    made = made_set(shot("Foil"), "ring")
    assert made.numbers.kind == "ring"
    near, far = made._at(made.pupil), made._at(made.pupil + made.depth)
    assert near == pytest.approx(made.magnification)
    # Of a thin lens: m = f/(z - f).
    focal = made.pupil * made.magnification / (1 + made.magnification)
    assert far == pytest.approx(focal / (made.pupil + made.depth - focal))
    assert far < near


def test_how_far_it_may_move_and_count_as_still_is_a_quarter_of_the_circle(praline):
    blur = praline.still_mm * praline.magnification**2 / praline.effective_f_number
    assert blur == pytest.approx(praline.numbers.c_mm / 4)


def test_the_picture_is_shifted_as_it_is_asked(praline):
    still, moved = praline.light(0.0), praline.light(0.0, 4.0, -3.0)
    assert still.shape == (HEIGHT, WIDTH, 3)
    assert np.array_equal(moved[: HEIGHT - 3, 4:], still[3:, : WIDTH - 4])


def test_light_stays_within_what_a_sensor_holds(praline):
    light = praline.light(praline.places[3])
    assert 0 <= light.min() < light.max() <= 1
    assert math.isfinite(float(light.sum()))


def test_what_cannot_be_photographed_says_why():
    sugar = shot("Sugar")
    denser = sugar.model_copy(update={"stack": sugar.stack.model_copy(update={"overlap": 0.7})})
    # 0.9 mm in steps of 2 um of the rail, a frame at both ends and a spare past each.
    assert "453 frames; up to 400" in made_set(denser)
