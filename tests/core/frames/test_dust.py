"""Dust on the sensor: found where it stays while the subject goes out of focus; scratches, edges and grains are not."""

import cv2
import numpy as np
import pytest

from just_plane.core.frames.check.dust import LOOKED_AT, dust
from just_plane.core.frames.check.foretold import Sharpest, Window
from just_plane.core.frames.check.similarity import IDENTITY, chained, inverse
from stacks.camera import Faults
from stacks.kept import judged

SHAPE = (192, 288)
CIRCLE_PX, STEP_PX = 3.0, 2.7
FRAMES = tuple(int(place) for place in np.round(np.linspace(0, 11, LOOKED_AT)))
DEEP = 6.0
"""Steps from the first frame at which all of the subject lies."""
HERE = np.mgrid[: SHAPE[0], : SHAPE[1]][::-1]
SPECK = (100.0, 60.0, 3.0, 3.0, 0.3)


def disc(blur):
    """A disc of defocus, its edge found by counting nine by nine points of each pixel."""
    reach = int(blur / 2) + 2
    fine = (np.arange((2 * reach + 1) * 9) + 0.5) / 9 - reach - 0.5
    inside = (np.hypot(*np.meshgrid(fine, fine)) <= max(blur, 0.9) / 2).astype(np.float32)
    spread = inside.reshape(2 * reach + 1, 9, 2 * reach + 1, 9).mean(axis=(1, 3))
    return spread / spread.sum()


def paper(strength=0.5):
    """Linear light of a strongly patterned print."""
    grain = np.random.default_rng(5).standard_normal(SHAPE).astype(np.float32)
    light = sum(cv2.GaussianBlur(grain, (0, 0), sigma) * sigma for sigma in (0.8, 2.0, 5.0))
    return np.clip(0.25 * np.exp(strength * light), 0.01, 0.95)


def shaded(light, spots):
    """Light of which each spot (x, y, wide, high, share) takes its share."""
    x, y = HERE
    for left, top, wide, high, share in spots:
        inside = (((x - left) / wide) ** 2 + ((y - top) / high) ** 2 < 1).astype(np.float32)
        light = light * (1 - share * cv2.GaussianBlur(inside, (0, 0), 0.7))
    return light


def frames(spots=(), on_subject=(), deep=DEEP, numbers=FRAMES, strength=0.5, step_px=STEP_PX):
    """A flat print through focus, encoded; specks on the sensor, and such on the print."""
    light = shaded(paper(strength), on_subject)
    noise = np.random.default_rng(6)
    for frame in numbers:
        seen = shaded(cv2.filter2D(light, -1, disc(abs(frame - deep) * step_px)), spots)
        counted = seen * 12_000
        yield frame, np.clip((counted + noise.standard_normal(SHAPE) * np.sqrt(counted)) / 12_000, 0, 1) ** (1 / 2.2)


def unmoved(_first, _second):
    return IDENTITY


def sharpest(pictures, depth=DEEP, between=unmoved):
    kept = {frame: picture.astype(np.float32) for frame, picture in pictures}
    return Sharpest(kept, {frame: float(frame) for frame in kept}, np.full(SHAPE, depth), between)


def found(*args, circle_px=CIRCLE_PX, step_px=STEP_PX, deep=DEEP, **more):
    return dust(sharpest(frames(*args, step_px=step_px, deep=deep, **more), deep), step_px, circle_px)


@pytest.mark.parametrize(
    ("radius", "share", "step_px"), [(3.0, 0.3, 2.7), (3.0, 0.15, 2.7), (2.5, 0.3, 2.7), (6.5, 0.3, 5.4)]
)
def test_a_speck_is_found_where_it_is_and_as_dark_as_it_is(radius, share, step_px):
    (spot,) = found([(100.0, 60.0, radius, radius, share)], step_px=step_px)
    assert (spot.x, spot.y) == (pytest.approx(100, abs=0.6), pytest.approx(60, abs=0.6))
    assert spot.radius == pytest.approx(radius, rel=0.07)
    assert spot.darkness == pytest.approx(share, abs=0.05)


def test_of_a_clean_sensor_nothing_is_said():
    assert found() == []


@pytest.mark.parametrize(
    "spot",
    [
        (100.0, 60.0, 16.0, 2.0, 0.3),  # a scratch along
        (100.0, 60.0, 2.0, 16.0, 0.3),  # and one across
        (100.0, 60.0, 30.0, 30.0, 0.3),  # a shade
        (3.0, 60.0, 3.0, 3.0, 0.3),  # at the edge, where what lies outside is not known
        (100.0, 60.0, 3.0, 3.0, 0.03),  # hardly there
        (100.0, 60.0, 3.0, 3.0, -0.3),  # light
    ],
)
def test_what_is_long_wide_at_the_edge_light_or_hardly_there_is_no_speck(spot):
    assert found([spot]) == []


def test_two_specks_beside_each_other_are_not_told_from_the_subject():
    assert len(found([SPECK, (140.0, 60.0, 3.0, 3.0, 0.3)])) == 2
    assert found([SPECK, (109.0, 60.0, 3.0, 3.0, 0.3)]) == []


@pytest.mark.parametrize("share", [0.3, 0.8])
def test_dark_grains_of_the_subject_are_none(share):
    grains = [(x, y, 3.0, 3.0, share) for x in (60.0, 140.0, 220.0) for y in (50.0, 90.0, 140.0)]
    assert found((), grains) == []


def test_a_place_that_never_was_far_out_of_focus_cannot_be_judged():
    # The first frame stands six steps of 2.7 px away, the last five.
    assert len(found([SPECK], circle_px=16.1 / 4)) == 1
    assert found([SPECK], circle_px=16.3 / 4) == []
    # Of a print at the very beginning the last frame stands eleven steps away.
    assert len(found([SPECK], circle_px=29.6 / 4, deep=0.0)) == 1
    assert found([SPECK], circle_px=29.8 / 4, deep=0.0) == []


def test_a_spot_that_comes_and_goes_is_none():
    # The subject is farthest out of focus in frame 0, then in 11, then in 3.
    for dirty in ({0}, {11}, {0, 3}, {0, 11}):
        clean, speckled = dict(frames()), dict(frames([SPECK]))
        mixed = {frame: speckled[frame] if frame in dirty else clean[frame] for frame in FRAMES}
        assert dust(sharpest(mixed.items()), STEP_PX, CIRCLE_PX) == []


def test_beside_a_jump_of_depth_nothing_is_told():
    # A plain print: how far out of focus it is taken to be to the right of the speck does not matter.
    kept = sharpest(frames([SPECK], strength=0.02))
    for far, spots in ((3.1, 0), (2.9, 1)):  # half of the six steps to the first frame
        depth = np.full(SHAPE, DEEP, np.float32)
        depth[:, 108:] = DEEP - far
        split = Sharpest(kept.pictures, kept.places, depth, unmoved)
        assert len([spot for spot in dust(split, STEP_PX, CIRCLE_PX) if spot.x < 108]) == spots


@pytest.mark.parametrize("truth", [0.8, 1.0, 1.25])
def test_what_a_step_blurs_in_truth_is_found_from_the_frames(truth):
    kept = sharpest(frames(step_px=truth * STEP_PX))
    for end in (0, 11):
        assert kept.of(end).step_px(STEP_PX) == pytest.approx(truth * STEP_PX, rel=0.04)


def test_frames_that_lie_elsewhere_are_foretold_where_they_lie():
    """Each frame 0.6 % larger than the one before, and shifted: places are told by hand."""

    def of_frame(frame):
        scale = 1.006 ** (frame - 6)
        return np.array([[scale, 0, 1.5 * (frame - 6)], [0, scale, -0.8 * (frame - 6)]])

    moved = [
        (frame, cv2.warpAffine(picture, of_frame(frame), SHAPE[::-1], borderMode=cv2.BORDER_REFLECT))
        for frame, picture in frames()
    ]

    def between(first, second):
        start = IDENTITY if first is None else inverse(of_frame(first))
        return chained(start, of_frame(second))

    right, wrong = (sharpest(moved, between=way).of(11) for way in (between, unmoved))
    inside = (slice(40, -40), slice(40, -40))
    left, whole = (np.abs(one.beyond(STEP_PX)[inside]).mean() for one in (right, wrong))
    assert left < 0.35 * whole
    assert right.away[inside] == pytest.approx(5)


def test_a_frame_that_foretells_is_out_of_focus_itself_as_far_as_it_is():
    # Frame 3 is 8.1 px out of focus, frame 0 16.2: what is missing is 14, not 16.
    foretold = sharpest(frames(numbers=(0, 3))).of(0)
    inside = (slice(20, -20), slice(20, -20))
    left, too_far = (
        np.abs(one.beyond(STEP_PX)[inside]).mean() for one in (foretold, foretold._replace(own=0 * foretold.own))
    )
    assert left < 0.95 * too_far


def test_a_part_of_a_frame_is_foretold_as_the_whole_is():
    kept = sharpest(frames())
    window = Window(60, 40, 120, 100)
    part, whole = (kept.of(0, where).beyond(STEP_PX) for where in (window, None))
    inside = (slice(20, -20), slice(20, -20))
    assert np.abs(part[inside] - window.of(whole)[inside]).max() < 1e-4


@pytest.mark.parametrize("kind", ["terraces", "sparkle"])
def test_dust_is_found_in_whole_stacks_with_its_share_of_light(kind):
    checked = judged(kind, 4, Faults(dust=(205.0, 88.0, 3.0, 0.3)))
    (one,) = checked.findings
    assert one.code == "sensor_dust"
    assert one.place == (pytest.approx(205, abs=1.5), pytest.approx(88, abs=1.5))
    assert one.amount == pytest.approx(0.3, abs=0.08)


def test_strong_dust_is_no_depth():
    """On a print of 3 % it is the only detail of its tiles, and the same in every frame; what lies around has depth."""
    checked = judged("weak", 4, Faults(dust=(205.0, 88.0, 3.0, 0.3)))
    assert [one.code for one in checked.findings] == ["sensor_dust"]
