"""Places of frames on each other: shift, turn and size, as matrices that are multiplied, never shifts that are added.

A similarity is a (2, 3) array that takes places (x, y), in pixels from the middle of the first pixel, to places.
"""

import numpy as np

IDENTITY = np.array([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0]])


def chained(first, then):
    """One similarity after the other.

    Parameters
    ----------
    first, then : (2, 3) array   ``first`` is done first.

    Returns
    -------
    (2, 3) array
    """
    return np.column_stack([then[:, :2] @ first[:, :2], then[:, :2] @ first[:, 2] + then[:, 2]])


def inverse(similarity):
    """The way back.

    Parameters
    ----------
    similarity : (2, 3) array

    Returns
    -------
    (2, 3) array
    """
    back = np.linalg.inv(similarity[:, :2])
    return np.column_stack([back, -back @ similarity[:, 2]])


def moved(similarity, places):
    """Where places go.

    Parameters
    ----------
    similarity : (2, 3) array
    places : (N, 2) array        x, y in px.

    Returns
    -------
    (N, 2) array
    """
    return places @ similarity[:, :2].T + similarity[:, 2]


def similar_part(affine, centre):
    """The shift, turn and size in an affine map that also shears: nearest to it about a centre.

    Parameters
    ----------
    affine : (2, 3) array
    centre : (2,) array     x, y in px that go where the affine map takes them.

    Returns
    -------
    (2, 3) array
    """
    along = (affine[0, 0] + affine[1, 1]) / 2
    across = (affine[1, 0] - affine[0, 1]) / 2
    linear = np.array([[along, -across], [across, along]])
    return np.column_stack([linear, affine[:, :2] @ centre + affine[:, 2] - linear @ centre])


def enlarged(similarity, times):
    """The same similarity between pictures that have more pixels.

    Parameters
    ----------
    similarity : (2, 3) array   Between reduced pictures.
    times : float               How many times fewer pixels each way those have.

    Returns
    -------
    (2, 3) array                Between full pictures.

    Notes
    -----
    The middle of reduced pixel x is at ``times x + (times - 1) / 2`` of the full picture.
    """
    offset = np.full(2, (times - 1) / 2)
    linear = similarity[:, :2]
    return np.column_stack([linear, times * similarity[:, 2] + offset - linear @ offset])


def scale_and_turn(similarity):
    """How much larger, and how far turned.

    Parameters
    ----------
    similarity : (2, 3) array

    Returns
    -------
    (float, float)   Ratio; radians, from x toward y.
    """
    along, across = similarity[0, 0], similarity[1, 0]
    return float(np.hypot(along, across)), float(np.arctan2(across, along))
