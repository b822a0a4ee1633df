"""What sizes a rig gives over its ring: by brute force over thousands of settings, whichever way the size goes."""

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from just_plane.core.data_sheet import prime_from_data_sheet
from just_plane.core.errors import NoImageError, UnreachableError
from just_plane.core.lens import Prime
from just_plane.core.pieces import Bellows, CloseUpLens, Teleconverter, Tube
from just_plane.core.reach import share_of_throw, sizes_over_throw
from just_plane.core.rig import Rig

ZOOM_AT_ITS_LONG_END = prime_from_data_sheet(150, 500, 0.22)


def test_behind_a_close_up_lens_a_breathing_lens_gives_less_as_it_focuses_nearer():
    """150 mm, 0.22x at 0.5 m: f there is 500 * 0.22 / 1.22^2 = 73.9 mm. With +8: 150 * 0.008 = 1.20x at infinity, and
    0.22 + 73.9 * 0.008 * 1.22 = 0.94x at its closest."""
    rig = Rig((CloseUpLens(8.0), ZOOM_AT_ITS_LONG_END))
    assert rig.magnification_range() == pytest.approx((0.94, 1.20), abs=0.005)
    set_ = rig.at_magnification(1.0)
    assert set_.magnification() == pytest.approx(1.0, rel=1e-9)
    assert 0 < set_.lens.own_magnification < 0.22
    with pytest.raises(UnreachableError):
        rig.at_magnification(0.9)


@settings(max_examples=80, deadline=None)
@given(
    st.floats(40, 200),
    st.floats(0.1, 1.0),
    st.floats(0.3, 1.2),
    st.floats(0, 10),
    st.floats(0, 60),
    st.booleans(),
    st.floats(0.02, 0.98),
)
def test_every_size_between_the_least_and_the_most_is_reached(f, closest, shortens, dioptres, tube, doubled, share):
    lens = Prime(f, 0.0, closest, f * shortens)
    elements = (CloseUpLens(dioptres),) if dioptres > 0.1 else ()
    elements += (lens, Tube(tube)) + ((Teleconverter(2.0, 30.0),) if doubled else ())
    rig = Rig(elements)
    try:
        sizes = rig.focused(np.linspace(0, closest, 20001)).magnification()
    except NoImageError:
        assume(False)
    smallest, largest = rig.magnification_range()
    assert (smallest, largest) == pytest.approx((sizes.min(), sizes.max()), rel=1e-6, abs=1e-9)
    wanted = smallest + share * (largest - smallest)
    assume(wanted > 1e-6)
    assert rig.at_magnification(wanted).magnification() == pytest.approx(wanted, rel=1e-8)
    # As a search through many rigs sees it, closely enough to rank.
    shares, reached = share_of_throw(sizes_over_throw(rig, 1), wanted)
    assert reached[0] == pytest.approx(wanted, rel=1e-2)
    assert rig.focused(float(shares[0]) * closest).magnification() == pytest.approx(wanted, rel=5e-3)


def test_settings_of_a_ring_run_from_its_far_end_to_its_near_one_and_are_one_where_there_is_none():
    assert Rig((Prime(100.0, 0.0, 1.0),)).ring(5).tolist() == [0.0, 0.25, 0.5, 0.75, 1.0]
    for_large_sizes = Prime(20.0, 1.0, 5.0, farthest_magnification=1.0)
    assert Rig((for_large_sizes,)).ring(3).tolist() == [1.0, 3.0, 5.0]
    assert Rig((Prime(100.0), Tube(50.0))).ring(5).tolist() == [0.0]


def test_bellows_shut_and_a_ring_that_makes_it_smaller():
    """Nearer focus behind +8 gives less: with the bellows shut the ring reaches below what infinity gives."""
    rig = Rig((CloseUpLens(8.0), ZOOM_AT_ITS_LONG_END, Bellows(40.0, 150.0)))
    smallest, largest = rig.magnification_range()
    at_infinity = rig.focused(0.0).drawn(40.0).magnification()
    assert smallest < at_infinity < largest
    between = (smallest + at_infinity) / 2
    assert rig.at_magnification(between).magnification() == pytest.approx(between, rel=1e-9)
