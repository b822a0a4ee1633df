"""Frames laid on each other, against where the made-up camera really stood."""

from itertools import pairwise

import cv2
import numpy as np
import pytest

from just_plane.core.frames.check.register import FAILED, lay, ready
from just_plane.core.frames.check.similarity import IDENTITY, chained, inverse, moved
from just_plane.core.frames.check.tiles import grid_for, light_between, measured
from stacks.camera import Faults
from stacks.kept import SIZE, grey, stack_of
from stacks.world import texture

pytestmark = pytest.mark.xdist_group("stacks")
CORNERS = np.stack([part.ravel() for part in np.meshgrid(np.linspace(0, SIZE[1], 9), np.linspace(0, SIZE[0], 9))], -1)


def off(found, true):
    """px, root mean square over the frame."""
    return float(np.sqrt(np.mean(np.sum((moved(found, CORNERS) - moved(true, CORNERS)) ** 2, axis=1))))


def errors(stack):
    prepared = [ready(grey(frame), 3.0) for frame in stack.frames]
    found = [lay(before, this).similarity for before, this in pairwise(prepared)]
    true = [chained(before, inverse(this)) for before, this in pairwise(stack.to_reference)]
    neighbours = [off(one, other) for one, other in zip(found, true, strict=True)]
    chain, known = IDENTITY, IDENTITY
    for one, other in zip(found, true, strict=True):
        chain, known = chained(chain, one), chained(known, other)
    return neighbours, off(chain, known)


@pytest.mark.parametrize(
    ("kind", "mode"),
    [("dome", "rail"), ("spines", "ring"), ("terraces", "rail"), ("hairs", "hand"), ("weak", "rail")],
)
def test_neighbours_lie_within_a_third_of_a_pixel_and_the_chain_within_nine_tenths(kind, mode):
    neighbours, chained_over_all = errors(stack_of(kind, 3, mode=mode))
    assert np.median(neighbours) < 0.10
    assert max(neighbours) < 0.30
    assert chained_over_all < 0.9


def test_a_jump_of_a_tenth_of_the_frame_is_followed():
    stack = stack_of("dome", 3, Faults(bump=(6, -26.0, 18.0)))
    prepared = [ready(grey(frame), 3.0) for frame in stack.frames[5:7]]
    true = chained(stack.to_reference[5], inverse(stack.to_reference[6]))
    assert off(lay(*prepared).similarity, true) < 0.3


@pytest.mark.parametrize(("kind", "before", "this"), [("dome", 1, 11), ("terraces", 1, 9)])
def test_frames_that_share_nothing_sharp_are_laid_by_their_coarse_detail_where_that_is_asked_for(kind, before, this):
    stack = stack_of(kind, 3)
    prepared = [ready(grey(stack.frames[frame]), 3.0) for frame in (before, this)]
    true = chained(stack.to_reference[before], inverse(stack.to_reference[this]))
    assert lay(*prepared).similarity is None
    assert off(lay(*prepared, coarsely=True).similarity, true) < 1.0


def test_two_pictures_of_different_things_are_not_laid_on_each_other():
    pictures = [
        cv2.GaussianBlur(texture(np.random.default_rng(seed), SIZE), (0, 0), 1).mean(axis=2) ** 0.45 for seed in (1, 2)
    ]
    prepared = [ready(picture.astype(np.float32), 3.0) for picture in pictures]
    for laid in (lay(*prepared), lay(*prepared, coarsely=True)):
        assert laid.similarity is None
        assert laid.likeness < FAILED


def test_light_between_frames_is_the_light_that_was_changed_whatever_is_in_focus():
    stack = stack_of("dome", 3, Faults(jump=(6, 0.2)))
    grid = grid_for(SIZE[1], SIZE[0], 3.0, 2.7)
    numbers = [measured(grey(frame), grid) for frame in stack.frames]
    found = []
    for place, (before, this) in enumerate(pairwise(stack.to_reference)):
        where = chained(before, inverse(this))
        found.append(light_between(numbers[place], numbers[place + 1], grid, where))
    wrong = np.abs(np.array(found) - np.diff(stack.light_ev))
    assert np.median(wrong) < 0.005
    assert wrong.max() < 0.02
