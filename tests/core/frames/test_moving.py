"""A part that moved between two frames: where it is, how far, and what only looks like one."""

import cv2
import numpy as np
import pytest

from just_plane.core.frames.check.moving import half_band, moved_part, times_fewer
from just_plane.core.frames.check.similarity import IDENTITY

SIZE = (240, 360)
CIRCLE_PX = 3.0
SOFT = 5.0


def print_of(seed=1, size=SIZE):
    """A print with detail everywhere but below, where it is out of focus, as some of every frame is."""
    grain = np.random.default_rng(seed).standard_normal(size).astype(np.float32)
    sharp = 0.5 + 0.12 * sum(cv2.GaussianBlur(grain, (0, 0), sigma) * sigma for sigma in (1.0, 2.0, 4.0))
    return np.where(np.arange(size[0])[:, np.newaxis] < 0.85 * size[0], sharp, cv2.GaussianBlur(sharp, (0, 0), SOFT))


def pushed(picture, x, y, radius, right, down):
    """A round part of it moved by whole pixels; what it uncovers shows what was beside it."""
    yy, xx = np.mgrid[: picture.shape[0], : picture.shape[1]]
    inside = np.hypot(xx - x, yy - y) < radius
    return np.where(inside, np.roll(picture, (down, right), (0, 1)), picture).astype(np.float32)


def found(before, this, similarity=IDENTITY):
    return moved_part(
        half_band(before, CIRCLE_PX), half_band(this, CIRCLE_PX), similarity, times_fewer(before.shape[1])
    )


@pytest.mark.parametrize(("right", "down"), [(4, 0), (0, -4), (6, 4), (-8, 2)])
def test_a_part_is_found_where_it_is_and_as_far_as_it_moved(right, down):
    picture = print_of()
    part = found(picture, pushed(picture, 200, 110, 45, right, down))
    assert part.shift == (pytest.approx(right, abs=0.7), pytest.approx(down, abs=0.7))
    assert part.place == (pytest.approx(200, abs=8), pytest.approx(110, abs=8))
    assert part.share == pytest.approx(np.pi * 45**2 / (SIZE[0] * SIZE[1]), rel=0.45)


@pytest.mark.parametrize(("x", "y"), [(700, 380), (180, 190), (1260, 180)])
def test_in_a_large_frame_a_part_is_found_as_well_in_its_middle_and_near_its_edges(x, y):
    """Where shifts are tried at every fourth place only."""
    picture = print_of(size=(960, 1440))
    part = found(picture, pushed(picture, x, y, 150, 6, -4))
    assert part.shift == (pytest.approx(6, abs=0.4), pytest.approx(-4, abs=0.4))
    assert part.place == (pytest.approx(x, abs=16), pytest.approx(y, abs=16))
    assert part.share == pytest.approx(np.pi * 150**2 / (960 * 1440), rel=0.3)
    assert found(picture, picture) is None


def test_where_nothing_moved_there_is_no_part():
    picture = print_of()
    noise = np.random.default_rng(8).normal(0, 0.004, (2, *SIZE)).astype(np.float32)
    assert found(picture + noise[0], picture + noise[1]) is None


def test_a_view_that_moved_as_a_whole_is_no_part_once_it_is_laid():
    picture = print_of()
    moved = np.roll(picture, (4, 6), (0, 1))
    shift = IDENTITY.copy()
    shift[:, 2] = 6, 4
    assert found(picture, moved, shift) is None
    # And a part that moved besides is found by how far it moved on the subject.
    part = found(picture, np.roll(pushed(picture, 180, 120, 45, 4, 0), (4, 6), (0, 1)), shift)
    assert part.shift == (pytest.approx(4, abs=0.7), pytest.approx(0, abs=0.7))
    assert part.place == (pytest.approx(180, abs=8), pytest.approx(120, abs=8))


def test_a_speck_that_moved_is_too_small_to_tell():
    picture = print_of()
    assert found(picture, pushed(picture, 200, 110, 8, 4, 0)) is None


def test_parts_that_pull_apart_are_growing_discs_of_light_and_none():
    picture = print_of()
    apart = pushed(pushed(picture, 165, 120, 28, -4, 0), 195, 120, 28, 4, 0)
    part = found(picture, apart)
    # Either half alone may be large enough: both together, with shifts that cancel, never are one.
    assert part is None or abs(part.shift[0]) > 3


def test_what_is_out_of_focus_cannot_be_told_to_have_moved():
    """Left of the middle there is nothing fine: a part that moves there pulls with its own blur."""
    picture = print_of()
    soft = cv2.GaussianBlur(picture, (0, 0), SOFT)
    half = np.where(np.arange(SIZE[1]) < 180, soft, picture).astype(np.float32)
    assert found(half, pushed(half, 80, 120, 40, 4, 0)) is None
    assert found(half, pushed(half, 270, 120, 40, 4, 0)) is not None


def test_something_else_that_appears_is_not_a_part_that_moved():
    picture, other = print_of(), print_of(7)
    yy, xx = np.mgrid[: SIZE[0], : SIZE[1]]
    mixed = np.where(np.hypot(xx - 200, yy - 110) < 45, other, picture).astype(np.float32)
    assert found(picture, mixed) is None


@pytest.mark.parametrize(("width", "times"), [(300, 2), (1500, 2), (1501, 3), (3000, 4), (6000, 8)])
def test_parts_are_looked_for_at_half_the_pixels_and_no_more_than_750_across(width, times):
    assert times_fewer(width) == times
    assert width / times_fewer(width) <= 750
