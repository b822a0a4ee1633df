"""How wide a bell of focus should be: by hand for one frequency, and by laws of scale."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.core.frames.check.bell import expected_width
from just_plane.core.frames.check.facts import StackFacts
from just_plane.core.frames.check.tiles import grid_for
from stacks.kept import judged

FACTS = StackFacts(
    kind="rail",
    magnification=0.5,
    effective_f_number=12.0,
    pixel_pitch=0.01,
    circle=0.03,
    depth_of_field=2.592,
    step=1.296,
    frames=12,
    pupil_distance=298.0,
)
"""A step blurs by 1.296 x 0.25 / 12 = 0.027 mm on the sensor, 2.7 px."""
GRID = grid_for(288, 192, 3.0, 2.7)


def width(grid=GRID, reduction=1, **other):
    return expected_width(FACTS._replace(**other), reduction, grid)


def test_the_width_is_that_of_a_disc_of_blur_where_diffraction_counts_little():
    # A disc of diameter b passes 1 - (pi b f)^2 / 8 of the contrast at frequency f, near focus: so its energy falls as
    # exp(-z^2 / 2 w^2) with w = sqrt(2) / (pi f b) steps, b the blur of a step. The band lies about 0.42 / b; it holds
    # more of lower frequencies, and the samples reach into the tails: a tenth to a third wider.
    by_hand = np.sqrt(2) / (np.pi * 0.42)
    assert by_hand == pytest.approx(1.07, abs=0.005)
    assert 1.1 * by_hand < width() < 1.35 * by_hand


@pytest.mark.parametrize("kind", ["plane", "terraces"])
def test_a_stack_that_was_taken_as_planned_has_bells_so_wide(kind):
    assert judged(kind, 4).fit.width == pytest.approx(width(), rel=0.04)


def test_the_width_grows_with_the_stop_and_shrinks_with_the_step():
    assert width(effective_f_number=17.0) > 1.3 * width()
    assert width(step=FACTS.step / 1.4) > 1.2 * width()


@settings(max_examples=15)
@given(times=st.floats(0.3, 3.0))
def test_a_set_of_another_size_has_the_same_width(times):
    """All lengths of picture and light alike larger: the same picture. Blur goes as step x m^2."""
    bigger = FACTS._replace(
        pixel_pitch=FACTS.pixel_pitch * times,
        circle=FACTS.circle * times,
        step=FACTS.step * times,
        wavelength=FACTS.wavelength * times,
    )
    assert expected_width(bigger, 1, GRID) == pytest.approx(width(), rel=1e-6)


def test_what_the_plan_does_not_say_and_pixels_that_are_too_coarse_tell_nothing():
    assert width(step=None) is None
    assert width(effective_f_number=None) is None
    assert width(pixel_pitch=None) is None
    assert width(pixel_pitch=0.02) is None
    assert width(reduction=2) is None
