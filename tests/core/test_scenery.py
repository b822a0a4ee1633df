"""Made-up surfaces: domes, lines and letters where a drawing of them says, lit from where the lamp is said to stand."""

import numpy as np
import pytest

from just_plane.core.errors import OutOfDomainError
from just_plane.core.scenery import surface

SIZE = 100.0
PITCH = 0.1
CHOCOLATE, LINE, TRAY = np.array([0.105, 0.042, 0.022]), np.array([0.66, 0.5, 0.3]), np.array([0.62, 0.57, 0.47])


def piece(kind, left, right, bottom, top):
    x, y = np.arange(left, right, PITCH), np.arange(top, bottom, -PITCH)
    return x, y, surface(kind, x, y, SIZE)


@pytest.fixture(scope="module")
def pralines():
    return piece("pralines", -20, 20, -20, 20)


def around(at, radius):
    """Places within a radius of a dome's middle, which stand a fifth of the frame apart."""
    x, y, _ = at
    u, v = (each - SIZE / 5 * np.round(each / (SIZE / 5)) for each in (x[None, :], y[:, None]))
    return np.hypot(u, v) < radius


def is_line(light):
    return np.isclose(light[..., 0] / light[..., 2], 0.66 / 0.3, rtol=1e-3) & (light[..., 0] < 1)


def is_speck(light):
    return (light == 0.5).all(axis=-1)


def test_domes_stand_a_fifth_of_the_frame_apart_and_are_round(pralines):
    x, y, seen = pralines
    u, v = (each / 20 - np.round(each / 20) for each in (x[None, :], y[:, None]))
    radius = np.hypot(u, v) / 0.42
    assert seen.relief == pytest.approx(-np.sqrt(np.clip(1 - radius**2, 0, 1)), abs=2e-3)
    assert seen.light.min() >= 0
    assert seen.light.max() <= 1


def test_the_tray_is_pale_and_even(pralines):
    _, _, seen = pralines
    tray = seen.light[seen.relief == 0]
    assert tray.mean(axis=0) == pytest.approx(TRAY, abs=0.015)
    # Its grain goes from -1 to 1 and changes every colour by a twentieth at most.
    assert np.abs(tray - TRAY).max() <= 0.05 + 1e-6
    assert tray.std(axis=0) == pytest.approx(np.full(3, 0.026), abs=0.01)


def test_on_top_of_a_dome_the_lamp_shines_at_its_angle(pralines):
    """The lamp stands 0.58 before the subject: a face square to the camera has 0.35 + 1.1 x 0.58 of light."""
    seen = pralines[2]
    plain = around(pralines, 1.2) & ~is_line(seen.light) & ~is_speck(seen.light)
    assert seen.light[plain].mean(axis=0) == pytest.approx(CHOCOLATE * 0.988, rel=0.08)
    poured = around(pralines, 1.2) & is_line(seen.light)
    assert seen.light[poured].mean(axis=0) == pytest.approx(LINE * 0.988, rel=0.08)


def test_the_side_toward_the_lamp_is_bright_and_the_other_in_shade(pralines):
    """Right and above. In the shade 0.35 is left; nothing is darker."""
    x, y, seen = pralines
    u, v = (each - 20 * np.round(each / 20) for each in (x[None, :], y[:, None]))
    plain = (seen.relief < 0) & ~is_line(seen.light) & ~is_speck(seen.light)
    share = seen.light[..., 0] / CHOCOLATE[0]
    toward, away = (plain & (side * (u + v) > 9) for side in (1, -1))
    assert share[away].mean() == pytest.approx(0.35, abs=0.06)
    assert share[toward].mean() > 1.1
    assert share[plain].min() >= 0.35 * (1 - 0.02 / 0.105) - 1e-3


def test_lines_are_poured_over_a_tenth_of_the_domes(pralines):
    """|sin| below 0.16 is 0.102 of a wave; grain shifts where, and hardly how much."""
    seen = pralines[2]
    assert is_line(seen.light)[seen.relief < 0].mean() == pytest.approx(0.102, abs=0.03)
    assert not is_line(seen.light)[seen.relief == 0].any()
    assert 0.001 < is_speck(seen.light)[seen.relief < 0].mean() < 0.2
    assert not is_speck(seen.light)[seen.relief == 0].any()


@pytest.fixture(scope="module")
def lettering():
    """Whole cells of letters: 7 by 11 strokes of 1.2 mm, four samples to a stroke."""
    x, y = np.arange(0.15, 7 * 1.2 * 12, 0.3), np.arange(11 * 1.2 * 6 - 0.15, 0, -0.3)
    seen = surface("lettering", x, y, SIZE)
    column, row = np.floor(x / 1.2).astype(int) % 7, np.floor(y / 1.2).astype(int) % 11
    return seen, column[None, :] + 0 * row[:, None], row[:, None] + 0 * column[None, :]


def test_letters_are_pressed_in_and_the_foil_is_left_between_them(lettering):
    seen, column, row = lettering
    pressed = seen.relief == 0.2
    inside = (column < 5) & (row < 7)
    assert not pressed[~inside].any()
    assert np.abs(seen.relief[~pressed] + 0.05).max() <= 0.02 + 1e-6
    # Strokes fill 0.55 of a letter's grid; its upright first column four in five letters.
    assert pressed[inside & (column > 0)].mean() == pytest.approx(0.55, abs=0.08)
    assert pressed[inside & (column == 0)].mean() == pytest.approx(1 - 0.2 * 0.45, abs=0.08)


@pytest.mark.parametrize("kind", ["pralines", "lettering"])
def test_light_is_a_share_of_white_wherever_one_looks(kind):
    _, _, seen = piece(kind, -60, 60, -60, 60)
    assert seen.light.min() >= 0
    assert seen.light.max() <= 1


def test_a_stroke_is_pressed_whole(lettering):
    pressed = lettering[0].relief == 0.2
    strokes = pressed.reshape(pressed.shape[0] // 4, 4, pressed.shape[1] // 4, 4).mean(axis=(1, 3))
    assert set(np.unique(strokes)) == {0.0, 1.0}


def test_what_is_pressed_is_dark_and_all_of_it_is_warm(lettering):
    seen, _, _ = lettering
    pressed = seen.relief == 0.2
    for part, share in ((pressed, 0.22), (~pressed, 1.0)):
        colour = seen.light[part].mean(axis=0)
        assert colour == pytest.approx(0.5 * share * np.array([0.95, 0.72, 0.3]), rel=0.12)


def test_letters_differ():
    """Of ten cells in a row hardly two are alike."""
    x, y = np.arange(0.6, 7 * 1.2 * 10, 1.2), np.arange(0.6, 7 * 1.2, 1.2)[::-1]
    pressed = surface("lettering", x, y, SIZE).relief == 0.2
    cells = {pressed[:, 7 * cell : 7 * cell + 5].tobytes() for cell in range(10)}
    assert len(cells) >= 9


@pytest.mark.parametrize("kind", ["pralines", "lettering"])
def test_the_same_place_looks_the_same_whatever_lies_around_it(kind):
    x, y, whole = piece(kind, -12, 12, -12, 12)
    part = surface(kind, x[40:90], y[100:130], SIZE)
    assert part.light == pytest.approx(whole.light[100:130, 40:90], abs=1e-3)
    assert part.relief == pytest.approx(whole.relief[100:130, 40:90], abs=1e-3)


def test_what_is_not_known_is_refused():
    with pytest.raises(OutOfDomainError, match="pralines, lettering"):
        surface("moss", np.zeros(2), np.zeros(2), SIZE)


def test_no_row_and_no_column_of_strokes_repeats_the_one_beside_it(lettering):
    """Strokes are drawn by chance: two that lie beside each other differ in 2 x 0.55 x 0.45 of the letters."""
    seen, column, row = lettering
    pressed = (seen.relief == 0.2)[::4, ::4]
    for at in range(6):
        here, above = (pressed[row[::4, ::4] == line].reshape(6, 12, 7)[..., 1:5] for line in (at, at + 1))
        assert (here != above).mean() == pytest.approx(0.495, abs=0.12)
    for at in range(1, 4):
        here, beside = (pressed[column[::4, ::4] == place].reshape(6, 11, 12)[:, 4:] for place in (at, at + 1))
        assert (here != beside).mean() == pytest.approx(0.495, abs=0.12)


def test_foil_shimmers_by_a_wave_and_its_grain(lettering):
    """0.5, give or take 0.22 by the wave and 0.1 by the grain, in three colours; nothing is brighter or darker."""
    seen, _, _ = lettering
    foil = seen.light[seen.relief != 0.2] / np.array([0.95, 0.72, 0.3])
    assert foil.min() >= 0.18 - 1e-6
    assert foil.max() <= 0.82 + 1e-6
    assert foil.std() == pytest.approx(np.hypot(0.22 / np.sqrt(2), 0.05), rel=0.15)
    assert np.abs(foil - foil[:, :1]).max() < 1e-6


def test_the_wave_of_the_foil_runs_nine_radians_a_frame_across_and_five_up():
    x, y = np.arange(-50, 50, 0.4), np.arange(50, -50, -0.4)
    seen = surface("lettering", x, y, SIZE)
    foil = seen.relief != 0.2
    shimmer = seen.light[..., 1] / 0.72

    def share(across, up):
        """Of the shimmer's variance that such a wave makes up."""
        wave = np.sin(across * x[None, :] / SIZE + up * y[:, None] / SIZE)[foil]
        return np.corrcoef(wave, shimmer[foil])[0, 1] ** 2

    # 0.22 of wave beside 0.1 of grain, whose standard deviation is about half of that.
    assert share(9, 5) == pytest.approx(0.022 / (0.022 + 0.0025), abs=0.06)
    assert share(9, 5) > max(share(9 + across, 5 + up) for across, up in ((1, 0), (-1, 0), (0, 1), (0, -1))) + 0.02
