"""Looks at the camera that show whether the plane lies right, and what was read back there."""

import math

import numpy as np

from just_plane.contract.plane_plan import CheckAnswer, CorrectionAnswer
from just_plane.core.errors import OpticsError
from just_plane.core.plane import TiltSetting, deviations
from just_plane.core.plane.readings import next_setting, setting_from_rail, setting_from_ring
from just_plane.core.plane.ring import image_distances
from just_plane.core.rig import Rig
from just_plane.planning.plane.words import correction_words
from just_plane.planning.setup.rail_marks import TOWARD
from just_plane.planning.words.findings import Answered, note, refused

SCALE_READS_TO = math.radians(0.05)
"""A tilt scale shows no less than this: moving the lens by it would be a guess."""


def expected(rigged, work):
    """What should be read at each point with the lens tilted.

    Parameters
    ----------
    rigged : Rigged
    work : PlaneSetup

    Returns
    -------
    (N,), (N,) array   Rail marks and ring distances at which it is sharp, mm; NaN where there is none.
    """
    count = len(work.cloud.points)
    rails, rings = np.full(count, math.nan), np.full(count, math.nan)
    laid, known = work.laid, work.cloud.known
    if laid is None or laid.setting is None:
        return rails, rings
    xyz = work.cloud.xyz[known]
    if work.rail_mark is not None:
        rails[known] = work.rail_mark + TOWARD[work.rail_counts] * deviations(xyz, laid.fit)
    scale = _ring_scale(rigged, work)
    if scale is not None:
        distances, marks = scale
        own = image_distances(work.lens.focal_length, laid.setting, xyz)
        rings[known] = np.interp(own, distances, marks, left=math.nan, right=math.nan)
    return rails, rings


def _ring_scale(rigged, work):
    """Places of the ring (growing) and the marks printed on it, mm; None where there is no ring to turn.

    The marks say where the lens would focus by itself. With tubes, converters or close-up lenses it focuses elsewhere,
    but the marks still tell how far the ring is turned. A place is where a lens that focuses as a whole would stand to
    focus as this rig does, whatever moves inside it.
    """
    if rigged.over_throw is None:
        return None
    alone = Rig((rigged.rig.lens.focused(rigged.settings),)).imaging()
    marks = np.asarray(alone.subject_to_sensor)
    fine = np.isfinite(marks)
    fine[int(np.argmin(marks)) + 1 :] = False  # past its closest the scale runs backward
    seen_at = work.lens.distance + np.asarray(rigged.over_throw.subject_to_sensor) - rigged.imaging.subject_to_sensor
    on_axis = np.column_stack([np.zeros_like(seen_at), np.zeros_like(seen_at), seen_at])
    fine &= np.isfinite(seen_at)
    places = np.full(len(marks), math.nan)
    places[fine] = image_distances(work.lens.focal_length, work.lens.straight, on_axis[fine])
    fine &= np.isfinite(places)
    fine[fine] = np.diff(places[fine], prepend=-math.inf) > 0
    return (places[fine], marks[fine]) if np.count_nonzero(fine) > 1 else None


def checks(work, rails, rings):
    """Which points to look at, in order, and what should be read (PlaneSetup, (N,), (N,)): list of CheckAnswer."""
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
                point=work.cloud.points[index].id, name=work.cloud.name(index), rail_mm=rail, ring_mm=ring, words=words
            )
        )
    return answers


def correction(setup):
    """What was read with the lens tilted and how much more or less it takes.

    Parameters
    ----------
    setup : Setup

    Returns
    -------
    Answered         Of contract CorrectionAnswer; None where nothing was read, or it says nothing.
    """
    work, back = setup.plane, setup.shot.plane.read_back
    laid = work.laid
    if back is None or laid is None or laid.setting is None or not back.readings:
        return Answered(None)
    singles = {work.cloud.points[i].id: i for i in work.cloud.known if work.cloud.points[i].corner is None}
    read = [(singles[each.point], each.reading_mm) for each in back.readings if each.point in singles]
    if len(read) < 2:
        few = note(
            "read_back.too_few",
            "/plane/read_back/readings",
            "One reading says nothing of the tilt.",
            "Read a point at the near end and one at the far end.",
        )
        return Answered(None, (few,))
    indices, marks = [index for index, _ in read], np.array([mark for _, mark in read])
    shown = TiltSetting(
        math.radians(back.tilt_deg), math.radians(back.faces_deg) + math.pi, laid.setting.image_distance
    )
    try:
        found = _found(setup.rigged, work, back.by, shown, indices, marks)
    except OpticsError as error:
        return Answered(None, (refused(error, "/plane/read_back/readings", setup.wording),))
    if found is None:
        no_scale = note(
            "read_back.no_ring_scale",
            "/plane/read_back/by",
            "This row has no ring to turn, or the readings lie off its scale.",
            "Read the rail instead.",
        )
        return Answered(None, (no_scale,))
    return Answered(_correction(back, work, shown, found, setup.stop))


def _correction(back, work, shown, found, stop):
    """From the setting shown on the scales and the one found to what to set: CorrectionAnswer."""
    laid = work.laid
    tilt, azimuth = next_setting(shown[:2], found[:2], laid.setting[:2])
    more = tilt * math.cos(azimuth - shown.azimuth) - shown.tilt
    if work.lens.click is not None or not work.lens.turns:
        # Its direction stays on the click where it is.
        tilt, azimuth = max(shown.tilt + more, 0.0), shown.azimuth
    now = found._replace(image_distance=laid.setting.image_distance)
    held = bool(np.abs(work.lens.blur(now, work.cloud.sharp, stop.effective_f_number)).max() <= stop.blur)
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


def _found(rigged, work, by, shown, indices, marks):
    """The setting that the lens really has by what was read: TiltSetting, or None off the ring's scale."""
    points = work.cloud.xyz[indices]
    if by == "rail":
        stands = marks[0] if work.rail_mark is None else work.rail_mark
        return setting_from_rail(work.lens.focal_length, shown, points, TOWARD[work.rail_counts] * (marks - stands))
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
