"""Depth of tiles as a map: holes filled from around, specks taken out, edges and lines kept."""

import numpy as np
import pytest

from just_plane.core.frames.check.depth_map import everywhere


def slope():
    """Twelve tiles down, sixteen across, a quarter of a step deeper from each to the next."""
    return np.tile(0.25 * np.arange(16.0), (12, 1))


def test_what_is_known_stays():
    assert everywhere(slope()) == pytest.approx(slope())


def test_a_hole_takes_the_mean_of_what_is_nearest():
    depth = slope()
    depth[4:7, 5:8] = np.nan
    filled = everywhere(depth)
    # A hole on a slope, whose edge is told by the row of tiles beside it.
    assert filled[4:7, 5:8] == pytest.approx(slope()[4:7, 5:8], abs=0.3)
    depth[:] = np.nan
    depth[0, 0] = 3.0
    assert everywhere(depth) == pytest.approx(np.full((12, 16), 3.0))


@pytest.mark.parametrize(("down", "across", "kept"), [(1, 1, False), (2, 2, False), (1, 8, True), (4, 4, True)])
def test_a_block_of_four_tiles_is_no_depth_a_line_and_a_larger_part_are(down, across, kept):
    depth = slope()
    depth[5 : 5 + down, 4 : 4 + across] = 9.0
    got = everywhere(depth)[5 : 5 + down, 4 : 4 + across]
    assert (got == 9.0).all() if kept else got == pytest.approx(slope()[5 : 5 + down, 4 : 4 + across], abs=0.6)
