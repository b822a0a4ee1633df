"""What trials read off curves in closed form: bells over rows and frames, waves, lines with outliers."""

import math

import numpy as np
import pytest
from scipy.stats import linregress, norm

from just_plane.core.trials.backlash import read_backlash
from just_plane.core.trials.calm import read_calm
from just_plane.core.trials.edge import read_edge
from just_plane.core.trials.hand import hand_sway, sharp_lines
from just_plane.core.trials.rows import robust_line, row_energies, tracked
from just_plane.core.trials.slope import read_slope
from just_plane.core.trials.stops import best_stop, spread_of
from just_plane.core.trials.texture import shared_detail
from trials.made import climbing, edge, exposed, texture, through


def waves(shape, period_px, strength=0.3):
    return 0.5 + strength * 0.5 * np.cos(2 * np.pi * np.arange(shape[1]) / period_px)[np.newaxis, :] * np.ones(shape)


# --- detail of rows -----------------------------------------------------------------------------------------------


@pytest.mark.parametrize("exposure", [0.02, 1.0, 30.0])
def test_detail_of_rows_is_that_of_a_wave_across_them_whatever_the_exposure(exposure):
    """Eight pixels are half a period of 16: differences of twice the amplitude, whose mean square is 2 a^2."""
    across, down = row_energies(exposure * waves((40, 168), 16.0))
    assert across == pytest.approx(np.full(40, 2 * 0.3**2), rel=0.02)
    assert down == pytest.approx(np.zeros(168), abs=1e-9)
    beside, along = row_energies(exposure * waves((40, 168), 16.0).T)
    assert beside == pytest.approx(np.zeros(168), abs=1e-9)
    assert along == pytest.approx(np.full(40, 2 * 0.3**2), rel=0.02)


# --- rows through a stack -----------------------------------------------------------------------------------------


def test_rows_are_tracked_to_where_their_bells_stand():
    at = np.linspace(-2, 25, 500)
    found = tracked(climbing(24, at))
    assert found.rows_per_frame == pytest.approx(499 / 27, rel=0.01)
    assert found.peaks[found.places] == pytest.approx(at[found.places], abs=0.05)
    assert found.wanted[found.places] == pytest.approx(at[found.places], abs=0.2)
    # A bell of 1.6 frames is over half its top for 3.8: in three or four of them.
    assert 3 <= found.depth <= 4
    # Three frames from either end a bell is seen to both sides of its top; nearer it is not asked.
    assert (at[found.places].min(), at[found.places].max()) == pytest.approx((3, 20), abs=0.3)
    assert found.agree == 1


@pytest.mark.parametrize(("inside", "told"), [(58, True), (24, False)])
def test_so_many_rows_must_come_into_focus(inside, told):
    at = np.concatenate([np.full(140 - inside, -9.0), np.linspace(4, 19, inside)])
    found = tracked(climbing(24, at))
    if told:
        assert found.rows_per_frame == pytest.approx((inside - 1) / 15, rel=0.1)
    else:
        assert "No sharp place" in found


def test_a_way_shorter_than_three_depths_is_refused():
    """A bell of 3.4 frames is over half its top for 8: 24 frames at least."""
    assert "too short" in read_slope(climbing(21, np.linspace(5, 16, 400), wide=3.4))
    assert read_slope(climbing(26, np.linspace(5, 20, 400), wide=3.4)).rows_per_frame == pytest.approx(
        399 / 15, rel=0.01
    )


def test_where_rows_disagree_the_coarse_line_is_given_with_more_doubt():
    at = np.linspace(3, 26, 900)
    astray = np.arange(900) % 180 < 81
    found = read_slope(climbing(30, at + np.where(astray, 2.4, 0.0)))
    assert not found.fine
    assert 0.4 < found.agree < 0.6
    assert abs(found.rows_per_frame - 899 / 23) < 3 * found.doubt
    assert found.doubt < 0.1 * found.rows_per_frame


def test_where_most_rows_disagree_nothing_is_read():
    at = np.linspace(3, 26, 900) + 3 * ((np.arange(900) // 60) % 4)
    assert "do not agree" in read_slope(climbing(36, at))


@pytest.mark.parametrize(("off", "kept"), [(2.1, True), (2.35, False)])
def test_a_line_drops_what_lies_past_three_standard_deviations(off, kept):
    """Half of the points lie within 0.5 of a line: a deviation of 0.7415, as of a bell, three of which are 2.22."""
    x = np.arange(400.0)
    y = 0.25 * x - 7 + np.tile([0.0, 0.5, -1.5, 1.5, -0.5], 80)
    x, y = np.append(x, 199.5), np.append(y, 0.25 * 199.5 - 7 + off)
    expected = linregress(x, y) if kept else linregress(x[:-1], y[:-1])
    assert robust_line(x, y) == pytest.approx((expected.slope, expected.stderr), rel=1e-9)


@pytest.mark.parametrize("share", [0.0, 0.15])
def test_rows_off_the_coarse_line_are_no_play(share):
    """A label that stands before the rest in one pass only: too much of it to be taken for outliers."""
    rows = 480
    at = np.linspace(4, 25, rows)
    lies = at - 0.4
    begin = 200
    lies[begin : begin + int(share * rows)] += 2.6
    found = read_backlash(climbing(30, at), climbing(30, lies), 0.05)
    assert found.play == pytest.approx(0.4 * 0.05, rel=0.08)


@pytest.mark.parametrize("seed", range(2))
def test_play_is_seen_where_it_stands_two_deviations_out_of_its_doubt(seed):
    made, seen = np.random.default_rng(seed), set()
    at = np.linspace(4, 20, 400)
    jitter = np.repeat(made.normal(0, 0.25, 25), 16)
    for play in np.linspace(0, 0.4, 7):
        found = read_backlash(climbing(24, at), climbing(24, at - play + jitter), 1.0)
        assert found.seen == (found.play > 2 * found.doubt)
        seen.add(bool(found.seen))
    assert seen == {True, False}


# --- coming to rest -----------------------------------------------------------------------------------------------


def test_what_swings_more_and_more_before_it_stops_is_not_coming_to_rest():
    times = 0.04 * np.arange(60)
    swing = np.where(times < 1.6, 4 * np.exp(0.8 * times) * np.cos(40 * times), 0.0)
    told = read_calm(times, np.stack([swing + 0.01 * np.cos(171 * times), 0 * times], axis=-1))
    assert "does not come to rest" in told


# --- the sway of a hand -------------------------------------------------------------------------------------------


def burst(lines, down, rows=300, wide=12.0, seed=4):
    """Energies of a print of uneven strength, sharp at ``lines`` of the print and moved ``down`` px in each frame."""
    made = np.random.default_rng(seed)
    strength = np.interp(np.arange(-200, rows + 200), np.arange(-200, rows + 201, 25), made.uniform(0.7, 1.3, 29))
    answer = []
    for line, moved in zip(lines, down, strict=True):
        of_print = np.arange(rows) - moved
        answer.append(strength[of_print + 200] / (1 + ((of_print - line) / wide) ** 2))
    return np.array(answer)


def test_the_sharp_line_is_found_on_the_print_wherever_the_print_lies():
    made = np.random.default_rng(8)
    down = np.append([0], np.rint(made.normal(0, 18, 24)).astype(int))
    lines = made.uniform(110, 190, 25)
    assert sharp_lines(burst(lines, down), down) == pytest.approx(lines, abs=2.5)


def test_a_frame_twice_as_strong_changes_no_other():
    made = np.random.default_rng(8)
    lines, down = made.uniform(90, 210, 25), np.zeros(25, dtype=int)
    energies = burst(lines, down)
    energies[7] *= 2
    assert sharp_lines(energies, down) == pytest.approx(lines, abs=4)


def test_whether_a_line_lies_inside_is_asked_of_the_frame_not_of_the_print():
    """Rows 285 and 20 of the print, in frames that show them at 235 and 70; row 150 where a frame shows it at 295."""
    made = np.random.default_rng(5)
    lines = np.append(made.uniform(110, 190, 22), [285.0, 20.0, 150.0])
    down = np.append(np.zeros(22, dtype=int), [-50, 50, 145])
    found = sharp_lines(burst(lines, down), down)
    assert found[:22] == pytest.approx(lines[:22], abs=4)
    assert found[22:24] == pytest.approx(lines[22:24], abs=8)
    assert np.isnan(found[24])


@pytest.mark.parametrize(("told", "enough"), [(12, True), (11, False)])
def test_twelve_frames_and_three_of_four_must_tell(told, enough):
    lines = np.append(np.linspace(100, 200, told), np.full(4, np.nan))
    shifts = np.stack([np.linspace(0, 30, told + 4), np.linspace(0, 40, told + 4)], axis=-1)
    found = hand_sway(lines, shifts, 0.005, 0.5, math.radians(45))
    assert isinstance(found, str) != enough
    if enough:
        # A hundredth of a millimetre a pixel in the subject; as far along as across at 45 degrees.
        even = np.linspace(0, 1, 12).std(), np.linspace(0, 1, 16).std()
        assert found.along == pytest.approx(100 * 0.01 * even[0])
        assert found.across == pytest.approx(50 / math.sqrt(2) * 0.01 * even[1])
        assert found.frames == 12


# --- stops --------------------------------------------------------------------------------------------------------


def test_a_relative_curve_is_scaled_by_its_three_smallest_stops():
    """Seven stops, of which the three smallest are the model's: whatever the middle ones are."""
    modelled = np.array([0.9, 0.85, 0.8, 0.7, 0.6, 0.5, 0.4])
    sigma = np.array([0.006, 0.005, 0.004, 0.003, 0.0, 0.0, 0.0])
    measured = 5 * modelled * np.exp(-2 * (np.pi * 30 * sigma) ** 2)
    assert spread_of(measured, modelled, 30.0, relative=True) == pytest.approx(sigma, abs=1e-9)


def test_of_two_stops_either_is_at_an_end():
    assert best_stop([4.0, 8.0], np.array([1.0, 0.8]), 1e-8 * np.ones(2)).at_end
    assert not best_stop([8.0], np.array([1.0]), 1e-8 * np.ones(1)).at_end


@pytest.mark.parametrize("count", [5, 7])
def test_noisy_stops_are_read_by_a_parabola_over_their_neighbours(count):
    """A wrong value among values on a parabola of the stops is not the best, once noise says that one may be wrong."""
    steps = np.arange(count) - count // 2
    contrast = 1 - 0.04 * steps.astype(float) ** 2
    contrast[count // 2 + 1] += 0.07
    numbers = 8 * 2 ** (steps / 3)
    energy, spreads = contrast**2, 0.08 * np.ones(count)
    assert best_stop(numbers, energy, spreads, noise=0.0).best == pytest.approx(numbers[count // 2 + 1])
    smoothed = best_stop(numbers, energy, spreads, noise=0.05)
    assert smoothed.stops[count // 2].contrast > 0.99


# --- what two frames share ----------------------------------------------------------------------------------------


def test_two_frames_of_a_wave_share_its_square_in_every_row_of_tiles():
    frame = waves((640, 640), 5.0)
    shared, strong = shared_detail(frame, frame, 0.2), shared_detail(*[waves((640, 640), 5.0, 0.6)] * 2, 0.2)
    assert strong.energy == pytest.approx(4 * shared.energy, rel=1e-3)
    assert shared.rows == pytest.approx(np.full(len(shared.rows), shared.energy), rel=1e-3)
    assert len(shared.rows) > 1
    assert shared.noise == pytest.approx(0, abs=0.01)


def test_frames_of_other_sizes_and_tiny_ones_and_too_fine_detail_are_refused():
    made = np.random.default_rng(1).random
    for first, second, frequency, words in (
        ((64, 64), (64, 80), 0.2, "one size"),
        ((31, 200), (31, 200), 0.2, "at least 32 px"),
        ((64, 64), (64, 64), 0.38, "finer than pixels hold"),
        # Tiles of 32 px hold no wave longer than that, and the ring reaches a third above what is asked.
        ((64, 64), (64, 64), 0.02, "wider than the 32 px"),
    ):
        with pytest.raises(ValueError, match=words):
            shared_detail(made(first), made(second), frequency)
    assert len(shared_detail(made((32, 200)), made((32, 200)), 0.37).rows) >= 1


# --- a slanted edge -----------------------------------------------------------------------------------------------


@pytest.mark.parametrize("sigma", [0.6, 1.0, 2.0])
@pytest.mark.parametrize(("angle", "turned"), [(4.0, False), (-9.0, True)])
def test_an_edge_through_a_bell_has_the_contrast_of_the_bell_and_of_pixels(sigma, angle, turned):
    """exp(-2 (pi sigma f)^2), times what a square pixel leaves along the edge's normal."""
    fine = through(edge(angle), lambda r: np.exp(-2 * (np.pi * r * 8 * sigma) ** 2))
    seen = fine.reshape(200, 8, 260, 8).mean((1, 3))[20:-20, 30:-30]
    read = read_edge(seen.T if turned else seen[:, ::-1])
    assert math.degrees(read.angle) == pytest.approx(abs(angle), abs=0.05)
    asked = np.arange(0.05, 0.5, 0.05)
    pixel = np.sinc(asked * math.cos(read.angle)) * np.sinc(asked * math.sin(read.angle))
    expected = np.exp(-2 * (np.pi * sigma * asked) ** 2) * pixel
    assert np.array([read.at(each) for each in asked]) == pytest.approx(expected, abs=0.008)


@pytest.mark.parametrize("by", [5, 30])
def test_an_edge_that_breaks_in_three_is_refused(by):
    seen = edge(6, shape=(200, 400)).reshape(200, 8, 400, 8).mean((1, 3))
    broken = np.concatenate([seen[:70], np.roll(seen, by, axis=1)[70:140], np.roll(seen, -by, axis=1)[140:]])
    assert "not straight" in read_edge(exposed(broken[:, 30:-30], 0.01, np.random.default_rng(1)))


def curved(beside):
    """A sharp edge a tenth off the pixels, and ``beside`` (px, of rows from the middle in hundreds) of that line."""
    row, column = np.mgrid[:1600, :2080] / 8
    side = (column - 130) - 0.1 * (row - 100) - beside((row - 100) / 100)
    return np.where(side > 0, 0.75, 0.2).reshape(200, 8, 260, 8).mean((1, 3))


@pytest.mark.parametrize("bend", [lambda u: 6 * u**2, lambda u: 15 * u**2, lambda u: 4 * (u**3 - u)])
def test_an_edge_that_a_lens_or_paper_bends_is_as_sharp_as_it_is(bend):
    """Read as straight, one that bends by 6 px would lose half of its contrast at a tenth of a cycle a pixel."""
    read = read_edge(exposed(curved(bend), 0.01, np.random.default_rng(1)))
    asked = np.array([0.05, 0.1, 0.2, 0.3])
    assert np.array([read.at(each) for each in asked]) == pytest.approx(np.sinc(asked), abs=0.015)


def test_an_edge_that_winds_is_refused():
    winding = curved(lambda u: 2 * np.sin(4 * np.pi * u))
    assert "not straight" in read_edge(exposed(winding, 0.01, np.random.default_rng(1)))


@pytest.mark.parametrize("seed", range(12))
def test_noise_does_not_bend_a_straight_edge(seed):
    made = np.random.default_rng(seed)
    angle, soft = math.radians(made.uniform(3, 19)), made.uniform(0.6, 6)
    row, column = np.mgrid[:500, :900]
    away = (column - 450) * math.cos(angle) - (row - 250) * math.sin(angle)
    read = read_edge(exposed(0.2 + 0.55 * norm.cdf(away / soft), 0.04, made))
    assert read.angle == pytest.approx(angle, abs=0.02)


@pytest.mark.parametrize(("step", "stands_out"), [(0.25, False), (0.6, True)])
def test_an_edge_must_be_ten_noises_high(step, stands_out):
    seen = edge(6, low=0.2, high=0.2 + step).reshape(200, 8, 260, 8).mean((1, 3))
    read = read_edge(exposed(seen, 0.04, np.random.default_rng(2)))
    assert isinstance(read, str) != stands_out


def test_texture_far_from_the_edge_does_not_turn_it():
    seen = edge(8).reshape(200, 8, 260, 8).mean((1, 3))
    speckled = seen + 0.12 * (texture("printed", seen.shape, 3) - 0.45) * (np.arange(260) < 60)
    read = read_edge(speckled)
    assert math.degrees(read.angle) == pytest.approx(8, abs=0.1)


def test_the_error_of_a_line_through_three_points_goes_by_the_one_freedom_that_is_left():
    # Off by a third of a tenth, two thirds, a third: the sum of squares is 0.02 / 3, the places' is 2.
    slope, error = robust_line(np.array([0.0, 1.0, 2.0]), np.array([0.0, 1.1, 2.0]))
    assert (slope, error) == pytest.approx((1.0, np.sqrt(0.02 / 3 / 2)))
