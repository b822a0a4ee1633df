"""Detail of one size in a picture, with and without its strength; how alike two such pictures are."""

import cv2
import numpy as np

FLOOR = 0.012
"""Strength of detail, of full scale, under which a place counts as plain when strength is divided out."""


def band(grey, sigma, wider):
    """What a picture holds between two sizes of detail.

    Parameters
    ----------
    grey : (H, W) float32 array
    sigma : float               Of the finer smoothing, px.
    wider : float               Of the coarser smoothing, px, larger.

    Returns
    -------
    (H, W) float32 array        About zero.
    """
    return smoothed(grey, sigma) - smoothed(grey, wider)


def smoothed(grey, sigma):
    """A picture smoothed by a bell curve; wide ones by way of fewer pixels.

    Parameters
    ----------
    grey : (H, W) or (H, W, C) float32 array
    sigma : float               px; under 0.3 nothing is done.

    Returns
    -------
    array                       Of the same shape.
    """
    if sigma < 0.3:
        return grey
    if sigma > 8 and min(grey.shape[:2]) > 64:
        small = cv2.resize(grey, None, fx=0.25, fy=0.25, interpolation=cv2.INTER_AREA)
        return cv2.resize(smoothed(small, sigma / 4), grey.shape[1::-1], interpolation=cv2.INTER_LINEAR)
    return cv2.GaussianBlur(grey, (0, 0), sigma, borderType=cv2.BORDER_REFLECT_101)


def evened(detail, sigma):
    """Detail with its local strength divided out, so that a contrast that comes and goes does not count.

    Parameters
    ----------
    detail : (H, W) float32 array   As from :func:`band`.
    sigma : float                   Over how far strength is taken, px.

    Returns
    -------
    (H, W) float32 array
    """
    strength = cv2.sqrt(np.maximum(smoothed(detail * detail, sigma), 0))
    return detail / np.maximum(strength, FLOOR)


def likeness(first, second, inside=None):
    """Normalised correlation of two pictures.

    Parameters
    ----------
    first, second : (H, W) array   About zero.
    inside : (H, W) bool array     Where to look; everywhere when None.

    Returns
    -------
    float                          1 the same, 0 nothing in common; 0 also where there is nothing.
    """
    if inside is not None:
        first, second = first[inside], second[inside]
    power = float(np.vdot(first, first)) * float(np.vdot(second, second))
    return float(np.vdot(first, second)) / power**0.5 if power > 0 else 0.0
