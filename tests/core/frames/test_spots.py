"""Dust of a whole stack: from how many frames, in which pixels, as what finding."""

from types import SimpleNamespace

import numpy as np
import pytest

from core.frames.test_dust import CIRCLE_PX, DEEP, FRAMES, SHAPE, SPECK, STEP_PX, frames
from just_plane.core.frames.check import spots
from just_plane.core.frames.check.dust import Spot
from just_plane.core.frames.check.findings import Found
from just_plane.core.frames.check.similarity import IDENTITY
from just_plane.core.frames.check.spots import spot_findings, spots_of

STACK = list(range(12))
DOWN, ACROSS = 12, 18
FLAT = SimpleNamespace(depths=np.full(DOWN * ACROSS, DEEP))


def shown(times=1):
    """A follower of a stack with a speck on the sensor, and its pictures at so many times the pixels."""
    pictures = {
        frame: picture.astype(np.float32).repeat(times, axis=0).repeat(times, axis=1)
        for frame, picture in frames([SPECK])
    }
    grid = SimpleNamespace(
        width=SHAPE[1] * times,
        height=SHAPE[0] * times,
        down=DOWN,
        across=ACROSS,
        circle_px=CIRCLE_PX * times,
        step_blur_px=STEP_PX * times,
    )
    return SimpleNamespace(grid=grid, between=lambda _first, _second: IDENTITY), pictures


def found(times=1, usable=STACK, fit=FLAT):
    follower, pictures = shown(times)
    return spots_of(follower, pictures.__getitem__, usable, fit, {frame: float(frame) for frame in usable}, 6)


def test_five_frames_that_stand_evenly_are_looked_at():
    """The others are not even asked for: there are no pictures of them."""
    (spot,) = found()
    assert tuple(FRAMES) == (0, 3, 6, 8, 11)
    assert (spot.x, spot.y, spot.radius) == (
        pytest.approx(100, abs=0.6),
        pytest.approx(60, abs=0.6),
        pytest.approx(3, 0.2),
    )


def test_large_pictures_are_looked_at_by_fewer_pixels_and_told_in_their_own(monkeypatch):
    monkeypatch.setattr(spots, "WIDEST", SHAPE[1])
    (small,), (large,) = found(), found(times=2)
    # Of two pixels that became one the middle lies between them.
    assert (large.x, large.y) == (pytest.approx(2 * small.x + 0.5), pytest.approx(2 * small.y + 0.5))
    assert (large.radius, large.darkness) == (pytest.approx(2 * small.radius), pytest.approx(small.darkness))


def test_where_frames_lie_is_told_in_the_pixels_that_are_looked_at(monkeypatch):
    asked = []
    monkeypatch.setattr(spots, "WIDEST", SHAPE[1])

    def between(first, second):
        asked.append((first, second))
        return np.array([[1.0, 0, 8.0], [0, 1, -4.0]])

    def seen(sharpest, step_px, circle_px):
        assert (step_px, circle_px) == (STEP_PX, CIRCLE_PX)
        # As enlarged by a half, with the middles of pixels kept.
        assert sharpest._between(None, 3) == pytest.approx(np.array([[1.0, 0, 4.0], [0, 1, -2.0]]))
        assert sharpest._between(0, 3) == pytest.approx(np.array([[1.0, 0, 4.0], [0, 1, -2.0]]))
        assert list(sharpest.pictures) == list(FRAMES)
        assert {picture.shape for picture in sharpest.pictures.values()} == {SHAPE}
        return []

    monkeypatch.setattr(spots, "dust", seen)
    follower, pictures = shown(times=2)
    follower.between = between
    assert spots_of(follower, pictures.__getitem__, STACK, FLAT, {frame: float(frame) for frame in STACK}, 6) == []
    assert asked == [(6, 3), (0, 3)]


def test_of_few_frames_or_where_no_depth_is_known_nothing_is_told():
    assert found(usable=STACK[:7]) is None
    assert found(fit=SimpleNamespace(depths=np.full(DOWN * ACROSS, np.nan))) is None


def test_spots_are_findings_of_no_frame_at_their_place_in_the_full_picture():
    assert spot_findings([Spot(100.0, 60.0, 3.0, 0.3)], 4) == [
        Found("sensor_dust", None, 0.3, "share", place=(401.5, 241.5))
    ]
    assert spot_findings([Spot(100.0, 60.0, 3.0, 0.3)], 1)[0].place == (100.0, 60.0)
    assert spot_findings([], 4) == spot_findings(None, 4) == []
