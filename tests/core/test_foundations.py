"""Arguments, errors and lenses: what the rest of the core stands on."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core import domain
from just_plane.core.data_sheet import focal_length_at_closest, prime_from_data_sheet
from just_plane.core.errors import NoImageError, OpticsError, OutOfDomainError, Quantity, UnreachableError
from just_plane.core.lens import Prime

LEAST = Quantity(3.14159, "x", 2)


@given(st.floats(1e-12, 1e12))
def test_whatever_is_accepted_comes_back_itself(value):
    assert domain.positive("x", value) == value
    assert domain.non_negative("x", value) == value


@pytest.mark.parametrize("value", [1e12, np.array([1.0, 1e12])])
def test_the_largest_that_is_sensible_still_is(value):
    assert domain.positive("x", value) is value
    assert domain.non_negative("x", value) is value


@pytest.mark.parametrize("value", [math.nan, math.inf, -math.inf, 1e13, -1e-9])
@pytest.mark.parametrize("check", [domain.positive, domain.non_negative])
def test_what_is_not_finite_or_not_sensible_is_refused(check, value):
    with pytest.raises(OutOfDomainError):
        check("x", value)


def test_of_an_array_the_worst_is_named():
    with pytest.raises(OutOfDomainError, match=r"got -3 mm") as refusal:
        domain.positive("step", np.array([1.0, -3.0, 2.0]), "mm", "Give a longer one.")
    assert refusal.value.value == -3
    assert str(refusal.value).endswith("Give a longer one.")
    with pytest.raises(OutOfDomainError, match="got nan"):
        domain.non_negative("step", np.array([1.0, math.nan]))


def test_what_is_refused_is_told_with_its_unit_to_six_digits():
    with pytest.raises(OutOfDomainError) as refusal:
        domain.positive("step", -1.23456789, "mm")
    assert refusal.value.unit == "mm"
    assert refusal.value.message.endswith("got -1.23457 mm.")


@pytest.mark.parametrize("value", [1.5, -1, True, "3", None])
def test_a_count_is_a_whole_number(value):
    with pytest.raises(OutOfDomainError, match="whole number"):
        domain.count("frames", value)


@pytest.mark.parametrize("kind", [OutOfDomainError, NoImageError, UnreachableError])
def test_every_refusal_is_one_kind_and_carries_its_parts(kind):
    error = kind("a.b", quantity="a", value=2, unit="mm", message="a is wrong.", remedy="Do b.")
    assert isinstance(error, OpticsError)
    assert isinstance(error, ValueError)
    assert (error.code, error.quantity, error.value, error.unit) == ("a.b", "a", 2, "mm")
    assert str(error) == "a is wrong. Do b."


@pytest.mark.parametrize("kind", [OutOfDomainError, NoImageError, UnreachableError])
def test_the_same_refusal_with_another_way_out_keeps_all_its_parts(kind):
    parts = {"quantity": "a", "value": 2, "unit": "mm"}
    first = kind("a.b", message="a is {got}.", remedy="Make it {least}.", got=Quantity(2.0, "mm"), least=LEAST, **parts)
    other = first.with_remedy("More than {got} would do.")
    assert type(other) is kind
    assert (other.code, other.quantity, other.value, other.unit) == ("a.b", "a", 2, "mm")
    assert (first.remedy, other.message, other.remedy) == ("Make it 3.1x.", "a is 2 mm.", "More than 2 mm would do.")
    assert first.spoken(lambda quantity: f"<{quantity.value}>") == ("a is <2.0>.", "Make it <3.14159>.")


@given(st.floats(20, 300), st.floats(0.05, 2))
def test_a_lens_that_does_not_breathe_keeps_its_focal_length(f, m):
    distance = f * (2 + m + 1 / m)
    assert focal_length_at_closest(distance, m) == pytest.approx(f)
    lens = prime_from_data_sheet(f, distance, m)
    assert Prime(f, m, m, lens.closest_focal_length).focal_length_now == pytest.approx(f)


def test_focal_length_changes_evenly_between_the_ends():
    lens = prime_from_data_sheet(100, 300, 1.0)
    lengths = [Prime(100, share, 1.0, lens.closest_focal_length).focal_length_now for share in (0.0, 0.25, 0.5, 1.0)]
    assert lengths == pytest.approx([100, 93.75, 87.5, 75])


@pytest.mark.parametrize(
    "values",
    [
        {"focal_length": 0.0},
        {"own_magnification": -0.1},
        {"closest_magnification": math.nan},
        {"pupil_magnification": 0.0},
        {"closest_focal_length": -5.0},
    ],
)
def test_a_lens_of_impossible_numbers_is_refused(values):
    with pytest.raises(OutOfDomainError) as refusal:
        Prime(**({"focal_length": 50.0} | values))
    assert refusal.value.quantity == next(iter(values))
