"""What all frames cover once they are laid on the reference."""

import numpy as np

from just_plane.core.frames.check.similarity import moved


def covered_by_all(to_reference, width, height):
    """The rectangle of the reference that every frame covers.

    Parameters
    ----------
    to_reference : sequence of (2, 3) array   Places of each frame to places of the reference, px.
    width, height : int                       Of the frames, px.

    Returns
    -------
    (int, int, int, int)                      Left, top, right, bottom; the last two are one past. At least 16 px wide
                                              and high, in the middle, where frames hardly meet.
    """
    corners = np.array([[0, 0], [width - 1, 0], [width - 1, height - 1], [0, height - 1]], float)
    left = top = 0.0
    right, bottom = width - 1.0, height - 1.0
    for similarity in to_reference:
        x, y = moved(similarity, corners).T
        left, right = max(left, x[0], x[3]), min(right, x[1], x[2])
        top, bottom = max(top, y[0], y[1]), min(bottom, y[2], y[3])
    box = [int(np.ceil(left - 1e-6)), int(np.ceil(top - 1e-6)), int(np.floor(right + 1e-6)) + 1]
    box.append(int(np.floor(bottom + 1e-6)) + 1)
    for low, high, size in ((0, 2, width), (1, 3, height)):
        if box[high] - box[low] < 16:
            middle = min(max((box[high] + box[low]) // 2, 8), size - 8)
            box[low], box[high] = max(middle - 8, 0), min(middle + 8, size)
    return tuple(box)
