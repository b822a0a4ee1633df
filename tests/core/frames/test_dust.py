"""Dust on the sensor: found where it stays while the subject goes out of focus; scratches and edges are not."""

import cv2
import numpy as np
import pytest

from just_plane.core.frames.check.dust import Watch
from just_plane.core.frames.check.tiles import grid_for, measured

SHAPE = (192, 288)
CIRCLE_PX, STEP_PX = 3.0, 2.7
COUNT = 12
DEEP = 6.0
"""Steps from the first frame at which all of the subject lies."""


def frames(spots=(), count=COUNT):
    """A flat subject of soft paper through focus; each spot (x, y, wide, high, share) takes its share of the light."""
    paper = np.random.default_rng(5).standard_normal(SHAPE).astype(np.float32)
    yy, xx = np.mgrid[: SHAPE[0], : SHAPE[1]]
    for frame in range(count):
        picture = 0.5 + 0.05 * cv2.GaussianBlur(paper, (0, 0), 0.8 + 1.2 * abs(frame - DEEP))
        for x, y, wide, high, share in spots:
            inside = ((xx - x) / wide) ** 2 + ((yy - y) / high) ** 2 < 1
            picture = picture * (1 - share * cv2.GaussianBlur(inside.astype(np.float32), (0, 0), 0.7))
        yield picture


def watched(spots=(), count=COUNT):
    grid = grid_for(SHAPE[1], SHAPE[0], CIRCLE_PX, STEP_PX)
    watch = Watch(SHAPE)
    for picture in frames(spots, count):
        watch.add(picture, measured(picture, grid))
    return watch


def found(watch, depth=DEEP, count=COUNT, step_circles=2.0):
    return watch.found(lambda places: np.full(len(places), depth), (0.0, count - 1.0), step_circles)


def test_a_speck_is_found_where_it_is_and_as_dark_as_it_is():
    (spot,) = found(watched([(100.0, 60.0, 3.0, 3.0, 0.3)]))
    assert (spot.x, spot.y) == (pytest.approx(100, abs=0.5), pytest.approx(60, abs=0.5))
    assert spot.radius == pytest.approx(3, abs=1.5)
    # The band that is looked at holds between a third and nine tenths of a spot of this size.
    assert 0.1 < spot.darkness < 0.3
    assert found(watched()) == []


@pytest.mark.parametrize(
    "spot",
    [
        (100.0, 60.0, 12.0, 2.0, 0.3),  # a scratch along
        (100.0, 60.0, 2.0, 12.0, 0.3),  # and one across
        (100.0, 60.0, 20.0, 20.0, 0.3),  # a shade
        (3.0, 60.0, 3.0, 3.0, 0.3),  # at the edge, where detail cannot be told
        (100.0, 60.0, 3.0, 3.0, 0.02),  # hardly there
    ],
)
def test_what_is_long_wide_at_the_edge_or_hardly_there_is_no_speck(spot):
    assert found(watched([spot])) == []


def test_two_specks_beside_each_other_are_not_told_from_the_subject():
    one = (100.0, 60.0, 3.0, 3.0, 0.3)
    assert len(found(watched([one, (140.0, 60.0, 3.0, 3.0, 0.3)]))) == 2
    assert found(watched([one, (109.0, 60.0, 3.0, 3.0, 0.3)])) == []


def test_a_dark_grain_of_the_subject_is_none():
    grid = grid_for(SHAPE[1], SHAPE[0], CIRCLE_PX, STEP_PX)
    watch = Watch(SHAPE)
    yy, xx = np.mgrid[: SHAPE[0], : SHAPE[1]]
    grain = (np.hypot(xx - 100, yy - 60) < 3).astype(np.float32)
    for frame, picture in enumerate(frames()):
        seen = picture * (1 - 0.3 * cv2.GaussianBlur(grain, (0, 0), 0.8 + 1.2 * abs(frame - DEEP)))
        watch.add(seen, measured(seen, grid))
    assert found(watch) == []


def test_too_few_frames_and_a_place_that_never_was_far_out_of_focus_cannot_be_judged():
    speck = [(100.0, 60.0, 3.0, 3.0, 0.3)]
    assert found(watched(speck, count=7)) is None
    assert found(watched(speck), step_circles=0.9) == []  # six steps of 0.9 circles
    assert len(found(watched(speck), step_circles=1.01)) == 1


def test_watching_in_two_parts_sees_the_same():
    speck = [(100.0, 60.0, 3.0, 3.0, 0.3)]
    grid = grid_for(SHAPE[1], SHAPE[0], CIRCLE_PX, STEP_PX)
    first, second = Watch(SHAPE), Watch(SHAPE)
    for frame, picture in enumerate(frames(speck)):
        (first if frame < 5 else second).add(picture, measured(picture, grid))
    kept = Watch.of_planes(SHAPE, second.planes(), second.frames)
    first.absorb(kept)
    (one,), (other,) = found(first), found(watched(speck))
    assert one == pytest.approx(other, rel=1e-4)
