"""Looks at the camera that show whether the plane lies right, and what was read back there."""

import math

import numpy as np

from just_plane.contract.plane_plan import CheckAnswer, CorrectionAnswer
from just_plane.core.errors import OpticsError
from just_plane.core.plane import TiltSetting
from just_plane.core.plane.readings import image_distances, next_setting, setting_from_rail, setting_from_ring
from just_plane.core.rig import Rig
from just_plane.planning.plane_words import correction_words
from just_plane.planning.rail_marks import TOWARD, mark_to_stand_at

SCALE_READS_TO = math.radians(0.05)
"""A tilt scale shows no less than this: moving the lens by it would be a guess."""


def expected(shot, rigged, work):
    """Rail marks and ring distances at which points are sharp, the lens tilted: two (N,), NaN where there is none."""
    count = len(work.cloud.points)
    rails, rings = np.full(count, math.nan), np.full(count, math.nan)
    laid, known = work.laid, work.cloud.known
    if laid is None or laid.setting is None:
        return rails, rings
    xyz = work.cloud.xyz[known]
    mark = mark_to_stand_at(shot, work)
    if mark is not None:
        off = xyz[:, 2] - (laid.fit.z0 + laid.fit.slope_x * xyz[:, 0] + laid.fit.slope_y * xyz[:, 1])
        rails[known] = mark + TOWARD[shot.plane.rail_counts] * off
    scale = _ring_scale(rigged, work)
    if scale is not None:
        distances, marks = scale
        own = image_distances(work.lens.focal_length, laid.setting, xyz)
        rings[known] = np.interp(own, distances, marks, left=math.nan, right=math.nan)
    return rails, rings


def _ring_scale(rigged, work):
    """Image distances (growing) and the marks printed on the ring, mm; None where there is no ring to turn.

    The marks say where the lens would focus by itself. With tubes, converters or close-up lenses it focuses elsewhere,
    but the marks still tell how far the ring is turned.
    """
    if rigged.over_throw is None:
        return None
    own = np.asarray(rigged.over_throw.magnification) / work.lens.scale_behind
    alone = Rig((rigged.rig.lens.focused(rigged.settings),)).imaging()
    marks = np.asarray(alone.subject_to_sensor)
    fine = np.isfinite(marks)
    fine[int(np.argmin(marks)) + 1 :] = False  # past its closest the scale runs backward
    return work.lens.focal_length * (1 + own[fine]), marks[fine]


def checks(work, rails, rings, wording):
    """Which points to look at, in order, and what should be read: list of CheckAnswer."""
    laid = work.laid
    if laid is None or laid.setting is None:
        return []
    asked = [index for index in work.cloud.asked if work.cloud.points[index].corner is None]
    if len(asked) < 2:
        asked = work.cloud.asked
    turn = np.array([math.cos(laid.setting.azimuth), math.sin(laid.setting.azimuth)])
    along = {index: float(work.cloud.xyz[index, :2] @ turn) for index in asked}
    order = sorted(asked, key=lambda index: along[index])
    order = [order[0], order[-1], *order[1:-1]]
    answers = []
    for place, index in enumerate(order):
        words = (
            ("Focus here first.", "Then here: early means too much tilt, late too little.")[place] if place < 2 else ""
        )
        rail, ring = (None if math.isnan(marks[index]) else float(marks[index]) for marks in (rails, rings))
        answers.append(
            CheckAnswer(
                point=work.cloud.points[index].id, name=work.name(index), rail_mm=rail, ring_mm=ring, words=words
            )
        )
    return answers


def correction(shot, rigged, work, allowed, effective, findings):
    """What was read with the lens tilted and how much more or less it takes: CorrectionAnswer or None."""
    back, laid = shot.plane.read_back, work.laid
    if back is None or laid is None or laid.setting is None or not back.readings:
        return None
    singles = {work.cloud.points[i].id: i for i in work.cloud.known if work.cloud.points[i].corner is None}
    read = [(singles[each.point], each.reading_mm) for each in back.readings if each.point in singles]
    if len(read) < 2:
        findings.note(
            "read_back.too_few",
            "/plane/read_back/readings",
            "One reading says nothing of the tilt.",
            "Read a point at the near end and one at the far end.",
        )
        return None
    indices, marks = [index for index, _ in read], np.array([mark for _, mark in read])
    shown = TiltSetting(
        math.radians(back.tilt_deg), math.radians(back.faces_deg) + math.pi, laid.setting.image_distance
    )
    try:
        found = _found(shot, rigged, work, shown, indices, marks)
    except OpticsError as error:
        findings.refused(error, "/plane/read_back/readings")
        return None
    if found is None:
        findings.note(
            "read_back.no_ring_scale",
            "/plane/read_back/by",
            "This row has no ring to turn, or the readings lie off its scale.",
            "Read the rail instead.",
        )
        return None
    tilt, azimuth = next_setting(shown[:2], found[:2], laid.setting[:2])
    more = tilt * math.cos(azimuth - shown.azimuth) - shown.tilt
    if work.lens.click is not None or not work.lens.turns:
        # Its direction stays on the click where it is.
        tilt, azimuth = max(shown.tilt + more, 0.0), shown.azimuth
    now = found._replace(image_distance=laid.setting.image_distance)
    held = bool(np.abs(work.lens.blur(now, work.cloud.sharp, effective)).max() <= allowed)
    close = abs(more) < SCALE_READS_TO
    faces = _faces(azimuth)
    return CorrectionAnswer(
        found_tilt_deg=math.degrees(found.tilt),
        found_faces_deg=_faces(found.azimuth),
        more_deg=math.degrees(more),
        set_tilt_deg=math.degrees(tilt),
        set_faces_deg=faces,
        within=held or close,
        held=held,
        words=correction_words(
            back.tilt_deg, math.degrees(found.tilt), math.degrees(more), faces, held=held, close=close
        ),
    )


def _found(shot, rigged, work, shown, indices, marks):
    points = work.cloud.xyz[indices]
    if shot.plane.read_back.by == "rail":
        at = mark_to_stand_at(shot, work)
        moved = TOWARD[shot.plane.rail_counts] * (marks - (marks[0] if at is None else at))
        return setting_from_rail(work.lens.focal_length, shown, points, moved)
    scale = _ring_scale(rigged, work)
    if scale is None:
        return None
    distances, ring_marks = scale
    order = np.argsort(ring_marks)
    read = np.interp(marks, ring_marks[order], distances[order], left=math.nan, right=math.nan)
    return None if np.isnan(read).any() else setting_from_ring(work.lens.focal_length, shown, points, read)


def _faces(azimuth):
    """Degrees toward where the lens faces, -180 to 180: opposite to where the plane recedes."""
    return (math.degrees(azimuth) + 360) % 360 - 180
