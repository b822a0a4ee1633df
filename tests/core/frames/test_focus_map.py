"""Depth by the pixel from curves of known shape, and plain places filled from what is around them and looks alike."""

import cv2
import numpy as np
import pytest

from just_plane.core.frames.proof.by_detail import DetailMerge, levels_of
from just_plane.core.frames.proof.focus_map import FocusMap, FocusPass, _guided, _slow, filled
from just_plane.core.frames.proof.strips import Part

SHAPE = (96, 128)


def rng(seed=1):
    return np.random.default_rng(seed)


def print_of(strength):
    """Fine print whose contrast is so strong, on a middle grey."""
    return (0.5 + strength * 0.25 * (rng().random(SHAPE) - 0.5)).astype(np.float32)


def passed(strengths):
    found = FocusPass(SHAPE, 3.0)
    for strength in strengths:
        found.add(print_of(strength))
    return found.map()


@pytest.mark.parametrize("peak", [1.0, 1.3, 2.0, 2.45, 3.0])
def test_the_depth_lies_where_a_bell_has_its_top(peak):
    """Contrast falls as a bell, and so does its square: three values of it give the top exactly."""
    found = passed([np.exp(-((k - peak) ** 2) / 4) for k in range(5)])
    assert np.median(found.depth) == pytest.approx(peak, abs=0.06)


def test_at_either_end_no_fraction_is_guessed():
    assert np.median(passed([1.0, 0.6, 0.3, 0.1]).depth) == 0.0
    assert np.median(passed([0.1, 0.3, 0.6, 1.0]).depth) == 3.0


def test_of_frames_alike_the_first_is_kept_and_nothing_is_sure():
    found = passed([0.5, 0.5, 0.5])
    assert np.median(found.depth) == 0.0
    assert found.confidence.max() == 0.0


def test_how_sure_goes_by_how_far_the_best_stands_over_the_least():
    """Energies of 1 and of 1/4 are 4 apart: 4/6 - 1/3; of 1 and 1/9: 9/6 - 1/3, which is sure."""
    assert np.median(passed([0.5, 1.0, 0.5]).confidence) == pytest.approx(4 / 6 - 1 / 3, abs=0.01)
    assert np.median(passed([1 / 3, 1.0, 1 / 3]).confidence) == 1.0
    assert np.median(passed([0.71, 1.0, 0.71]).confidence) == pytest.approx(0.0, abs=0.01)


def test_the_light_kept_is_that_of_the_best_frame():
    found = passed([0.2, 1.0, 0.4])
    assert np.abs(found.luma - print_of(1.0)).max() < 1e-6


def test_light_that_changes_slowly_is_smoothed_alike_at_a_quarter_of_the_pixels():
    y, x = np.mgrid[: SHAPE[0], : SHAPE[1]]
    picture = (0.5 + 0.3 * np.sin(x / 9) * np.cos(y / 11)).astype(np.float32)
    inside = (slice(30, -30), slice(30, -30))
    assert _slow(picture, 6.0)[inside] == pytest.approx(cv2.GaussianBlur(picture, (0, 0), 6.0)[inside], abs=0.012)
    noisy = rng().random(SHAPE).astype(np.float32)
    # White noise smoothed by sigma keeps 1 / (2 sigma sqrt(pi)) of its spread.
    assert _slow(noisy, 6.0)[inside].std() == pytest.approx(noisy.std() / (12 * np.sqrt(np.pi)), rel=0.4)
    assert _slow(noisy, 2.0) == pytest.approx(cv2.GaussianBlur(noisy, (0, 0), 2.0), abs=0.01)


def test_what_follows_the_guide_comes_out_as_it_went_in():
    guide = cv2.GaussianBlur(rng(2).random(SHAPE).astype(np.float32), (0, 0), 3) * 100
    weight = rng(3).uniform(0.2, 1.0, SHAPE).astype(np.float32)
    answer, total = _guided((3 * guide + 7).astype(np.float64), guide.astype(np.float64), weight.astype(np.float64), 8)
    assert answer == pytest.approx(3 * guide + 7, rel=2e-3)
    assert total == pytest.approx(cv2.boxFilter(weight.astype(np.float64), -1, (17, 17)), rel=1e-6)


def test_where_the_guide_says_nothing_the_weighted_mean_comes_out():
    values, weight = rng(4).random(SHAPE), rng(5).uniform(0.1, 1.0, SHAPE)
    answer, _ = _guided(values, np.full(SHAPE, 0.4), weight, 6)

    def mean(picture):
        return cv2.boxFilter(picture, -1, (13, 13))

    once = mean(weight * values) / mean(weight)
    assert answer == pytest.approx(mean(weight * once) / mean(weight), abs=1e-6)


def halves(depth_left, depth_right, plain):
    """Two grounds of different light; a plain spot in the left one, of which the depth is not known."""
    depth = np.full(SHAPE, depth_left, np.float32)
    depth[:, 64:] = depth_right
    luma = np.where(np.arange(SHAPE[1]) < 64, 0.2, 0.8).astype(np.float32)[None, :].repeat(SHAPE[0], axis=0)
    confidence = np.ones(SHAPE, np.float32)
    depth[plain], confidence[plain] = 9.0, 0.0
    return FocusMap(depth, confidence, luma)


def test_a_plain_spot_takes_the_depth_of_what_looks_like_it():
    spot = (slice(40, 54), slice(34, 48))
    answer = filled(halves(2.0, 6.0, spot), 3.0)
    assert answer[spot] == pytest.approx(2.0, abs=0.35)
    answer[spot] = 2.0
    assert (answer == halves(2.0, 6.0, (slice(0), slice(0))).depth).all()


def test_where_it_is_sure_depth_stays_but_for_lone_pixels():
    found = halves(2.0, 6.0, (slice(0), slice(0)))
    found.depth[20, 20] = 5.0
    answer = filled(found, 3.0)
    assert answer[20, 20] == 2.0
    assert (answer[:, 64:] == 6.0).all()
    # A change of less than a frame is no lone pixel.
    found.depth[20, 20] = 2.9
    assert filled(found, 3.0)[20, 20] == pytest.approx(2.9)


def test_a_proof_stays_between_black_and_white():
    picture = (8192 * (rng(6).random((64, 64, 3)) > 0.5)).astype(np.int16)
    merge = DetailMerge((64, 64))
    for frame, each in enumerate((picture, 8192 - picture)):
        merge.take(frame, levels_of(each), Part(0, 64, 0, 64, 0, 64, 0, 64))
    proof = merge.picture()
    assert (proof.min(), proof.max()) == (0.0, 1.0)
