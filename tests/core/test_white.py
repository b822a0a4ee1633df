"""White balance from grey: ratios that were put in come out, and what is no grey is refused."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.errors import OutOfDomainError
from just_plane.core.frames.white import white_from


def card(red=0.4, green=0.4, blue=0.4, shape=(90, 120)):
    return np.ones((*shape, 1)) * np.array([red, green, blue])


@given(st.floats(0.1, 0.9), st.floats(0.1, 0.9), st.floats(0.1, 0.9))
def test_it_is_what_makes_the_channels_alike(red, green, blue):
    white = white_from(card(red, green, blue))
    assert white.red * red == pytest.approx(green)
    assert white.blue * blue == pytest.approx(green)


def test_only_the_middle_counts():
    light = card(0.5, 0.4, 0.2)
    light[:28], light[62:], light[:, :38], light[:, 82:] = (
        (0.9, 0.01, 0.5),
        (0.0, 0.9, 0.1),
        (0.1, 0.1, 0.9),
        (0.3, 0.9, 0),
    )
    assert white_from(light)[:2] == pytest.approx((0.8, 2.0))


def test_noise_does_not_bend_it():
    noisy = card(0.2, 0.3, 0.1, (600, 900)) + np.random.default_rng(2).normal(0, 0.05, (600, 900, 3))
    assert white_from(noisy)[:2] == pytest.approx((1.5, 3.0), rel=0.01)


def test_light_that_falls_off_keeps_the_balance_and_is_told():
    slope = np.linspace(1.0, 2.0, 120)[None, :, None]
    white = white_from(card(0.3, 0.2, 0.1) * slope)
    assert white[:2] == pytest.approx((2 / 3, 2.0))
    # Over the middle third it goes from 1.333 to 1.667; blocks are an eighth of that wide.
    assert white.uneven == pytest.approx((1.667 - 0.021) / (1.333 + 0.021) - 1, abs=0.02)


@pytest.mark.parametrize(
    ("light", "code"),
    [
        (card(0.004, 0.005, 0.003), "light.too_dark"),
        (card(0.99, 0.4, 0.4), "light.burnt"),
        (card(0.4, 0.4, 0.0), "light.burnt"),
        (np.concatenate([card(0.6, 0.3, 0.3)[:, :60], card(0.3, 0.3, 0.6)[:, :60]], axis=1), "light.many_colours"),
    ],
)
def test_what_is_no_grey_is_refused(light, code):
    with pytest.raises(OutOfDomainError) as refused:
        white_from(light)
    assert refused.value.code == code
