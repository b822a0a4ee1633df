import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from just_plane.core.aperture import effective_f_number, stops_lost
from just_plane.core.calibration import (
    Measured,
    focal_length_from_two_tubes,
    magnification_from_ruler,
    pupil_magnification_from_exposure,
)
from just_plane.core.errors import OutOfDomainError, UnreachableError
from just_plane.core.lens import Prime
from just_plane.core.pieces import Tube
from just_plane.core.reach import share_of_throw, sizes_over_throw
from just_plane.core.rig import Rig
from just_plane.core.roots import growing_root
from just_plane.core.zoom import Zoom, ZoomEnd

SHORT = ZoomEnd(24, 210, 0.17, 2.8, 22, 118, 1.6)
LONG = ZoomEnd(70, 380, 0.30, 4.0, 32, 142, 1.1)
close = pytest.approx


@given(st.floats(24, 70))
def test_a_zoom_lies_between_its_ends(focal_length):
    there = Zoom(SHORT, LONG).at(focal_length)
    assert there.focal_length == close(focal_length)
    for name in ("closest_magnification", "widest_f_number", "barrel", "minimum_focus_distance"):
        assert getattr(SHORT, name) - 1e-9 <= getattr(there, name) <= getattr(LONG, name) + 1e-9


def test_a_zoom_at_an_end_is_that_end():
    zoom = Zoom(SHORT, LONG)
    assert (zoom.at(24), zoom.at(70)) == (SHORT, LONG)
    assert zoom.at(47).widest_f_number == close(3.4)


def test_a_zoom_with_its_ends_swapped_is_refused():
    with pytest.raises(
        OutOfDomainError, match=r"long end \(24 mm\) must be longer than the short end \(70 mm\)"
    ) as refusal:
        Zoom(LONG, SHORT)
    assert refusal.value.remedy.startswith("Swap the two ends")


def test_a_zoom_set_outside_its_range_is_refused():
    with pytest.raises(UnreachableError, match="24 to 70 mm; 85 mm cannot be set"):
        Zoom(SHORT, LONG).at(85)


# --- measured


def test_a_ruler_gives_the_size_on_the_sensor():
    # 50 pixels of 5 um a millimetre: a quarter of life size.
    assert magnification_from_ruler(50, 0.1, 0.005, 1.0) == close((0.25, 0.0005))


tubes = st.floats(0, 60)


@given(st.floats(20, 200), st.floats(0.0, 1.0), tubes, tubes, st.floats(0.4, 2.5))
def test_two_tubes_give_back_the_lens_that_made_the_frames(f, own, first, second, pupil):
    assume(abs(first - second) > 5 and own + min(first, second) / f > 0.05)
    first, second = sorted((first, second))
    sizes = [
        Measured(Rig((Prime(f, own), Tube(extension))).imaging().magnification, 1e-6) for extension in (first, second)
    ]
    assert focal_length_from_two_tubes(first, sizes[0], second, sizes[1]).value == close(f, rel=1e-6)
    works_as = [effective_f_number(8, size.value, pupil) for size in sizes]
    stops = Measured(stops_lost(works_as[0], works_as[1]), 0.01)
    assert pupil_magnification_from_exposure(*sizes, stops).value == close(pupil, rel=1e-6)


def test_uncertainty_grows_as_the_tubes_come_closer():
    def spread(extension):
        sizes = Measured(0.5, 0.001), Measured(0.5 + extension / 100, 0.001)
        return focal_length_from_two_tubes(0, sizes[0], extension, sizes[1]).uncertainty

    assert spread(30) == close(100 * math.hypot(0.001, 0.001) / 0.3)
    assert spread(5) > 5 * spread(30)


@pytest.mark.parametrize(
    ("second", "extension", "words"),
    [(0.5, 0.0, "same extension"), (0.4, 12.0, "wrong way"), (0.5005, 12.0, "too little")],
)
def test_two_frames_that_tell_nothing_are_refused(second, extension, words):
    with pytest.raises(OutOfDomainError, match=words):
        focal_length_from_two_tubes(0.0, Measured(0.5, 0.001), extension, Measured(second, 0.001))


@pytest.mark.parametrize("stops", [1.4, 5.0])
def test_more_light_lost_than_any_lens_loses_is_refused(stops):
    with pytest.raises(OutOfDomainError, match=r"the most is 1\.17"):
        pupil_magnification_from_exposure(Measured(0.5, 0.001), Measured(0.75, 0.001), Measured(stops, 0.1))


def test_the_uncertainty_of_a_pupil_is_the_spread_of_many_readings():
    readings = np.random.default_rng(6).normal((0.5, 0.9, 0.8), (0.004, 0.006, 0.02), (4000, 3))
    found = [pupil_magnification_from_exposure(*(Measured(value, 0.0) for value in row)).value for row in readings]
    told = pupil_magnification_from_exposure(Measured(0.5, 0.004), Measured(0.9, 0.006), Measured(0.8, 0.02))
    assert told.uncertainty == pytest.approx(np.std(found), rel=0.06)
    # Each of the three has its part in it.
    for alone in range(3):
        spreads = [(0.004, 0.006, 0.02)[k] if k == alone else 0.0 for k in range(3)]
        one = [Measured(value, spread) for value, spread in zip((0.5, 0.9, 0.8), spreads, strict=True)]
        readings = np.random.default_rng(6).normal((0.5, 0.9, 0.8), spreads, (4000, 3))
        found = [pupil_magnification_from_exposure(*(Measured(value, 0.0) for value in row)).value for row in readings]
        assert pupil_magnification_from_exposure(*one).uncertainty == pytest.approx(np.std(found), rel=0.06)


# --- many at once, roots


@given(st.floats(0.15, 1.0))
def test_the_setting_read_off_between_samples_is_the_one_the_rig_finds(wanted):
    rig = Rig((Prime(105, 0.0, 1.0, 78.0), Tube(12)))
    share, reached = share_of_throw(sizes_over_throw(rig, 1), wanted)
    assert reached[0] == close(wanted)
    assert share[0] == close(rig.at_magnification(wanted).lens.own_magnification, abs=2e-4)


def test_out_of_the_throw_the_nearer_end_is_told():
    sizes = sizes_over_throw(Rig((Prime(100, 0.0, 0.5),)), 1)
    assert [value[0] for value in share_of_throw(sizes, 3.0)] == [1.0, 0.5]
    assert share_of_throw(sizes_over_throw(Rig((Prime(100), Tube(30))), 1), 1.0)[0][0] == 0


@given(st.floats(-5, 5))
def test_a_root_outside_the_stretch_is_its_nearer_end(root):
    def error(x):
        return (x - root) ** 3 + (x - root)

    found = growing_root(error, (-2.0, error(-2.0)), (2.0, error(2.0)))
    assert found == close(min(max(root, -2.0), 2.0), abs=1e-9)
