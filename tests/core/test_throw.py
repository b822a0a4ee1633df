"""The tables of a ring's throw, made by hand: what is read between their entries, and what a stack of them loses."""

import numpy as np
import pytest

from just_plane.core.errors import OutOfDomainError
from just_plane.core.lens import Prime
from just_plane.core.rig import Rig
from just_plane.core.throw import Throw, throw_over

PLACES = np.array([0.0, 10.0, 20.0])


def throw(magnifications=(0.5, 0.5, 0.5), pupils=(200.0, 200.0, 200.0), chief=(100.0, 100.0, 100.0), depth=20.0):
    return Throw(
        PLACES,
        np.array(magnifications),
        np.array(pupils),
        np.array([12.0, 12.0, 12.0]),
        np.array([0.03, 0.03, 0.03]),
        np.array(chief),
        nearest=-5.0,
        farthest=40.0,
        depth=depth,
    )


def test_it_spans_what_lies_within_its_tables():
    assert throw().spans(0.0, 20.0)
    assert throw().spans(3.0, 4.0)
    assert not throw().spans(-0.01, 20.0)
    assert not throw().spans(0.0, 20.01)
    nothing = np.zeros(0)
    one = np.array([2.0])
    assert Throw(one, one, one, one, one, one, 1.0, 2.0).spans(2.0, 2.0)
    assert not Throw(nothing, nothing, nothing, nothing, nothing, nothing, 1.0, 2.0).spans(0.0, 0.0)


def test_depth_of_field_is_read_between_entries_and_held_at_the_ends():
    """2 c N / m^2: 2.88 mm at half size, 18 mm at a fifth; half-way in place, half-way in depth."""
    at = throw(magnifications=(0.5, 0.5, 0.2)).depth_at()
    assert at(0.0) == pytest.approx(2 * 0.03 * 12 / 0.25)
    assert at(10.0) == pytest.approx(2.88)
    assert at(20.0) == pytest.approx(18.0)
    assert at(15.0) == pytest.approx((2.88 + 18.0) / 2)
    assert (at(-7.0), at(99.0)) == (pytest.approx(2.88), pytest.approx(18.0))


def test_the_view_of_each_frame_is_read_from_the_tables():
    view = throw(magnifications=(0.6, 0.5, 0.4), pupils=(180.0, 200.0, 240.0)).view(np.array([5.0, 10.0, 15.0]))
    assert view.magnification == pytest.approx([0.55, 0.5, 0.45])
    assert view.pupil_distance == pytest.approx([190.0, 200.0, 220.0])
    assert view.effective_f_number == pytest.approx([12.0] * 3)
    assert view.blur == pytest.approx([0.03] * 3)


def test_a_ring_whose_pupil_stays_and_whose_scale_does_not_change_costs_no_crop():
    """The pupil as far from the nearest point in every frame: 200 mm from the plane of focus, and the place itself."""
    pupils = 200.0 + PLACES
    assert throw(pupils=pupils).crop([0.0, 10.0, 20.0]) == pytest.approx(0.0, abs=1e-12)


def test_a_scale_that_shrinks_costs_its_share_of_the_width():
    pupils = 200.0 + PLACES
    assert throw(pupils=pupils, chief=(100.0, 97.0, 90.0)).crop([0.0, 10.0, 20.0]) == pytest.approx(0.1)
    assert throw(pupils=pupils, chief=(100.0, 97.0, 90.0)).crop([0.0, 10.0]) == pytest.approx(0.03)


def test_a_pupil_that_comes_nearer_costs_most_at_the_end_where_it_counts_most():
    """The pupil 200, 195 and 190 mm before the nearest point: a twentieth is lost there, and less at the farthest."""
    pupils = np.array([200.0, 205.0, 210.0])
    assert throw(pupils=pupils).crop([0.0, 20.0]) == pytest.approx(1 - 190 / 200)
    # Reckoned at the far end, 20 mm behind, it would have been 210 of 220.
    assert 1 - 190 / 200 > 1 - 210 / 220


LENS = Prime(100.0, 0.5)


def followed(to_nearest, depth=20.0, closest=1.0):
    rig = Rig((LENS,))
    settings = np.linspace(0.0, closest, 400)
    with np.errstate(divide="ignore"):
        distances = 100.0 * (2 + settings + 1 / settings)  # a thin lens: f (1 + m) + f (1 + 1/m)
    return throw_over(
        rig,
        settings,
        distances,
        to_nearest_point=to_nearest,
        depth=depth,
        f_number=8.0,
        school="geometric",
        circle_of_confusion=0.03,
    )


def test_a_thin_lens_is_followed_by_the_formula_of_thin_lenses():
    # At half size subject and sensor are 450 mm apart; the tables go a fifth of the depth past both ends.
    found = followed(450.0)
    assert found.places[0] == pytest.approx(-4.0, abs=0.01)
    assert found.places[-1] == pytest.approx(24.0, abs=0.01)
    apart = 450.0 + found.places
    # m + 1/m = apart / f - 2
    rest = apart / 100.0 - 2
    assert found.magnifications == pytest.approx(rest / 2 - np.sqrt(rest**2 / 4 - 1), rel=1e-6)
    assert found.effective_f_numbers == pytest.approx(8.0 * (1 + found.magnifications), rel=1e-9)
    assert (found.nearest, found.farthest) == (pytest.approx(400 - 450), np.inf)


def test_where_the_ring_does_not_reach_its_tables_are_empty_and_say_how_far_it_goes():
    too_near = followed(380.0)
    assert too_near.places.size == 0
    assert (too_near.nearest, too_near.depth) == (pytest.approx(20.0), 20.0)
    assert not too_near.spans(0.0, 1.0)


def test_a_throw_too_short_to_follow_is_none():
    rig = Rig((LENS,))
    asked = {
        "to_nearest_point": 450.0,
        "depth": 1.0,
        "f_number": 8.0,
        "school": "geometric",
        "circle_of_confusion": 0.03,
    }
    assert throw_over(rig, np.array([0.4, 0.5]), np.array([490.0, 450.0]), **asked) is None
    # Three settings are enough: f (2 + m + 1/m) apart.
    found = throw_over(rig, np.array([0.4, 0.5, 0.6]), np.array([490.0, 450.0, 1280.0 / 3]), **asked)
    assert found.magnifications == pytest.approx(0.5, abs=0.01)


@pytest.mark.parametrize(("to_nearest", "depth"), [(0.0, 1.0), (-3.0, 1.0), (450.0, -1.0)])
def test_distances_that_cannot_be_are_refused(to_nearest, depth):
    with pytest.raises(OutOfDomainError):
        followed(to_nearest, depth)


def test_of_a_shallow_subject_too_a_fifth_of_its_depth_is_told_past_both_ends():
    found = followed(450.0, depth=1.0)
    assert (found.places[0], found.places[-1]) == (pytest.approx(-0.2, abs=1e-3), pytest.approx(1.2, abs=1e-3))


def test_every_table_of_a_ring_that_does_not_reach_is_empty():
    too_near = followed(380.0)
    tables = ("places", "magnifications", "pupil_distances", "effective_f_numbers", "blurs", "chief_scales")
    assert [len(getattr(too_near, name)) for name in tables] == [0] * 6
