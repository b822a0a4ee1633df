"""What the setting makes of each point: its blur, its slack, and the marks at which it should be sharp."""

import math

import numpy as np

from just_plane.contract.plane_plan import PointAnswer
from just_plane.core.errors import OpticsError
from just_plane.core.plane import (
    carrying_points,
    deviation_uncertainty,
    deviations,
    held_deviation_uncertainty,
    wedge_faces,
)
from just_plane.core.units import UM_PER_MM
from just_plane.planning.words.findings import Answered, caution
from just_plane.planning.words.numbers import count

SURE = 2.0
"""Standard uncertainties that a slack must hold to be counted on."""


def point_answers(setup, azimuth, rails, rings):
    """Every point, worked out, and those that are sharp only if their readings are better than they seem.

    Parameters
    ----------
    setup : Setup
    azimuth : float       Of the side view, radians.
    rails, rings : (N,)   What should be read at each, mm; NaN where there is nothing to read.

    Returns
    -------
    Answered              Of a list of PointAnswer.
    """
    work, cloud, laid = setup.plane, setup.plane.cloud, setup.plane.laid
    carrying = {cloud.asked[i] for i in carrying_points(cloud.sharp, laid.wanted)} if laid else set()
    turn = np.array([math.cos(azimuth), math.sin(azimuth)])
    seen = _in_wedge(setup)
    unsure = _unsure(setup)
    answers = []
    for index, point in enumerate(cloud.points):
        common = {"id": point.id, "corner": point.corner, "name": point.name, "wanted": point.wanted,
                  "from_left": float(cloud.places[index, 0]), "from_top": float(cloud.places[index, 1])}  # fmt: skip
        if point.depth is None:
            answers.append(PointAnswer(**common))
            continue
        xyz = cloud.xyz[index]
        answers.append(
            PointAnswer(
                **common,
                behind_nearest_mm=float(xyz[2] - cloud.nearest),
                x_mm=float(xyz[0]),
                y_mm=float(xyz[1]),
                across_mm=float(xyz[:2] @ turn),
                frame_width_mm=float(work.frame.scale_at(xyz[2])) * work.frame.width,
                uncertainty_mm=point.uncertainty,
                slack_uncertainty_mm=unsure.get(index),
                carries=index in carrying,
                expected_rail_mm=_or_none(rails[index]),
                expected_ring_mm=_or_none(rings[index]),
                **seen.get(index, {}),
            )
        )
    return Answered(answers, _doubtful(setup, seen, unsure))


def _unsure(setup):
    """Standard uncertainty of where each point that must be sharp lies beside the plane laid, mm: {index: float}."""
    cloud, laid = setup.plane.cloud, setup.plane.laid
    if laid is None or laid.setting is None:
        return {}
    errors = [cloud.points[index].uncertainty for index in cloud.asked]
    if setup.plane.across_assumed or any(error is None for error in errors):
        return {}
    follows = deviation_uncertainty if laid.fit == laid.wanted else held_deviation_uncertainty
    return dict(zip(cloud.asked, follows(cloud.sharp, laid.fit, errors).tolist(), strict=True))


def _doubtful(setup, seen, unsure):
    """Name the points that are only sharp if their readings are better than they seem: tuple of Finding."""
    doubtful = [
        index
        for index, sure in unsure.items()
        if index in seen and seen[index]["slack_mm"] is not None and 0 <= seen[index]["slack_mm"] < SURE * sure
    ]
    if not doubtful:
        return ()
    index = min(doubtful, key=lambda each: seen[each]["slack_mm"] / unsure[each])
    name, length = setup.plane.cloud.name(index), setup.wording.length
    more = f"; so with {count(len(doubtful) - 1, 'other')}" if len(doubtful) > 1 else ""
    return (
        caution(
            "points.slack_unsure",
            f"/plane/points/{setup.plane.cloud.points[index].index}",
            f"{name[:1].upper()}{name[1:]} has {length(seen[index]['slack_mm'])} to spare, and the readings leave "
            f"± {length(unsure[index])} of doubt{more}. It may come out soft.",
            "Read it again, or stop down.",
        ),
    )


def _or_none(value):
    return float(value) if math.isfinite(value) else None


def _in_wedge(setup):
    """Blur, slack and verdict of every point that is read, with the lens tilted: {index: parts of PointAnswer}."""
    work, cloud, laid = setup.plane, setup.plane.cloud, setup.plane.laid
    if laid is None or laid.setting is None:
        return {}
    _, effective, allowed = setup.stop[:3]
    lens, setting, fit, known = work.lens, laid.setting, laid.fit, cloud.known
    xyz = cloud.xyz[known]
    try:
        blurs = np.abs(lens.blur(setting, xyz, effective))
    except OpticsError:
        return {}
    near, far = wedge_faces(lens.focal_length, lens.f_number(effective), setting, allowed / lens.scale_behind)
    across = xyz[:, 0] * math.cos(setting.azimuth) + xyz[:, 1] * math.sin(setting.azimuth)
    slack = np.minimum(xyz[:, 2] - near.at(across), far.at(across) - xyz[:, 2])
    off = deviations(xyz, fit)
    sharp = blurs <= allowed * (1 + 1e-9)
    return {
        index: {
            "off_plane_mm": float(off[at]),
            "blur_um": float(blurs[at]) * UM_PER_MM,
            "slack_mm": _or_none(slack[at]),
            "fine": bool(sharp[at] == (cloud.points[index].wanted == "sharp")),
        }
        for at, index in enumerate(known)
    }
