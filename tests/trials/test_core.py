"""The estimators on photographs of known lenses, rails and edges; bounds are those the job asks for."""

import math

import numpy as np
import pytest
from scipy.stats import linregress

from just_plane.core.trials.backlash import read_backlash
from just_plane.core.trials.edge import _width, read_edge
from just_plane.core.trials.rows import robust_line, row_energies
from just_plane.core.trials.slope import SlopeReading, angle_by_ruler, read_slope, step_of
from just_plane.core.trials.stillness import dark_frames, longest_shutter
from just_plane.core.trials.stops import best_stop, model_contrast, spread_of
from just_plane.core.trials.texture import shared_detail
from trials.made import PITCH, THIRDS, Lens, climbing, diffraction, edge, exposed, pair, slope_stack, texture, through

NU = 1 / 0.03
PHI = np.radians(40)


def stops_of(seed, kind, noise, shape=(300, 400)):
    lens, made = Lens(seed, m=(0.5, 1.0, 1.5)[seed % 3]), np.random.default_rng(1000 + seed)
    scene = texture(kind, shape, seed)
    shared = [shared_detail(*pair(lens, n, scene, noise, made), NU * PITCH) for n in THIRDS]
    found = best_stop(
        THIRDS,
        [each.energy for each in shared],
        [each.spread for each in shared],
        float(np.median([each.noise for each in shared])),
    )
    return found, *lens.best(NU)


@pytest.mark.parametrize(("noise", "exactly"), [(0.01, 0.95), (0.04, 0.75)])
def test_the_best_stop_of_printed_texture(noise, exactly):
    off = []
    for seed in range(12):
        found, true, _ = stops_of(seed, "printed", noise)
        off.append(abs(THIRDS.index(true) - THIRDS.index(found.best)))
        assert true in found.could_be
    assert max(off) <= 1
    assert np.mean(np.array(off) == 0) >= exactly


def test_weak_texture_is_refused_or_says_what_it_leaves_open():
    for seed in range(8):
        found, true, _ = stops_of(seed, "paper", 0.04)
        if not isinstance(found, str):
            assert abs(THIRDS.index(true) - THIRDS.index(found.best)) <= 1 or true in found.could_be
    assert isinstance(stops_of(2, "paper", 0.08)[0], str)


def test_contrast_of_every_stop_follows_the_lens():
    found, _, values = stops_of(4, "printed", 0.01)
    measured = np.array([stop.contrast for stop in found.stops])
    assert measured == pytest.approx(values / values.max(), abs=0.11)


def test_noise_is_not_taken_for_detail():
    made = np.random.default_rng(3)
    one, two = (np.clip(0.5 + 0.05 * made.standard_normal((300, 400)), 0, 1) for _ in range(2))
    shared = shared_detail(one, two, 0.2)
    assert abs(shared.energy) < 4 * shared.spread
    assert shared.noise == pytest.approx(0.1, rel=0.05)


@pytest.mark.parametrize("shift", [(0.0, 0.0), (1.3, -0.6), (-4.0, 2.5)])
def test_a_shift_between_two_frames_is_found_and_taken_out(shift):
    scene = texture("printed", (300, 400), 5)
    rows, columns = np.fft.fftfreq(300)[:, None], np.fft.rfftfreq(400)[None, :]
    soft = through(scene, lambda r: np.exp(-((r / 0.2) ** 2)))
    ramp = np.exp(-2j * np.pi * (columns * shift[0] + rows * shift[1]))
    moved = np.fft.irfft2(np.fft.rfft2(soft) * ramp, s=soft.shape)
    shared, still = shared_detail(soft, moved, 0.15), shared_detail(soft, soft, 0.15)
    assert shared.shift == pytest.approx(shift, abs=0.05)
    assert shared.energy == pytest.approx(still.energy, rel=0.1)


@pytest.mark.parametrize(("noise", "mean"), [(0.0, 0.01), (0.01, 0.01), (0.04, 0.02)])
def test_an_edge_gives_absolute_contrast(noise, mean):
    off = []
    for seed in range(6):
        lens, made = Lens(seed), np.random.default_rng(seed)
        fine = edge(made.uniform(3, 15))
        rows, columns = fine.shape
        radius = np.hypot(np.fft.fftfreq(rows)[:, None], np.fft.rfftfreq(columns)[None, :]) * 8 / PITCH
        for n in (2.8, 8, 22):
            blurred = np.fft.irfft2(np.fft.rfft2(fine) * lens.contrast(radius, n), s=fine.shape)
            seen = blurred.reshape(rows // 8, 8, columns // 8, 8).mean((1, 3))[20:-20, 30:-30]
            read = read_edge(exposed(seen if seed % 2 else seen.T, noise, made))
            off.append(read.at(NU * PITCH) - float(lens.contrast(NU, n) * np.sinc(NU * PITCH)))
    assert np.mean(np.abs(off)) < mean


@pytest.mark.parametrize(("amount", "sharpened"), [(0.0, False), (1.0, True)])
def test_an_edge_that_the_camera_sharpened_is_told(amount, sharpened):
    seen = edge(7).reshape(200, 8, 260, 8).mean((1, 3))
    soft = through(seen, lambda r: np.exp(-2 * (np.pi * r * 1.2) ** 2))
    wide = through(seen, lambda r: np.exp(-2 * (np.pi * r * 2.5) ** 2))
    picture = (soft + amount * (soft - wide))[20:-20, 30:-30]
    noisy = picture + np.random.default_rng(3).normal(0, 0.005, picture.shape)
    assert read_edge(noisy).sharpened is sharpened


@pytest.mark.parametrize("sigma", [0.5, 0.8, 1.5, 4.0, 7.0])
@pytest.mark.parametrize("middle", [0.0, -3.3])
def test_middle_and_width_of_a_line_spread_are_those_of_its_bell(sigma, middle):
    where = (np.arange(480) - 239.5) * 0.25
    line = np.exp(-(((where - middle) / sigma) ** 2) / 2)
    found = _width(line + 1e-4 * np.random.default_rng(2).standard_normal(480), where)
    # Cut at three deviations, a bell loses 1.3 % of its width; never read narrower than half a deviation's window.
    assert found == (pytest.approx(middle, abs=0.05), pytest.approx(sigma, rel=0.05))


def test_of_no_line_at_all_the_width_stays_as_it_was_begun_with():
    where = (np.arange(80) - 39.5) * 0.25
    assert _width(np.zeros(80), where) == (where[0], 4.0)


def test_what_is_no_edge_is_refused_with_a_sentence():
    flat = np.random.default_rng(1).normal(0.5, 0.01, (200, 260))
    assert "no edge" in read_edge(flat)
    straight = np.repeat(edge(0.5).reshape(200, 8, 260, 8).mean((1, 3)), 1, axis=0)
    assert "off the pixels" in read_edge(straight)


def test_an_even_black_and_an_edge_of_exactly_one_are_told_apart():
    assert "no edge" in read_edge(np.zeros((120, 160)))
    seen = edge(7).reshape(200, 8, 260, 8).mean((1, 3))[20:-20, 30:-30]
    dark, bright = seen.min(), seen.max()
    assert not isinstance(read_edge((seen - dark) / (bright - dark)), str)


def test_a_perfect_lens_needs_no_spread_and_a_soft_one_what_it_has():
    stops = np.array([4.0, 5.6, 8.0, 11.0, 16.0, 22.0])
    modelled = diffraction(NU, 2 * stops) * np.sinc(NU * PITCH)
    assert model_contrast(NU, 2 * stops, PITCH, 0.00055) == pytest.approx(modelled, rel=1e-9)
    sigma = np.array([0.006, 0.004, 0.002, 0.0, 0.0, 0.0])
    measured = modelled * np.exp(-2 * (np.pi * NU * sigma) ** 2)
    assert spread_of(measured, modelled, NU, relative=False) == pytest.approx(sigma, abs=1e-9)
    assert spread_of(3.7 * measured, modelled, NU, relative=True) == pytest.approx(sigma, abs=1e-9)


def slope(seed, step, count, **more):
    places = -step * (count - 1) / 2 + step * np.arange(count)
    frames = slope_stack(places, seed=seed, shape=(700, 160), phi_deg=40, **more)
    return np.array([row_energies(frame)[0] for frame in frames])


@pytest.mark.parametrize(
    ("patchy", "noise", "step", "count"), [(False, 0.01, 0.1, 26), (True, 0.01, 0.1, 26), (True, 0.04, 0.1, 26)]
)
def test_mm_a_step_within_four_tenths_of_a_percent(patchy, noise, step, count):
    for seed in range(5):
        true = step * np.random.default_rng(seed).uniform(0.9, 1.1)
        read = read_slope(slope(7 * seed, true, count, patchy=patchy, noise=noise))
        got, doubt = step_of(read, PITCH, 1.0, PHI)
        assert read.fine
        assert abs(got / true - 1) < 0.005
        assert abs(got - true) < 3 * doubt


@pytest.mark.parametrize("doubtful", ["the best", "the other"])
@pytest.mark.parametrize(("below", "could_be"), [(0.017, True), (0.023, False)])
def test_a_stop_could_be_the_best_within_two_deviations_of_both(doubtful, below, could_be):
    """Contrasts 1 and 1 - below; of one of them the energy is known to 0.02, so the contrast to 0.01."""
    contrast = np.array([0.9, 1.0, 1 - below])
    spreads = np.array([0.0, 0.02, 0.0] if doubtful == "the best" else [0.0, 0.0, 0.02 * (1 - below)])
    found = best_stop([4.0, 5.6, 8.0], contrast**2, spreads)
    assert found.best == 5.6
    assert (8.0 in found.could_be) == could_be


@pytest.mark.parametrize("magnification", [0.5, 1.0, 4.0])
def test_a_step_is_what_the_rows_are_along_the_axis(magnification):
    """On a surface at 30 degrees from the axis, 8 rows of 5 um are 0.04 mm on the sensor: 0.04 sqrt(3) / m along it."""
    step, doubt = step_of(SlopeReading(-8.0, 0.5, True, 1.0, 9.0, False), 0.005, magnification, math.radians(30))
    assert step == pytest.approx(0.04 * math.sqrt(3) / magnification)
    assert doubt == pytest.approx(step / 16)


def test_steps_too_wide_and_surfaces_that_do_not_slant_are_refused():
    assert "too wide" in read_slope(slope(3, 0.4, 12))
    flat = np.array([row_energies(texture("printed", (300, 200), 1))[0]] * 12)
    assert isinstance(read_slope(flat + np.random.default_rng(1).normal(0, 1e-4, flat.shape)), str)
    assert "too few" in read_slope(slope(3, 0.1, 26)[:5])


def test_the_angle_of_a_ruler_follows_from_its_ticks():
    seen = 1.0 * np.sin(np.radians(33)) * 0.8 / PITCH
    assert angle_by_ruler(seen, 1.0, PITCH, 0.8) == pytest.approx(np.radians(33))
    assert angle_by_ruler(400.0, 1.0, PITCH, 0.8) is None


@pytest.mark.parametrize("play", [0.0, 0.02, 0.06])
def test_backlash_within_three_micrometres(play):
    step, count, made = 0.1, 22, np.random.default_rng(5)
    base = -step * (count - 1) / 2 + step * np.arange(count)
    passes = []
    for truth in (base + made.normal(0, 0.003, count), base + play + made.normal(0, 0.003, count)):
        frames = slope_stack(truth, seed=4, shape=(700, 160), phi_deg=40, noise=0.01, patchy=True)
        passes.append(np.array([row_energies(frame)[0] for frame in frames]))
    found = read_backlash(passes[0], passes[1][:-1], step)
    assert abs(found.play - play) <= 0.003
    assert found.seen == (play > 0)
    assert found.take_up == pytest.approx(1.5 * found.play)


@pytest.mark.parametrize("scale", [1.0, 0.03, 20.0])
def test_stops_within_two_hundredths_of_the_best_are_alike_however_strong_the_texture(scale):
    contrasts = scale * np.array([0.90, 0.979, 0.981, 1.0, 0.95])
    found = best_stop([4.0, 5.6, 8.0, 11.0, 16.0], contrasts**2, (1e-4 * scale) ** 2 * np.ones(5))
    assert (found.best, found.alike) == (11.0, (8.0, 11.0))
    assert [stop.contrast for stop in found.stops] == pytest.approx([0.90, 0.979, 0.981, 1.0, 0.95])
    assert not found.at_end


@pytest.mark.parametrize(("contrasts", "best"), [([1.0, 0.9, 0.8, 0.7, 0.6], 2.8), ([0.6, 0.7, 0.8, 0.9, 1.0], 11.0)])
def test_a_best_stop_at_an_end_of_those_tried_may_lie_beyond(contrasts, best):
    found = best_stop([2.8, 4.0, 5.6, 8.0, 11.0], np.array(contrasts) ** 2, 1e-8 * np.ones(5))
    assert (found.best, found.at_end) == (best, True)
    inside = np.array([0.9, 1.0, 0.9, 0.8, 0.7])
    assert not best_stop([2.8, 4.0, 5.6, 8.0, 11.0], inside**2, 1e-8 * np.ones(5)).at_end


def test_the_longest_shutter_is_the_last_before_the_first_that_fails():
    shutters = np.repeat([1 / 500, 1 / 250, 1 / 125, 1 / 60, 1 / 30], 8)
    contrasts = np.where(shutters <= 1 / 125, 1.0, np.where(shutters < 1 / 40, 0.66, 0.4))
    found = longest_shutter(shutters, contrasts)
    assert (found.shutter, found.fails_at) == (1 / 60, 1 / 30)
    told = [(1 / 500, 8, 8), (1 / 250, 8, 8), (1 / 125, 8, 8), (1 / 60, 8, 8), (1 / 30, 0, 8)]
    assert [tuple(one) for one in found.tried] == told
    contrasts[shutters == 1 / 125] = [0.5, 0.5] + [1.0] * 6
    assert longest_shutter(shutters, contrasts).shutter == 1 / 250


@pytest.mark.parametrize("doubled", [False, True])
def test_a_burst_tells_whether_dark_frames_are_taken(doubled):
    shutters = np.array([1.0, 1.0, 2.0, 2.0, 4.0, 4.0])
    gaps = shutters * (2 if doubled else 1) + 0.3
    starts = np.concatenate([[0], np.cumsum(gaps)[:-1]])
    found = dark_frames(shutters, starts)
    assert found.doubled == doubled
    assert found.write == pytest.approx(0.3)
    assert dark_frames(np.array([0.1, 0.1]), np.array([0, 1])) is None


@pytest.mark.parametrize("seed", range(5))
def test_slope_and_error_of_a_line_are_those_of_least_squares_where_nothing_lies_far_off(seed):
    made = np.random.default_rng(seed)
    x = made.uniform(-3, 9, 40)
    y = 0.7 * x - 2 + made.uniform(-0.2, 0.2, 40)
    expected = linregress(x, y)
    assert robust_line(x, y) == pytest.approx((expected.slope, expected.stderr), rel=1e-9)
    # Three that lie far off change neither.
    far = np.concatenate([y, [40.0, -60.0, 55.0]])
    assert robust_line(np.concatenate([x, [0.0, 1.0, 8.0]]), far) == pytest.approx(
        (expected.slope, expected.stderr), rel=1e-6
    )


def test_rows_that_lie_far_off_the_others_do_not_count_as_play():
    made, count, rows = np.random.default_rng(7), 24, 400
    at = np.linspace(3, 20, rows) + made.normal(0, 0.02, rows)
    back = at - 0.4 + made.normal(0, 0.02, rows)
    back[100:120] += 1.2  # within what the coarse line lets pass
    found = read_backlash(climbing(count, at), climbing(count, back), 0.05)
    assert found.play == pytest.approx(0.4 * 0.05, rel=0.02)
    assert found.seen
    assert found.rows <= rows - 20


def test_an_edge_of_bytes_is_read_as_the_same_numbers():
    seen = edge(7).reshape(200, 8, 260, 8).mean((1, 3))[20:-20, 30:-30]
    made = np.random.default_rng(2)
    levels = np.rint(200 * seen + made.normal(0, 1, seen.shape) + 20)
    assert read_edge(levels.astype(np.uint8)).contrast == pytest.approx(read_edge(levels).contrast, abs=1e-12)
