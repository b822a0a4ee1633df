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


IN_LINE = 1e-6
"""Share of their spread to which points keep to a line and count as in one."""


def spanned(points):
    """Points that span a plane: those given, or where they lie in one line, each with a ghost to either side.

    The ghosts stand square to the line as the camera sees it, at the depth of their point: the plane through them
    follows the line and is square to the camera across it. Pairs of them leave no other plane as good.

    Parameters
    ----------
    points : (N, 3) array   mm, two or more.

    Returns
    -------
    ((M, 3) array, bool)    The points to lay a plane through, and whether ghosts stand in for a direction not known.

    Raises
    ------
    OutOfDomainError        Wrong shape, fewer than two, or all at one place of the frame.
    """
    xyz = checked(points, least=2)
    centred = xyz[:, :2] - xyz[:, :2].mean(axis=0)
    _, sizes, turned = np.linalg.svd(centred, full_matrices=False)
    if sizes[0] < IN_LINE:
        raise OutOfDomainError(
            "points.one_place",
            quantity="points",
            value=len(xyz),
            message="The points stand at one place of the frame: they say nothing of how the plane lies.",
            remedy="Place them where they are seen, far apart.",
        )
    if len(xyz) > 2 and sizes[1] > IN_LINE * sizes[0]:
        return xyz, False
    along = turned[0]
    aside = np.array([-along[1], along[0], 0.0]) * np.ptp(centred @ along) / 2
    return np.concatenate([xyz + aside, xyz - aside]), True
