import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from just_plane.core.aperture import effective_f_number, numerical_aperture
from just_plane.core.data_sheet import focal_length_at_closest, prime_from_data_sheet
from just_plane.core.errors import NoImageError, OutOfDomainError, UnreachableError
from just_plane.core.lens import Prime
from just_plane.core.pieces import CloseUpLens, Teleconverter, Tube
from just_plane.core.rig import Rig

focal_lengths = st.floats(20, 300)
own = st.floats(0.0, 1.0)
tubes = st.floats(0.0, 80)
pupils = st.floats(0.4, 2.5)


@given(focal_lengths, own, tubes)
def test_a_tube_adds_its_length_over_the_focal_length(f, m0, extension):
    assert Rig((Prime(f, m0), Tube(extension))).imaging().magnification == pytest.approx(m0 + extension / f, abs=1e-12)


@given(focal_lengths, own, tubes, pupils)
def test_a_bare_lens_and_tube_have_the_textbook_effective_f_number(f, m0, extension, p):
    imaging = Rig((Prime(f, m0, pupil_magnification=p), Tube(extension))).imaging()
    assert imaging.f_number_factor == pytest.approx(effective_f_number(1.0, imaging.magnification, p), rel=1e-9)


@given(focal_lengths, own, st.floats(0, 10))
def test_a_close_up_lens_costs_no_light(f, m0, dioptres):
    imaging = Rig((CloseUpLens(dioptres), Prime(f, m0))).imaging()
    assert imaging.f_number_factor == pytest.approx(1 + m0, rel=1e-9)
    assert imaging.magnification == pytest.approx(m0 + f * dioptres / 1000 * (1 + m0), rel=1e-9)


@given(focal_lengths, own, tubes)
def test_a_close_up_lens_of_no_power_changes_nothing(f, m0, extension):
    assume(m0 + extension > 0.01)
    plain = Rig((Prime(f, m0), Tube(extension))).imaging()
    assert Rig((CloseUpLens(0.0), Prime(f, m0), Tube(extension))).imaging() == pytest.approx(plain)


@given(focal_lengths, st.floats(0.05, 1.0))
def test_a_converter_whose_factor_nears_1_fades_away(f, m0):
    plain = Rig((Prime(f, m0),)).imaging()
    faint = Rig((Prime(f, m0), Teleconverter(1 + 1e-7, 1e-6))).imaging()
    assert faint.magnification == pytest.approx(plain.magnification, rel=1e-5)
    assert faint.f_number_factor == pytest.approx(plain.f_number_factor, rel=1e-5)


@given(focal_lengths, own, st.floats(1.2, 2.0), st.floats(10, 20))
def test_a_converter_multiplies_size_and_f_number(f, m0, factor, thickness):
    assume(f * (1 + m0) > thickness / (factor - 1) + 1 and m0 > 0.01)
    plain, longer = Rig((Prime(f, m0),)).imaging(), Rig((Prime(f, m0), Teleconverter(factor, thickness))).imaging()
    assert longer.magnification == pytest.approx(factor * plain.magnification, rel=1e-9)
    assert longer.f_number_factor == pytest.approx(factor * plain.f_number_factor, rel=1e-9)
    assert longer.subject_to_first_lens == pytest.approx(plain.subject_to_first_lens, rel=1e-9)


def test_the_order_of_tube_and_converter_matters():
    lens, converter, tube = Prime(100, 0.2), Teleconverter(1.4, 18), Tube(20)
    before = Rig((lens, tube, converter)).imaging().magnification
    behind = Rig((lens, converter, tube)).imaging().magnification
    assert before == pytest.approx(1.4 * (0.2 + 20 / 100))
    assert abs(before - behind) > 0.05


@given(focal_lengths, st.floats(0.05, 1.0), tubes, pupils, st.floats(0, 5))
def test_subject_side_aperture_follows_the_cone_into_the_pupil(f, m0, extension, p, dioptres):
    # NA = m / (2 N_e) must be half the entrance pupil's diameter over its distance, here with f/1.
    imaging = Rig((CloseUpLens(dioptres), Prime(f, m0, pupil_magnification=p), Tube(extension))).imaging()
    na = numerical_aperture(imaging.f_number_factor, imaging.magnification)
    height_at_lens = imaging.subject_to_first_lens * na
    lens_sees = 1 / (1 / imaging.subject_to_first_lens - dioptres / 1000)
    pupil_from_subject = lens_sees - f * (1 - 1 / p)
    assert height_at_lens / lens_sees * pupil_from_subject == pytest.approx(f / 2, rel=1e-6)


@given(st.floats(40, 200), st.floats(0.1, 1.0), pupils)
def test_entrance_pupil_of_a_bare_lens_is_where_the_formula_says(f, m0, p):
    assert Rig((Prime(f, m0, pupil_magnification=p),)).imaging().pupil_distance == pytest.approx(f * (1 / m0 + 1 / p))


def test_at_closest_focus_the_data_sheet_comes_out_again():
    lens = prime_from_data_sheet(105, 314, 1.0)
    imaging = Rig((lens,)).focused(1.0).imaging()
    assert imaging.subject_to_sensor == pytest.approx(314)
    assert imaging.magnification == pytest.approx(1.0)


def test_a_breathing_lens_gains_more_from_a_tube_than_the_marked_length_says():
    lens = prime_from_data_sheet(105, 314, 1.0)
    gained = Rig((lens, Tube(20))).focused(1.0).imaging().magnification - 1.0
    assert gained == pytest.approx(20 / focal_length_at_closest(314, 1.0))
    assert gained > 20 / 105


def test_infinity_is_gone_with_a_tube_and_kept_without():
    lens = prime_from_data_sheet(100, 310, 1.0)
    assert math.isinf(Rig((lens,)).focus_range()[1])
    near, far = Rig((lens, Tube(25))).focus_range()
    assert near < far < 1000


@given(st.floats(0.15, 1.1))
def test_the_ring_is_set_for_the_magnification_asked(m):
    rig = Rig((prime_from_data_sheet(100, 310, 1.0, 1.2), Tube(12)))
    assert rig.at_magnification(m).imaging().magnification == pytest.approx(m, rel=1e-10)


@pytest.mark.parametrize(("m", "code"), [(3.0, "magnification.beyond"), (0.05, "magnification.below")])
def test_a_magnification_out_of_reach_is_refused_with_the_range(m, code):
    rig = Rig((prime_from_data_sheet(100, 310, 1.0), Tube(12)))
    with pytest.raises(UnreachableError, match=r"0\.12x to 1\.15x") as refusal:
        rig.at_magnification(m)
    assert refusal.value.code == code


def test_a_rig_that_goes_to_infinity_says_the_most_it_gives():
    with pytest.raises(UnreachableError, match=r"4x is beyond this rig: it gives at most 1x\."):
        Rig((prime_from_data_sheet(100, 310, 1.0),)).at_magnification(4.0)


def test_settings_asked_together_agree_with_settings_asked_singly():
    rig = Rig((CloseUpLens(2), prime_from_data_sheet(100, 310, 1.0, 1.3), Tube(12), Teleconverter(1.4, 18), Tube(8)))
    together = rig.focused(np.array([0.0, 0.3, 1.0])).imaging()
    for index, m0 in enumerate([0.0, 0.3, 1.0]):
        singly = rig.focused(m0).imaging()
        assert [value[index] for value in together] == pytest.approx(list(singly))


def test_a_converter_that_would_stand_inside_the_lens_is_refused():
    with pytest.raises(NoImageError, match="inside the lens"):
        Rig((Prime(24), Teleconverter(1.4, 18))).imaging()


@pytest.mark.parametrize("chain", [(Tube(10),), (Prime(50), Prime(50))])
def test_a_rig_has_one_lens(chain):
    with pytest.raises(OutOfDomainError, match="needs one lens"):
        Rig(chain)


@pytest.mark.parametrize("chain", [(Prime(50), CloseUpLens(2)), (Tube(12), Prime(50))])
def test_a_piece_on_the_wrong_side_of_the_lens_is_refused(chain):
    with pytest.raises(OutOfDomainError, match="other side"):
        Rig(chain)


def test_a_data_sheet_that_disagrees_with_itself_is_refused():
    with pytest.raises(OutOfDomainError, match="Measure closest focus from the sensor mark"):
        prime_from_data_sheet(100, 3100, 1.0)


def test_a_data_sheet_that_disagrees_is_told_what_is_usual():
    """100 mm to 0.5x is usually 100 (2 + 1/2 + 2) = 450 mm from sensor to subject."""
    with pytest.raises(OutOfDomainError) as refused:
        prime_from_data_sheet(100.0, 2000.0, 0.5)
    assert "450 mm is usual" in str(refused.value) + refused.value.remedy
    assert refused.value.quantity == "minimum_focus_distance"
