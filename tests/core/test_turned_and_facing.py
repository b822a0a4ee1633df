"""Lenses turned round, lenses face to face, objectives, bellows: limits, published relations, laws of every chain."""

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from just_plane.core.aperture import numerical_aperture
from just_plane.core.data_sheet import prime_from_data_sheet
from just_plane.core.errors import NoImageError, OutOfDomainError, UnreachableError
from just_plane.core.lens import Objective, Prime
from just_plane.core.pieces import Bellows, CloseUpLens, FacingLens, Teleconverter, Tube
from just_plane.core.ray import gap, thin_lens, through, turned_round
from just_plane.core.rig import Rig

focal_lengths = st.floats(20, 300)
pupils = st.floats(0.4, 2.5)
lengths = st.floats(0.5, 120)
close = pytest.approx


# --- turned round


@given(focal_lengths, pupils, st.floats(0.2, 8))
def test_a_turned_lens_has_the_textbook_effective_f_number(f, p, m):
    lens = Prime(f, pupil_magnification=p).turned_round()
    imaging = Rig((lens, Tube(f * (1 + m)))).imaging()
    assert imaging.magnification == close(m, rel=1e-9)
    assert imaging.f_number_factor == close(1 / p + m, rel=1e-9)


@given(focal_lengths, st.floats(0.2, 8))
def test_with_alike_pupils_it_does_not_matter_which_way_round(f, m):
    straight = Rig((Prime(f), Tube(f * m))).imaging()
    turned = Rig((Prime(f).turned_round(), Tube(f * (1 + m)))).imaging()
    assert turned.magnification == close(straight.magnification)
    assert turned.f_number_factor == close(straight.f_number_factor)
    assert turned.subject_to_sensor == close(straight.subject_to_sensor)


@given(focal_lengths, pupils, st.floats(0, 60))
def test_a_lens_turned_twice_is_itself(f, p, standoff):
    lens = Prime(f, pupil_magnification=p)
    assert lens.turned_round(standoff).turned_round() == lens


@given(st.lists(st.tuples(focal_lengths, lengths), min_size=1, max_size=5))
def test_a_chain_turned_twice_is_itself_and_once_turned_inverts_the_size(pieces):
    matrix = gap(0.0)
    for f, length in pieces:
        matrix = through(gap(length), through(thin_lens(f), matrix))
    assert turned_round(turned_round(matrix)) == matrix
    a, b, c, _ = matrix
    assume(abs(a) > 1e-3 and abs(c) > 1e-6)
    # Put the subject where this chain images it; seen from the other end the size is one over.
    distance = -b / a
    whole = through(matrix, gap(distance))
    assert turned_round(whole)[0] == close(1 / whole[0], rel=1e-6)


def test_the_standoff_and_the_register_count_as_extension():
    lens = Prime(35).turned_round(standoff=49.0)
    assert Rig((lens, Tube(7))).imaging().magnification == close((49 + 7) / 35 - 1)


def test_turning_the_ring_of_a_turned_lens_changes_nothing():
    rig = Rig((prime_from_data_sheet(50, 450, 0.14).turned_round(60.0), Tube(10)))
    assert rig.focused(0.1) == rig
    assert rig.is_fixed
    assert rig.magnification_range() == close((0.4, 0.4))
    with pytest.raises(UnreachableError, match=r"gives 0\.4x only"):
        rig.at_magnification(1.0)


def test_too_little_behind_a_turned_lens_gives_no_picture():
    with pytest.raises(NoImageError, match="nothing in front of the lens comes to focus"):
        Rig((Prime(50).turned_round(38.0),)).imaging()


# --- face to face


@given(st.floats(60, 300), st.floats(20, 59), st.floats(0, 150))
def test_two_lenses_face_to_face_give_the_ratio_of_their_focal_lengths(rear, front, apart):
    imaging = Rig((FacingLens(front, 2.0, apart), Prime(rear))).imaging()
    assert imaging.magnification == close(rear / front, rel=1e-9)
    assert imaging.subject_to_first_lens == close(front, rel=1e-9)


@given(st.floats(60, 300), st.floats(20, 59), st.floats(1.4, 22), st.floats(1.4, 22))
def test_the_narrower_stop_limits_the_cone(rear, front, rear_stop, front_stop):
    imaging = Rig((FacingLens(front, front_stop, 30), Prime(rear))).imaging()
    by_front = rear / front * front_stop  # beam from the front lens: f_front / N_front wide
    assert imaging.effective_f_number(rear_stop) == close(max(rear_stop, by_front), rel=1e-9)


def test_an_objective_on_its_own_tube_lens_gives_what_is_engraved():
    objective = FacingLens(200 / 10, 1 / (2 * 0.28), 60)
    imaging = Rig((objective, Prime(200))).imaging()
    assert imaging.magnification == close(10)
    assert imaging.effective_f_number(4.0) == close(10 / (2 * 0.28))
    assert Rig((objective, Prime(100))).imaging().magnification == close(5)


def test_a_facing_lens_stands_first_and_its_ring_is_left_alone():
    facing = FacingLens(50, 2.0, 30)
    with pytest.raises(OutOfDomainError, match="first thing that light"):
        Rig((CloseUpLens(3), facing, Prime(100)))
    rig = Rig((facing, prime_from_data_sheet(100, 300, 1.0)))
    assert rig.is_fixed


# --- objectives on tubes, bellows


@given(st.floats(2, 20), st.floats(0.05, 0.5), st.floats(60, 300))
def test_a_finite_objective_keeps_its_numerical_aperture(engraved, na, tube_length):
    objective = Objective(engraved, na, tube_length)
    at_home = Rig((objective, Tube(tube_length))).imaging()
    assert at_home.magnification == close(engraved, rel=1e-9)
    longer = Rig((objective, Tube(tube_length * 1.3))).imaging()
    assert longer.magnification > at_home.magnification
    for imaging in (at_home, longer):
        works_as = imaging.effective_f_number(objective.f_number)
        assert numerical_aperture(works_as, imaging.magnification) == close(na, rel=1e-9)


@pytest.mark.parametrize("na", [0.0, 1.0, -0.1, math.nan])
def test_an_aperture_that_no_dry_objective_has_is_refused(na):
    with pytest.raises(OutOfDomainError, match="between 0 and 1"):
        Objective(10, na)


def test_bellows_are_drawn_for_the_size_asked_and_then_the_ring_helps():
    rig = Rig((prime_from_data_sheet(100, 310, 1.0), Bellows(40, 150)))
    assert rig.magnification_range()[0] == close(0.4)
    half = rig.at_magnification(0.9)
    assert half.bellows.length == close(90)
    assert half.lens.own_magnification == 0
    far = rig.at_magnification(1.8)
    assert far.bellows.length == 150
    assert far.lens.own_magnification > 0
    assert far.imaging().magnification == close(1.8)


def test_bellows_that_must_be_opened_some_way_first_are():
    rig = Rig((Prime(150).turned_round(60.0), Bellows(40, 200)))
    with pytest.raises(NoImageError):
        rig.drawn(40.0).imaging()
    assert rig.magnification_range()[0] == 0
    assert rig.at_magnification(0.3).imaging().magnification == close(0.3)
    assert math.isinf(rig.focus_range()[1])


@pytest.mark.parametrize(("short", "long"), [(150, 40), (-1, 40)])
def test_bellows_with_swapped_or_impossible_ends_are_refused(short, long):
    with pytest.raises(OutOfDomainError):
        Bellows(short, long)


# --- laws of every chain

chains = st.tuples(
    st.lists(st.builds(CloseUpLens, st.floats(0, 6)), max_size=2),
    st.one_of(
        st.builds(Prime, focal_lengths, st.floats(0.05, 1), pupil_magnification=pupils),
        st.builds(lambda f, p: Prime(f, pupil_magnification=p).turned_round(f + 20), focal_lengths, pupils),
    ),
    st.lists(
        st.one_of(st.builds(Tube, st.floats(0, 60)), st.builds(Teleconverter, st.floats(1.2, 2), st.floats(10, 25))),
        max_size=3,
    ),
).map(lambda parts: Rig((*parts[0], parts[1], *parts[2])))


def imaged(rig):
    try:
        imaging = rig.imaging()
    except NoImageError:
        assume(False)
    assume(0.02 < imaging.magnification < 50)
    return imaging


@given(chains)
def test_size_over_twice_the_effective_f_number_is_the_aperture_on_the_subjects_side(rig):
    """The ray from the subject through the edge of the lens's true entrance pupil, followed by hand."""
    imaging = imaged(rig)
    lens, place = rig.lens, rig._place
    power = sum(element.matrix_power for element in rig.elements[:place])
    # Entrance pupil of the lens as it stands: its diameter per f-number, its place before the lens.
    straight = getattr(lens, "lens", lens)
    diameter = lens.focal_length_now if lens is straight else straight.focal_length * straight.pupil_magnification
    ahead = lens.focal_length_now * (1 - 1 / lens.pupil_ratio)
    # A ray of slope s from the subject meets the pupil's plane at s (u + (1 - u power)(-ahead)).
    u = imaging.subject_to_first_lens
    per_slope = u - (1 - u * power) * ahead
    assume(abs(per_slope) > 1e-6)
    na = diameter / 2 / abs(per_slope)
    assert numerical_aperture(imaging.f_number_factor, imaging.magnification) == close(na, rel=1e-6)


@given(chains)
def test_the_chief_rays_scale_is_size_times_the_distance_to_the_pupil(rig):
    imaging = imaged(rig)
    assert imaging.chief_scale == close(imaging.magnification * abs(imaging.pupil_distance), rel=1e-6)


@given(chains, st.floats(0.9, 1.1))
def test_a_measured_size_is_met_and_keeps_the_rig_true_to_itself(rig, correction):
    imaging = imaged(rig)
    measured = Rig(rig.elements, correction).imaging()
    assert measured.magnification == close(imaging.magnification * correction, rel=1e-9)
    assert Rig(rig.elements, correction).magnification() == close(measured.magnification, rel=1e-9)
    assert measured.chief_scale == close(measured.magnification * abs(measured.pupil_distance), rel=1e-6)
    if correction > 1:
        assert measured.f_number_factor >= imaging.f_number_factor * (1 - 1e-9)


def test_a_measured_bare_lens_has_the_effective_f_number_of_its_measured_size():
    rig = Rig((Prime(100, 1.0, pupil_magnification=0.8),), size_correction=1.03)
    assert rig.imaging().f_number_factor == close(1 + 1.03 / 0.8)


def test_infinity_stays_infinity_when_a_size_was_measured():
    rig = Rig((prime_from_data_sheet(100, 300, 1.0),), size_correction=1.02)
    assert rig.imaging().magnification == 0
    assert rig.magnification_range() == close((0.0, 1.02))


def test_rigs_asked_together_agree_with_rigs_asked_singly():
    lens = prime_from_data_sheet(60, 200, 1.0, 0.85)
    tubes = np.array([[0.0], [12.0], [31.0]])
    together = (
        Rig((CloseUpLens(3), lens, Tube(tubes), Teleconverter(1.4, 18))).focused(np.array([[0.0, 0.5]])).imaging()
    )
    for row, length in enumerate(tubes[:, 0]):
        for column, own in enumerate((0.0, 0.5)):
            singly = Rig((CloseUpLens(3), lens, Tube(length), Teleconverter(1.4, 18))).focused(own).imaging()
            assert together.magnification[row, column] == close(singly.magnification)
            assert together.subject_to_sensor[row, column] == close(singly.subject_to_sensor)


def test_bellows_drawn_past_life_size_send_the_subject_away_again():
    """f (2 + m + 1/m): 100 mm on 50 to 250 mm of draw gives 0.5x to 2.5x, 450 and 490 mm at its ends, 400 between."""
    near, far = Rig((Prime(100), Bellows(50, 250, 60))).focus_range()
    assert (near, far) == (close(400, rel=1e-3), close(490))
    only_past = Rig((Prime(100), Bellows(150, 250, 160))).focus_range()
    assert only_past == (close(100 * (3.5 + 1 / 1.5)), close(490))
