"""A parabola's top is found wherever it lies between two samples."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.peaks import peak_offset


@given(
    at=st.integers(1, 5), beside=st.floats(-0.5, 0.5), height=st.floats(-1e3, 1e3), narrow=st.floats(1e-2, 1e3)
)  # fmt: skip
def test_the_top_of_a_parabola_is_found_between_its_samples(at, beside, height, narrow):
    values = height - narrow * (np.arange(7) - at - beside) ** 2
    assert peak_offset(values, at) == pytest.approx(beside, abs=1e-8 * max(1, abs(height) / narrow))


@pytest.mark.parametrize(("values", "at"), [([9.0, 5.0, 1.0], 0), ([1.0, 5.0, 9.0], 2), ([9.0], 0)])
def test_a_peak_at_an_end_is_taken_where_it_is(values, at):
    assert peak_offset(values, at) == 0


@pytest.mark.parametrize("values", [[3.0, 3.0, 3.0], [1.0, 2.0, 3.0], [5.0, 2.0, 3.0]])
def test_what_does_not_bend_down_is_taken_where_it_is(values):
    assert peak_offset(values, 1) == 0


def test_only_the_two_neighbours_are_looked_at():
    assert peak_offset([100.0, 2.0, 4.0, 3.0, -50.0], 2) == pytest.approx(1 / 6)
