"""Points in the camera frame: origin at the lens, z along the sensor's normal, x right, y up as seen from behind."""

import numpy as np

from just_plane.core.errors import OutOfDomainError


def checked(points, least=3):
    """Points as an (N, 3) array of finite mm, at least ``least`` of them; else OutOfDomainError."""
    xyz = np.atleast_2d(np.asarray(points, dtype=float))
    if xyz.ndim != 2 or xyz.shape[1] != 3 or not np.all(np.isfinite(xyz)):
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
