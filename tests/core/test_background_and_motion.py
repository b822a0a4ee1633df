import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.background import background_blur
from just_plane.core.errors import OutOfDomainError
from just_plane.core.motion import longest_shutter_by_hand, longest_shutter_for_subject, settling_needed


@given(st.floats(20, 200), st.floats(1.4, 32), st.floats(0.05, 3), st.floats(0.5, 2), st.floats(0, 5000))
def test_background_blur_is_the_textbook_one_for_a_lens_alone(f, n, m, p, b):
    pupil = f * (1 / m + 1 / p)
    blur = background_blur(m, pupil, n * (1 + m / p), b)
    assert blur == pytest.approx(f / n * m * b / (pupil + b))
    assert blur <= f / n * m


def test_a_background_at_the_subject_is_sharp():
    assert background_blur(0.5, 300, 8, 0) == 0
    with pytest.raises(OutOfDomainError):
        background_blur(0.5, 300, 8, -1)


@given(st.floats(0.01, 1000), st.floats(0.05, 10), st.floats(0.002, 0.1))
def test_the_subject_moves_half_a_circle_in_the_longest_shutter(speed, m, c):
    assert speed * m * longest_shutter_for_subject(speed, m, c) == pytest.approx(c / 2)


@pytest.mark.parametrize("speed", [0, 5e-324])
def test_what_does_not_move_allows_any_shutter(speed):
    assert longest_shutter_for_subject(speed, 0.05, 0.03) == math.inf


def test_hand_rule():
    assert longest_shutter_by_hand(100, 1.0, 0) == pytest.approx(1 / 100)
    assert longest_shutter_by_hand(100, 1.5, 1.0, 3) == pytest.approx(8 / 300)


@given(st.floats(0.001, 1), st.floats(0.05, 3), st.floats(0.1, 10))
def test_after_settling_the_swing_is_half_a_circle(swing, calms, m):
    wait = settling_needed(swing, calms, m, 0.02)
    left = 2 * swing * math.exp(-wait / calms) * m
    assert left == pytest.approx(0.01) or (wait == 0 and left <= 0.01)
