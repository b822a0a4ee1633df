"""How sure a plane through points is, and how sure each point's place beside it, from how sure their depths are.

The plane and its deviation are the solution of linear equations in the depths of the points that carry the limit (with
three points, of all); small errors pass through those equations. Errors of different points are taken as independent.
"""

import numpy as np

from just_plane.core.plane.fit import carrying_points, deviations
from just_plane.core.plane.points import checked


def fit_uncertainty(points, fit, reading_errors):
    """How sure the plane is, from how sure the depths of its points are.

    Parameters
    ----------
    points : (N, 3) array
    fit : PlaneFit               Of these points.
    reading_errors : (N,) array  Standard uncertainty of each depth, mm, >= 0.

    Returns
    -------
    (3, 3) array                 Covariance of z0 (mm), slope_x, slope_y.
    """
    xyz = checked(points)
    carrying, passed_on = _passed_on(xyz, fit)
    errors = np.asarray(reading_errors, dtype=float)[carrying]
    return (passed_on * errors**2) @ passed_on.T


def deviation_uncertainty(points, fit, reading_errors):
    """How sure each point's deviation from the plane is.

    Parameters
    ----------
    points, fit, reading_errors   As for :func:`fit_uncertainty`.

    Returns
    -------
    (N,) array    Standard uncertainty of how far each lies behind the plane, mm.

    Notes
    -----
    An error of a point that carries the limit moves the plane with it, so that it shows less in its own deviation than
    in that of a point that the plane does not follow.
    """
    xyz = checked(points)
    carrying, passed_on = _passed_on(xyz, fit)
    errors = np.asarray(reading_errors, dtype=float)
    ground = np.column_stack([np.ones(len(xyz)), xyz[:, :2]])
    follows = np.eye(len(xyz))
    follows[:, carrying] -= ground @ passed_on
    return np.sqrt(np.square(follows) @ errors**2)


def held_deviation_uncertainty(points, fit, reading_errors):
    """The same for a plane whose slopes the lens holds: only its distance follows the points, midway between the ends.

    Parameters
    ----------
    points, reading_errors   As for :func:`fit_uncertainty`.
    fit : PlaneFit           With slopes that are given, its distance midway between the points that lie farthest off.

    Returns
    -------
    (N,) array               mm.
    """
    xyz = checked(points, least=1)
    errors = np.asarray(reading_errors, dtype=float)
    off = deviations(xyz, fit)
    follows = np.eye(len(xyz))
    for end in (int(np.argmin(off)), int(np.argmax(off))):
        follows[:, end] -= 0.5
    return np.sqrt(np.square(follows) @ errors**2)


def _passed_on(xyz, fit):
    """Which points carry the limit, and what a unit of each one's depth makes of z0, slope_x and slope_y: (3, K)."""
    carrying = list(carrying_points(xyz, fit))
    ground = np.column_stack([np.ones(len(carrying)), xyz[carrying, 0], xyz[carrying, 1]])
    if len(carrying) > 3:
        ground = np.column_stack([ground, np.sign(deviations(xyz[carrying], fit))])
    return carrying, np.linalg.pinv(ground)[:3]
