"""The rectangle that all frames cover: by moves whose rectangles are plain, and by where its corners come from."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from just_plane.core.frames.proof.crop import covered_by_all

WIDTH, HEIGHT = 300, 200


def laid(right=0.0, down=0.0, turned_deg=0.0, scale=1.0):
    """Places of a frame to places of the reference: turned and scaled about the middle, then moved."""
    turn = scale * np.array(
        [
            [np.cos(np.radians(turned_deg)), -np.sin(np.radians(turned_deg))],
            [np.sin(np.radians(turned_deg)), np.cos(np.radians(turned_deg))],
        ]
    )
    middle = np.array([(WIDTH - 1) / 2, (HEIGHT - 1) / 2])
    return np.column_stack([turn, middle - turn @ middle + [right, down]])


STILL = laid()


@pytest.mark.parametrize(
    ("moves", "box"),
    [
        ([], (0, 0, 300, 200)),
        ([STILL], (0, 0, 300, 200)),
        ([STILL, laid(7, -4)], (7, 0, 300, 196)),
        ([laid(7, -4), laid(-3.5, 2.5)], (7, 3, 296, 196)),
        ([laid(scale=1.1)], (0, 0, 300, 200)),
        # Nine tenths about the middle: 14.95 and 9.95 px from either side.
        ([laid(scale=0.9)], (15, 10, 285, 190)),
    ],
)
def test_plain_moves_have_plain_rectangles(moves, box):
    assert covered_by_all(moves, WIDTH, HEIGHT) == box


@given(
    st.lists(
        st.builds(laid, st.floats(-20, 20), st.floats(-20, 20), st.floats(-3, 3), st.floats(0.93, 1.07)),
        min_size=1,
        max_size=5,
    )
)
def test_every_corner_comes_from_inside_every_frame(moves):
    left, top, right, bottom = covered_by_all(moves, WIDTH, HEIGHT)
    corners = np.array([[left, top], [right - 1, top], [right - 1, bottom - 1], [left, bottom - 1]], float)
    for similarity in moves:
        back = np.linalg.inv(np.vstack([similarity, [0, 0, 1]]))[:2]
        x, y = (np.column_stack([corners, np.ones(4)]) @ back.T).T
        # In thousandths of a pixel: whole pixels are cut, not rounded.
        assert x.min() > -2e-3
        assert y.min() > -2e-3
        assert x.max() < WIDTH - 1 + 2e-3
        assert y.max() < HEIGHT - 1 + 2e-3


@pytest.mark.parametrize("turned_deg", [-2.0, 2.0])
def test_a_turned_frame_costs_what_its_corners_stick_out(turned_deg):
    """Turned about the middle by a small angle t, the sides move in by half the other side times tan(t), about."""
    left, top, right, bottom = covered_by_all([laid(turned_deg=turned_deg)], WIDTH, HEIGHT)
    sideways, upright = (side / 2 * np.sin(np.radians(2)) for side in (HEIGHT, WIDTH))
    assert (left, WIDTH - right) == (pytest.approx(sideways, abs=1.2), pytest.approx(sideways, abs=1.2))
    assert (top, HEIGHT - bottom) == (pytest.approx(upright, abs=1.2), pytest.approx(upright, abs=1.2))


@pytest.mark.parametrize("move", [laid(295, 0), laid(-295, 0), laid(0, 196), laid(0, -196), laid(400, 400)])
def test_where_frames_hardly_meet_sixteen_pixels_are_left(move):
    left, top, right, bottom = covered_by_all([STILL, move], WIDTH, HEIGHT)
    assert right - left >= 16
    assert bottom - top >= 16
    assert 0 <= left < right <= WIDTH
    assert 0 <= top < bottom <= HEIGHT


@pytest.mark.parametrize(
    ("moves", "box"),
    [
        # They share 147 to 152, whose middle is 150; 97 to 102 of the height, whose middle is 100.
        ([laid(147), laid(-147)], (142, 0, 158, 200)),
        ([laid(0, 97), laid(0, -97)], (0, 92, 300, 108)),
        # No farther than the frame goes.
        ([STILL, laid(296)], (284, 0, 300, 200)),
        ([STILL, laid(-296)], (0, 0, 16, 200)),
    ],
)
def test_where_frames_hardly_meet_sixteen_pixels_are_left_about_the_middle_of_what_they_share(moves, box):
    assert covered_by_all(moves, WIDTH, HEIGHT) == box
