"""The room before the lens, by triangles that can be drawn on paper."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.errors import OutOfDomainError
from just_plane.core.room import Edges, Field, looks_wide, reaches_in, standing, touches

FIELD = Field(width=60.0, pupil=300.0, front=200.0)
"""30 mm to either side at the plane of focus; 20 mm at 100 mm before it; 10 mm at the lens."""


def test_a_thing_beside_the_subject_stands_across_the_axis_from_it():
    one, other = standing(math.pi / 2, 200.0, 100.0, 1)
    assert one == pytest.approx((-50.0, 200.0))
    assert other == pytest.approx((50.0, 200.0))
    assert standing(math.pi / 2, 200.0, 100.0, -1).one[1] == pytest.approx(-200.0)


def test_at_the_lens_and_behind_the_subject_it_stands_on_the_axis():
    for angle, x in ((0.0, 150.0), (math.pi, -150.0)):
        edges = standing(angle, 150.0, 40.0, 1)
        assert {round(edge[0], 9) for edge in edges} == {x}
        assert sorted(edge[1] for edge in edges) == pytest.approx([-20.0, 20.0])


@given(st.floats(0, math.pi), st.floats(10, 1000), st.floats(1, 500), st.sampled_from([-1, 1]))
def test_it_faces_the_subject_and_is_as_wide_as_it_is(angle, away, width, side):
    one, other = map(np.array, standing(angle, away, width, side))
    assert np.linalg.norm(one - other) == pytest.approx(width)
    assert np.linalg.norm(one) == pytest.approx(np.linalg.norm(other))
    assert np.linalg.norm((one + other) / 2) == pytest.approx(away)
    assert abs(one[1] + other[1]) / 2 == pytest.approx(away * math.sin(angle), abs=1e-9)


def test_the_width_it_has_from_the_subject():
    assert math.degrees(looks_wide(100.0, 200.0)) == pytest.approx(90.0)
    assert math.degrees(looks_wide(500.0, 100.0)) == pytest.approx(2 * math.degrees(math.atan(0.1)))
    with pytest.raises(OutOfDomainError):
        looks_wide(0.0, 10.0)


@pytest.mark.parametrize(
    ("edges", "depth"),
    [
        (Edges((100.0, 25.0), (100.0, 90.0)), 0.0),  # 20 mm are seen there
        (Edges((100.0, 15.0), (100.0, 90.0)), 5.0),
        (Edges((100.0, -15.0), (100.0, -90.0)), 5.0),
        (Edges((100.0, -50.0), (100.0, 50.0)), 20.0),  # across the axis
        (Edges((250.0, 0.0), (260.0, 0.0)), 0.0),  # behind the front of the lens
        (Edges((-50.0, 0.0), (-10.0, 0.0)), 0.0),  # behind the subject
        (Edges((-100.0, 28.0), (100.0, 28.0)), 2.0),  # enters at the plane of focus
        (Edges((150.0, 100.0), (150.0, 15.0)), 0.0),
    ],
)
def test_how_far_a_thing_reaches_into_the_picture(edges, depth):
    assert reaches_in(edges, FIELD) == pytest.approx(depth)
    assert reaches_in(Edges(edges.other, edges.one), FIELD) == pytest.approx(depth)


@given(st.tuples(*(st.floats(-400, 400) for _ in range(4))))
def test_it_is_the_deepest_of_all_places_along_it(numbers):
    edges = Edges(numbers[:2], numbers[2:])
    along = np.linspace(0, 1, 2001)[:, None]
    places = np.array(edges.one) * (1 - along) + np.array(edges.other) * along
    seen = places[(places[:, 0] >= 0) & (places[:, 0] <= FIELD.front)]
    deepest = max((FIELD.half_at(x) - abs(y) for x, y in seen), default=0.0)
    assert reaches_in(edges, FIELD) == pytest.approx(max(deepest, 0.0), abs=0.5)


@pytest.mark.parametrize(
    ("edges", "hit"),
    [
        (Edges((220.0, 25.0), (220.0, 90.0)), True),
        (Edges((220.0, 45.0), (220.0, 90.0)), False),
        (Edges((190.0, 0.0), (190.0, 90.0)), False),
        (Edges((220.0, -80.0), (220.0, 80.0)), True),
        (Edges((190.0, -90.0), (320.0, 10.0)), True),
    ],
)
def test_what_touches_a_lens_of_eighty_mm(edges, hit):
    assert touches(edges, 200.0, 300.0, 40.0) is hit
