"""Where the tilt does not reach the plane: the least turn of the camera after which it does.

Tilt and turn are solved together, for what the mechanism can do: tilt along one direction only, along the directions of
its clicks, or along any. See docs/derivations/plane.md.
"""

import math
from dataclasses import replace
from typing import NamedTuple

import numpy as np

from just_plane.core.errors import OpticsError
from just_plane.core.plane.fit import PlaneFit
from just_plane.core.plane.tilting_lens import Laid, lay_plane
from just_plane.core.plane.turning import turned_points

TRIED = 65
"""Tilts tried along each direction before the least turn is closed in on."""
MOST_ROUNDS = 8
"""The steepest slope goes with the distance that the plane has after the turn: a few rounds agree."""
AGREED = 1e-4
"""mm by which the plane laid may miss more than the plane wanted."""


class Turn(NamedTuple):
    """The camera moved round the subject, which stays in the middle, and the plane laid from there."""

    toward: float
    """Azimuth, radians: the camera moves to that side of the frame."""
    angle: float
    """Radians, >= 0."""
    laid: Laid


def least_turn(lens, points, wanted):
    """The least turn of the camera after which the lens lays its plane through the points.

    Parameters
    ----------
    lens : TiltingLens      That tilts.
    points : (N, 3) array   mm, in the camera frame as it stands.
    wanted : PlaneFit       Through them.

    Returns
    -------
    Turn or None            None where no turn was found from which it does better.
    """
    normal, z0 = _normal(wanted), lens.distance
    best = None
    for _ in range(MOST_ROUNDS):
        steepest = math.atan(math.sin(lens.limit) * z0 / lens.focal_length) * (1 - 1e-9)
        toward, angle = min((_onto(normal, way, steepest) for way in _ways(lens, normal)), key=lambda each: each[1])
        try:
            laid = lay_plane(lens, turned_points(points, toward, angle, lens.distance))
        except OpticsError:
            return best
        if laid.setting is None:
            return best
        left = laid.fit.largest_deviation
        if best is None or left < best.laid.fit.largest_deviation:
            best = Turn(toward, angle, laid)
        if left <= laid.wanted.largest_deviation + AGREED:
            break
        # Seen from there the best plane through points that lie in none is another: aim at that one.
        normal, z0 = _turned(_normal(laid.wanted), toward, -angle), laid.fit.z0
    return best


def rolled(lens, points):
    """The plane laid with the camera rolled by a quarter turn, its mechanism with it: Laid. Raises as ``lay_plane``.

    Parameters
    ----------
    lens : TiltingLens
    points : (N, 3) array   mm, in the frame as the camera stands now.

    Returns
    -------
    Laid                    In that frame.
    """
    return lay_plane(_quarter_turned(lens), points)


def _quarter_turned(lens):
    return replace(lens, rest=math.pi / 2 - lens.rest)


def _normal(fit: PlaneFit):
    return np.array([-fit.slope_x, -fit.slope_y, 1.0]) / math.sqrt(1 + fit.slope_x**2 + fit.slope_y**2)


def _ways(lens, normal):
    """Azimuths along which the mechanism tilts, either way along each."""
    if not lens.turns:
        return [lens.rest]
    if lens.click is None:
        return [math.atan2(-normal[1], -normal[0])]
    to_either_side = math.floor(math.pi / 2 / lens.click + 1e-9)
    return [lens.rest + lens.click * index for index in range(-to_either_side, to_either_side + 1)]


def _onto(normal, way, steepest):
    """The least turn after which a plane with this normal leans along ``way`` and no steeper: (toward, angle)."""
    # Here and not above: asked only where a tilt does not reach, and the import costs a third of a plan from the shell.
    from scipy.optimize import minimize_scalar

    found = minimize_scalar(
        lambda lean: _between(normal, way, lean)[1], bounds=_about_best(normal, way, steepest), method="bounded",
        options={"xatol": 1e-10},
    )  # fmt: skip
    ends = [_between(normal, way, lean) for lean in (-steepest, steepest, float(found.x))]
    return min(ends, key=lambda each: each[1])


def _about_best(normal, way, steepest):
    leans = np.linspace(-steepest, steepest, TRIED)
    best = int(np.argmin([_between(normal, way, lean)[1] for lean in leans]))
    return float(leans[max(best - 1, 0)]), float(leans[min(best + 1, TRIED - 1)])


def _between(normal, way, lean):
    """The turn that takes a normal to that of a plane leaning along ``way`` by ``lean``: (toward, angle).

    A turn without roll keeps what lies along its axis, and that axis lies in the frame: so it stands across the
    difference of the two normals on the frame.
    """
    aim = (-math.sin(lean) * math.cos(way), -math.sin(lean) * math.sin(way), math.cos(lean))
    x, y = aim[0] - normal[0], aim[1] - normal[1]
    apart = math.hypot(x, y)
    if apart < 1e-15:
        return way, 0.0
    x, y = x / apart, y / apart
    angle = math.atan2(aim[0] * x + aim[1] * y, aim[2]) - math.atan2(normal[0] * x + normal[1] * y, normal[2])
    return math.atan2(y, x), angle


def _turned(vector, toward, angle):
    """A direction as the camera sees it after the turn."""
    along = np.array([math.cos(toward), math.sin(toward), 0.0])
    part = float(vector @ along)
    turned = part * math.cos(angle) + vector[2] * math.sin(angle)
    deep = vector[2] * math.cos(angle) - part * math.sin(angle)
    return vector + (turned - part) * along + np.array([0.0, 0.0, deep - vector[2]])
