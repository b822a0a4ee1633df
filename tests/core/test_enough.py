"""How much coarser detail must be to be sharp: against the transfer function itself, by brute force."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.core.contrast import contrast
from just_plane.core.enough import MOST, enough_factor
from just_plane.core.shutters import MARKS, marked_shutter


@settings(max_examples=80)
@given(st.floats(0.004, 0.05), st.floats(4, 120), st.floats(0, 0.6), st.floats(0.1, 0.5))
def test_at_the_factor_all_up_to_the_edge_is_sharp_and_just_before_it_is_not(circle, works_as, blur, threshold):
    factor = float(enough_factor(circle, [works_as], [blur], threshold)[0])

    def worst(times):
        return min(contrast(1 / (circle * times), works_as, each) for each in np.linspace(0, blur, 200))

    if np.isinf(factor):
        assert worst(MOST) < threshold + 1e-3
        return
    assert 1 <= factor <= MOST
    assert worst(factor) >= threshold - 1e-3
    if factor > 1.02:
        assert worst(factor / 1.02) < threshold + 1e-3


def test_a_blur_by_geometry_alone_asks_for_detail_as_large_as_itself():
    """Without diffraction 20 % is left at a blur of 0.98 of the detail."""
    factor = enough_factor(0.02, [2.0], [0.098], 0.2, 1e-9)[0]
    assert factor == pytest.approx(0.098 / 0.98 / 0.02, rel=0.01)


@pytest.mark.parametrize(
    ("shutter", "mark"),
    [(1 / 59, "1/60"), (0.77, "0.8"), (1 / 130, "1/125"), (0.26, "1/4"), (0.29, "0.3"), (29.0, "30"), (40.0, None),
     (1 / 7000, "1/6400"), (1e-6, None), (1.0, "1"), (1.41, "1.3")],
)  # fmt: skip
def test_shutters_are_spoken_as_cameras_mark_them(shutter, mark):
    assert marked_shutter(shutter) == mark


def test_marks_lie_a_third_of_a_stop_apart():
    steps = np.diff(np.log2([seconds for seconds, _ in MARKS]))
    assert steps == pytest.approx(np.full(len(steps), 1 / 3), abs=0.13)
