"""Pictures cut into strips and parts: nothing is left out, nothing counts twice, and no cut can be seen."""

import cv2
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.core.frames.check.focus_fit import through_frames
from just_plane.core.frames.proof.by_depth import DepthMerge
from just_plane.core.frames.proof.by_detail import DetailMerge, depth_window, levels_of, strip_window
from just_plane.core.frames.proof.strips import BELOW, MARGIN, UNIT, Part, parts, shares, strips

HEIGHT, WIDTH, TIMES = 1100, 700, 2


@given(height=st.integers(1, 9000), width=st.integers(1, 9000))
def test_strips_make_every_row_once_and_begin_on_whole_units(height, width):
    cut = strips(height, width)
    assert [strip.first for strip in cut] == [0, *[strip.last for strip in cut[:-1]]]
    assert cut[-1].last == height
    assert all(strip.top % UNIT == 0 for strip in cut)
    assert all(strip.first - strip.top in (0, BELOW) and strip.bottom >= min(strip.last + 1, height) for strip in cut)


@given(count=st.integers(1, 40), workers=st.integers(1, 12))
def test_shares_are_all_of_the_strips_and_nearly_alike(count, workers):
    divided = shares(count, workers)
    assert [number for first, last in divided for number in range(first, last)] == list(range(count))
    sizes = [last - first for first, last in divided]
    assert max(sizes) - min(sizes) <= 1


@settings(max_examples=60)
@given(seed=st.integers(0, 10_000), density=st.floats(0.001, 0.3), which=st.integers(0, 1))
def test_parts_take_all_that_is_wanted_once_and_look_a_margin_further(seed, density, which):
    strip = strips(HEIGHT, WIDTH)[which]
    shape = (-(-strip.shape[0] // UNIT), -(-WIDTH // UNIT))
    wanted = np.random.default_rng(seed).uniform(size=shape) < density
    taken = np.zeros(strip.shape, int)
    for part in parts(wanted, strip, HEIGHT):
        taken[part.upper : part.lower, part.first : part.last] += 1
        assert part.left == max(part.first - MARGIN, 0)
        assert part.right == min(part.last + MARGIN, WIDTH)
        assert strip.top + part.top == max(strip.top + part.upper - MARGIN, 0)
        assert strip.top + part.bottom == min(strip.top + part.lower + MARGIN, HEIGHT)
    assert taken.max(initial=0) <= 1
    full = wanted.repeat(UNIT, axis=0).repeat(UNIT, axis=1)[: strip.shape[0], :WIDTH]
    assert (taken[full] == 1).all()


@pytest.fixture(scope="module")
def frames():
    generator = np.random.default_rng(1)
    grain = np.rint(generator.uniform(0, 8192, (7, HEIGHT, WIDTH, 3))).astype(np.int16)
    return [cv2.GaussianBlur(frame, (0, 0), 1 + 0.5 * abs(k - 3)) for k, frame in enumerate(grain)]


@pytest.fixture(scope="module")
def depth():
    rows, columns = np.mgrid[: HEIGHT // TIMES, : WIDTH // TIMES]
    return (6 * (columns / columns.max() * 0.7 + rows / rows.max() * 0.3)).astype(np.float32)


def merge_of(method, depth, top, bottom):
    if method == "pyramid":
        return DetailMerge((bottom - top, WIDTH))
    if method == "windowed":
        return DetailMerge((bottom - top, WIDTH), strip_window(depth, *depth_window(depth, 4), TIMES, top, bottom))
    full = cv2.resize(depth, (WIDTH, HEIGHT), interpolation=cv2.INTER_LINEAR)
    return DepthMerge(full[top:bottom])


def seen(method, picture):
    return picture if method == "depth" else levels_of(picture)


@pytest.mark.parametrize("method", ["depth", "pyramid", "windowed"])
def test_a_picture_merged_in_strips_and_parts_has_the_bytes_of_one_merged_whole(frames, depth, method):
    whole = merge_of(method, depth, 0, HEIGHT)
    for k, frame in enumerate(frames):
        whole.take(k, seen(method, frame), Part(0, WIDTH, 0, HEIGHT, 0, WIDTH, 0, HEIGHT))
    made, looked_at = [], 0
    for strip in strips(HEIGHT, WIDTH):
        merge = merge_of(method, depth, strip.top, strip.bottom)
        for k, frame in enumerate(frames):
            for part in parts(merge.wanted(k), strip, HEIGHT):
                box = frame[strip.top + part.top : strip.top + part.bottom, part.left : part.right]
                looked_at += (part.lower - part.upper) * (part.last - part.first)
                merge.take(k, seen(method, box), part)
        made.append(merge.picture()[strip.made])
    assert (np.concatenate(made) == whole.picture()).all()
    # By depth most frames have a part in few places, and only there they are looked at.
    assert (looked_at < 0.85 * len(frames) * HEIGHT * WIDTH) == (method != "pyramid")


@given(
    seed=st.integers(0, 10_000),
    count=st.integers(1, 30),
    share=st.sampled_from([0.0, 0.08, 0.5, 1.0]),
    missing=st.floats(0, 0.6),
)
def test_a_share_of_the_way_up_is_the_quantile_of_what_is_known(seed, count, share, missing):
    generator = np.random.default_rng(seed)
    values = generator.uniform(0, 1, (count, 12))
    gone = generator.uniform(size=values.shape) < missing
    gone[0] = False
    values[gone] = np.nan
    assert through_frames(values, share) == pytest.approx(np.nanquantile(values, share, axis=0), abs=1e-12)
