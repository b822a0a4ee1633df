"""Shake, of energies that are made by formula: which frames, by how much, and when it cannot be told."""

import numpy as np
import pytest

from just_plane.core.frames.check.focus_fit import FocusFit
from just_plane.core.frames.check.shake import Stillness, stillness
from just_plane.core.frames.check.tiles import CURVE, FINE
from stacks.camera import Faults
from stacks.kept import judged

FRAMES, TILES = 14, 1200
FLOOR = 1e-4
WIDTH = 1.35


def made(loss=None, fine=None, lean=None, depths=None, seed=3):
    """Energies and slopes of a stack whose tiles lie at every depth; frames lose so much of either band (ln)."""
    made = np.random.default_rng(seed)
    depths = made.uniform(0, FRAMES - 1, TILES) if depths is None else depths
    places = np.arange(FRAMES, dtype=float)
    loss, fine = (np.zeros(FRAMES) if value is None else np.asarray(value, float) for value in (loss, fine))
    texture = np.exp(made.normal(0, 0.5, TILES))
    away = places[:, np.newaxis] - depths
    curve = texture * np.exp(-(away**2) / (2 * WIDTH**2) + loss[:, np.newaxis])
    # The finest detail gives way sooner, and each tile has its own share of it.
    share = np.exp(made.normal(-1, 0.3, TILES))
    finest = curve * share * np.exp(-0.3 * away**2 + fine[:, np.newaxis])
    energies = np.zeros((FRAMES, 4, TILES))
    energies[:, CURVE], energies[:, FINE] = curve + FLOOR, finest + FLOOR
    own = made.normal(0, 0.2, (2, TILES))
    lean = np.zeros((FRAMES, 2)) if lean is None else np.asarray(lean, float)
    slopes = np.empty((FRAMES, 3, TILES))
    for k in range(FRAMES):
        along, skew = own[0] + lean[k, 0], own[1] + lean[k, 1]
        slopes[k] = (1 + along) / 2, (1 - along) / 2, skew / 2
    fit = FocusFit(places, loss, depths, np.zeros(TILES), WIDTH, np.full(TILES, FLOOR), np.ones(TILES, bool))
    return energies, slopes, fit


def one(frame, value):
    values = np.zeros(FRAMES)
    values[frame] = value
    return values


def leaning(frame, along, skew=0.0):
    lean = np.zeros((FRAMES, 2))
    lean[frame] = along, skew
    return lean


def test_a_still_stack_has_no_shaken_frame():
    still = stillness(*made())
    assert not still.shaken.any()
    inner = slice(3, -3)
    assert np.abs(still.loss[inner]).max() < 0.01
    assert np.abs(still.fine_loss[inner]).max() < 0.08
    assert still.one_way[inner].max() < 0.03


@pytest.mark.parametrize(("along", "skew"), [(0.3, 0.0), (-0.3, 0.0), (0.0, 0.3), (0.21, -0.21)])
def test_a_shaken_frame_is_found_whichever_way_it_was_shaken_and_by_how_much(along, skew):
    still = stillness(*made(one(6, -0.5), one(6, -0.6), leaning(6, along, skew)))
    assert list(np.flatnonzero(still.shaken)) == [6]
    assert list(np.flatnonzero(still.plainly_shaken)) == [6]
    assert still.loss[6] == pytest.approx(-0.5, abs=0.02)
    # A tile is in the other near frames too: what they lost is nought, so what this lost is whole.
    assert still.fine_loss[6] == pytest.approx(-0.6, abs=0.15)
    assert still.one_way[6] == pytest.approx(0.3, abs=0.06)


def test_a_frame_that_lost_detail_all_ways_alike_was_not_shaken():
    """Out of focus, or of a subject that has less there: it does not run one way."""
    assert not stillness(*made(one(6, -0.5), one(6, -0.6))).shaken.any()


def test_a_frame_that_runs_one_way_and_lost_nothing_was_not_shaken():
    assert not stillness(*made(None, None, leaning(6, 0.3))).shaken.any()


def test_a_row_of_frames_that_fade_was_not_shaken():
    """A subject that has ever less detail: each frame is worse than one beside it, none than both."""
    fading = -0.4 * np.arange(FRAMES)
    lean = np.tile([0.1, 0.0], (FRAMES, 1)) * np.arange(FRAMES)[:, np.newaxis]
    assert not stillness(*made(fading, fading, lean)).shaken.any()


def test_a_frame_whose_subject_lies_between_it_and_others_lost_no_fine_detail():
    """All its tiles are nearly a step away, where fine detail has gone in any frame: that is no shake."""
    depths = np.random.default_rng(1).uniform(0, FRAMES - 1, TILES)
    near = np.abs(depths - 6) < 0.9
    depths[near] = np.where(depths[near] < 6, 5.0, 7.0)
    still = stillness(*made(depths=depths))
    assert still.fine_loss[6] == pytest.approx(0, abs=0.1)


def test_a_frame_with_little_in_focus_is_not_judged():
    depths = np.random.default_rng(1).uniform(0, FRAMES - 1, TILES)
    away = np.abs(depths - 6) < 1.25
    depths[away] = np.where(depths[away] < 6, 4.5, 7.6)
    depths[:10] = 6.0  # ten tiles are too few
    still = stillness(*made(one(6, -0.5), one(6, -0.6), leaning(6, 0.3), depths))
    assert np.isnan(still.loss[6])
    assert not still.shaken[6]
    assert np.isfinite(still.loss[[3, 9]]).all()


def stands(**by_frame):
    """Numbers of seven frames of which the fourth differs."""
    still = {"loss": 0.0, "fine_loss": 0.0, "one_way": 0.0}
    return Stillness(*(np.where(np.arange(7) == 3, by_frame.get(name, value), value) for name, value in still.items()))


@pytest.mark.parametrize(
    ("loss", "fine", "one_way", "shaken"),
    [
        (-0.11, -0.21, 0.08, True),
        (-0.09, -0.21, 0.08, False),
        (-0.11, -0.19, 0.08, False),
        # A smear that leaves (0.452, 1) of (1, 1), so that ln 0.726 = -0.32 is lost, makes 0.548 / 1.452 run one way.
        (-0.11, -0.21, 0.18 * 0.38, True),
        (-0.11, -0.21, 0.18 * 0.37, False),
        # One that leaves nothing of one direction, or less than nothing, makes all run the other way.
        (-0.4, -0.4, 0.19, True),
        (-0.4, -0.4, 0.17, False),
        (-0.26, 0.0, 0.21, True),
        (-0.24, 0.0, 0.21, False),
        (-0.26, 0.0, 0.19, False),
    ],
)
def test_all_three_signs_together_or_two_strong_ones_are_shake(loss, fine, one_way, shaken):
    assert stands(loss=loss, fine_loss=fine, one_way=one_way).shaken[3] == shaken


@pytest.mark.parametrize(("one_way", "plainly"), [(0.16, True), (0.14, False)])
def test_plain_is_what_runs_one_way_as_nothing_else_does(one_way, plainly):
    assert stands(loss=-0.2, fine_loss=-0.21, one_way=one_way).plainly_shaken[3] == plainly


def test_of_two_frames_alike_beside_each_other_neither_is_alone():
    still = stands(loss=-0.5, fine_loss=-0.5, one_way=0.3)
    both = still._replace(
        loss=np.where([0, 0, 0, 1, 1, 0, 0], -0.5, 0.0), one_way=np.where([0, 0, 0, 1, 1, 0, 0], 0.3, 0.0)
    )
    assert not both._replace(fine_loss=np.zeros(7)).shaken.any()
    # A tenth worse than the other is the one that was shaken.
    apart = both._replace(fine_loss=np.array([0, 0, 0, -0.1, 0, 0, 0]))
    assert list(np.flatnonzero(apart.shaken)) == [3]


def test_beside_a_frame_that_cannot_be_judged_one_is_worse_than_the_other_side():
    still = stands(loss=-0.5, fine_loss=-0.5, one_way=0.3)
    unknown = still._replace(loss=np.where(np.arange(7) == 2, np.nan, still.loss))
    assert list(np.flatnonzero(unknown.shaken)) == [3]


@pytest.mark.parametrize(("kind", "frame"), [("spines", 9), ("hairs", 10), ("terraces", 1)])
def test_a_frame_that_was_smeared_much_is_not_taken_for_one_out_of_order(kind, frame):
    checked = judged(kind, 12, Faults(shake=(frame, 9.0, 30.0)))
    (said,) = checked.findings
    assert (said.code, said.frame, said.unit) == ("shake", frame, "ln")
    # Nine pixels, three circles of confusion: more than two thirds of the finest detail is gone.
    assert said.amount < np.log(1 / 3)
    assert checked.order == list(range(12))


@pytest.mark.parametrize(("kind", "seed", "count"), [("spines", 19, 10), ("terraces", 16, 16), ("terraces", 1, 16)])
def test_a_subject_of_few_depths_has_no_shaken_frame_for_that(kind, seed, count):
    """Where few tiles are near a frame's own place, fine detail comes and goes by a third; it does not run one way."""
    assert judged(kind, seed, count=count).findings == []
