"""Depth of tiles as a map without holes, and without what is no depth."""

import cv2
import numpy as np

ODD_STEPS = 2.0
"""Tiles that differ so much from those around, a block of four at most, are not of the subject."""
REACHES = (1, 3, 9, 27, 81)
"""Tiles either way from which a tile that tells no depth takes it, the nearest first."""


def everywhere(depth):
    """Depth at every tile.

    Parameters
    ----------
    depth : (down, across) array   Steps; NaN where it cannot be told, known somewhere.

    Returns
    -------
    (down, across) float32 array   The mean of those around where it was not known; nor where one to four tiles in a
                                   block differ from all around: detail that is in every frame alike has no depth.
    """
    known = np.isfinite(depth).astype(np.float32)
    filled = np.where(known > 0, depth, 0).astype(np.float32)
    for reach in REACHES:
        side = (2 * reach + 1,) * 2
        near = cv2.blur(known, side, borderType=cv2.BORDER_CONSTANT)
        mean = cv2.blur(filled, side, borderType=cv2.BORDER_CONSTANT) / np.maximum(near, 1e-9)
        new = (known == 0) & (near > 1e-6)
        filled[new], known[new] = mean[new], 1
    return _without_specks(filled)


def _without_specks(depth):
    around = cv2.medianBlur(depth, 5)
    odd = (np.abs(depth - around) > ODD_STEPS).astype(np.uint8)
    count, labels, stats, _ = cv2.connectedComponentsWithStats(odd, connectivity=8)
    for index in range(1, count):
        if max(stats[index, cv2.CC_STAT_WIDTH], stats[index, cv2.CC_STAT_HEIGHT]) <= 2:
            depth[labels == index] = around[labels == index]
    return depth
