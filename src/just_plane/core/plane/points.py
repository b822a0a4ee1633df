"""Points in the camera frame: origin at the lens, z along the sensor's normal, x right, y up as seen from behind."""

import math

import numpy as np

from just_plane.core.errors import OutOfDomainError


def checked(points, least=3):
    """Points as an (N, 3) array of finite mm, at least ``least`` of them; else OutOfDomainError.

    Parameters
    ----------
    points : (N, 3) or (3,) array-like
    least : int                          Points wanted.

    Returns
    -------
    (N, 3) array

    Raises
    ------
    OutOfDomainError                     Wrong shape, a value that is not finite, or too few.
    """
    xyz = np.asarray(points, dtype=float)
    if xyz.ndim == 1:
        xyz = xyz[np.newaxis]
    # One sum tells: it is finite when every part of it is.
    if xyz.ndim != 2 or xyz.shape[1] != 3 or not math.isfinite(xyz.sum()):
        raise OutOfDomainError(
            "points.shape", quantity="points", message="Points are rows of finite x, y, z in mm.", value=xyz.shape
        )
    if len(xyz) < least:
        raise OutOfDomainError(
            "points.too_few",
            quantity="points",
            value=len(xyz),
            message=f"A plane needs {least} points; there {'is' if len(xyz) == 1 else 'are'} {len(xyz)}.",
            remedy="Add points that do not lie in one line.",
        )
    return xyz
