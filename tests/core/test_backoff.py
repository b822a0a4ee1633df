import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.aperture import effective_f_number
from just_plane.core.backoff import blur_at_ends, equal_effective_f_number
from just_plane.core.defocus import View
from just_plane.core.depth import SCHOOLS, best_focus, depth_of_field
from just_plane.core.errors import OutOfDomainError

factors = st.floats(1.0, 6.0)
sizes = st.floats(0.05, 3.0)
f_numbers = st.floats(2.0, 20.0)


@pytest.mark.parametrize("school", [school for school in SCHOOLS if school != "wave"])
@given(factors, sizes, f_numbers, st.floats(0.01, 0.05))
def test_standing_back_has_the_depth_of_stopping_down(school, q, m, works_as, c):
    equal = equal_effective_f_number(q, works_as)
    here = depth_of_field(school, c, equal, m)
    there = depth_of_field(school, c / q, works_as, m / q)
    assert there == pytest.approx(here, rel=1e-6, abs=1e-12)


@given(factors, sizes, f_numbers)
def test_by_the_wave_too(q, m, works_as):
    here = depth_of_field("wave", 0.02, equal_effective_f_number(q, works_as), m)
    assert depth_of_field("wave", 0.02 / q, works_as, m / q) == pytest.approx(here)


@given(factors, sizes, f_numbers, st.floats(0.01, 0.05), st.floats(0, 5))
def test_and_its_contrast_everywhere(q, m, works_as, c, offset):
    pupil = 1e9  # far enough for near and far to be alike
    here = View(m, pupil, c, 10.0).contrast_at(offset, equal_effective_f_number(q, works_as))
    there = View(m / q, pupil, c / q, 10.0).contrast_at(offset, works_as)
    assert float(there) == pytest.approx(float(here), abs=1e-6)


def test_half_life_size_twice_back_at_f_8_by_hand():
    works_as = effective_f_number(8, 0.25)
    assert works_as == 10
    assert equal_effective_f_number(2.0, works_as) / (1 + 0.5) == pytest.approx(13.333, rel=1e-4)


@given(st.floats(0, 100), sizes, st.floats(150, 900), f_numbers)
def test_both_ends_blur_alike_when_focus_is_placed_best(depth, m, pupil, works_as):
    view = View(m, pupil, 0.02, depth)
    focus = best_focus(depth, pupil)
    blur = blur_at_ends(depth, m, pupil, works_as)
    assert blur == pytest.approx(float(view.blur_at(-focus, works_as)), abs=1e-12)
    assert blur == pytest.approx(float(view.blur_at(depth - focus, works_as)), rel=1e-6, abs=1e-12)


def test_many_settings_together_and_one_alone_agree():
    m, pupil = np.array([0.5, 0.25]), np.array([300.0, 500.0])
    together = blur_at_ends(20.0, m, pupil, np.array([12.0, 10.0]))
    assert together[1] == pytest.approx(blur_at_ends(20.0, 0.25, 500.0, 10.0))


@pytest.mark.parametrize("factor", [0.0, -2.0, float("inf")])
def test_a_factor_that_means_nothing_is_refused(factor):
    with pytest.raises(OutOfDomainError, match="factor must be greater than 0"):
        equal_effective_f_number(factor, 8.0)
