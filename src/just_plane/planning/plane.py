"""The plane section of a plan: from the points to the setting, the wedge round it, and what each point makes of it."""

import math

import numpy as np

from just_plane.contract.plane_plan import BlurMap, PlaneSection, TiltAnswer
from just_plane.core.depth import best_focus
from just_plane.core.errors import OpticsError
from just_plane.core.plane import (
    fit_uncertainty,
    hinge_distance,
    tilt_holding_magnification,
    wedge_faces,
)
from just_plane.core.plane.readings import node_moved_by_pivot
from just_plane.core.units import UM_PER_MM
from just_plane.planning import other_trades
from just_plane.planning.circle import circle
from just_plane.planning.plane_checks import checks, correction, expected
from just_plane.planning.plane_lines import line_of, line_of_face
from just_plane.planning.plane_points import point_answers
from just_plane.planning.plane_words import direction, last_steps, rotation, steps
from just_plane.planning.rail_marks import mark_to_stand_at
from just_plane.planning.subject_surface import SubjectSurface
from just_plane.planning.tilting import LEVEL

COLUMNS, ROWS = 36, 24
MOST_PERCENT = 9999


def plane(bench, findings):
    """The plane section: PlaneSection."""
    shot, rigged, work, wording = bench.shot, bench.rigged, bench.plane, bench.wording
    f_number, effective, allowed = bench.chosen
    laid = work.laid
    azimuth = laid.azimuth if laid else math.pi / 2
    rails, rings = expected(shot, rigged, work)
    parts: dict = {}
    if laid is not None:
        parts |= _laid(bench, azimuth, findings)
        parts["turn"] = other_trades.turn(rigged, work, wording)
        parts["checks"] = checks(work, rails, rings, wording)
        parts["correction"] = correction(shot, rigged, work, allowed, effective, findings)
        if laid.setting is not None:
            first = parts["checks"][0] if parts["checks"] else None
            parts["steps"] = steps(work.lens, parts["setting"], first, wording)
            parts["last_steps"] = last_steps(mark_to_stand_at(shot, work), f_number)
    return PlaneSection(
        points=point_answers(bench, azimuth, rails, rings, findings),
        steepest_deg=math.degrees(math.atan(work.lens.steepest)) if work.lens.limit else None,
        azimuth_deg=math.degrees(azimuth),
        half_field_mm=_half_field(work.frame, azimuth),
        allowed_blur_um=allowed * UM_PER_MM,
        lens_behind_nearest_mm=-work.cloud.nearest,
        shift=other_trades.shift(shot, rigged, work, findings, wording),
        join=other_trades.joined(shot, rigged, work, findings, wording),
        strip=other_trades.strip(shot, work, allowed, effective, azimuth, findings, wording),
        maps=_maps(bench) if work.cloud.points else [],
        **parts,
    )


def _half_field(frame, azimuth):
    half = abs(frame.width * math.cos(azimuth)) + abs(frame.height * math.sin(azimuth))
    return half / 2 / frame.magnification


def _laid(bench, azimuth, findings):
    """What follows from a plane through the points."""
    shot, rigged, work, wording = bench.shot, bench.rigged, bench.plane, bench.wording
    laid, lens, nearest = work.laid, work.lens, work.cloud.nearest
    _, effective, allowed = bench.chosen
    degrees = math.degrees(math.atan(laid.slope))
    parts = {
        "angle_deg": degrees,
        "wanted": line_of(laid.wanted[:3], azimuth, nearest),
        "largest_deviation_mm": laid.wanted.largest_deviation,
        "limited": laid.limited,
    }
    if laid.slope < LEVEL:
        findings.note(
            "points.one_depth",
            "/plane/points",
            "The points stand at one depth: the camera is square to them, and no tilt is needed.",
        )
    if laid.setting is None:
        return parts
    setting = laid.setting
    near, far = wedge_faces(lens.focal_length, lens.f_number(effective), setting, allowed / lens.scale_behind)
    parts |= {
        "setting": _setting(bench, setting),
        "laid": line_of(laid.fit[:3], azimuth, nearest),
        "near_face": line_of_face(near, setting, azimuth, nearest),
        "far_face": line_of_face(far, setting, azimuth, nearest),
        "left_over_mm": laid.fit.largest_deviation,
        "covering_f_number": _covering(bench, setting),
        "circle": circle(shot, rigged, work, setting),
    }
    if laid.limited:
        parts["turn_rest_deg"] = _say_limited(work, degrees, findings, wording)
    elif lens.click is not None:
        _say_between_clicks(work, findings, wording)
    if parts["circle"].inside is False:
        findings.caution(
            "plane.out_of_circle",
            "/plane",
            f"Tilted so, the frame needs a lit circle of {wording.length(parts['circle'].radius_mm * 2)} to reach "
            f"{wording.length(parts['circle'].needed_mm * 2)}: a corner goes dark.",
            "Use a crop mode, tilt or shift less, or crop the picture.",
        )
    _say_throw(bench, setting, findings)
    return parts


def _say_limited(work, degrees, findings, wording):
    """Say what the limit leaves; return the turn of the camera that would do the rest, degrees."""
    lens, laid = work.lens, work.laid
    reach = math.degrees(math.atan(math.sin(lens.limit) * laid.fit.z0 / lens.focal_length))
    rest = max(degrees - reach, 0.0)
    if not lens.turns and rest < 0.05:
        along = "up and down" if lens.rest else "left and right"
        findings.caution(
            "plane.no_rotation",
            "/plane",
            f"This mechanism does not turn about the axis: it tilts {along} only, and the plane recedes "
            f"{direction(math.degrees(laid.azimuth))}.",
            f"{'Turn the camera on its side' if lens.rest else 'Stand the camera upright'}, or turn it about its axis "
            f"until the plane recedes {along} in the frame.",
        )
        return None
    findings.caution(
        "plane.beyond_limit",
        "/plane",
        f"The plane lies {degrees:.0f}° from square; with {math.degrees(lens.limit):g}° of tilt this lens follows "
        f"{reach:.1f}° here. {wording.length(laid.fit.largest_deviation)} is left over.",
        f"Turn the camera {rest:.0f}° toward the subject's slope for the rest, or tilt and stack.",
    )
    return rest


def _say_between_clicks(work, findings, wording):
    """Say what it costs that the mechanism does not stay where the plane wants it."""
    laid = work.laid
    if laid.fit.largest_deviation <= laid.wanted.largest_deviation + 1e-3:
        return
    turn = math.degrees(laid.azimuth - laid.setting.azimuth)
    roll = (turn + 90) % 180 - 90
    way = "clockwise" if roll < 0 else "anticlockwise"
    findings.note(
        "plane.between_clicks",
        "/plane",
        f"The plane recedes {abs(roll):.0f}° beside the nearest click of the mechanism: "
        f"{wording.length(laid.fit.largest_deviation)} is left over, where "
        f"{wording.length(laid.wanted.largest_deviation)} would be.",
        f"Where that matters, turn the camera about its axis by {abs(roll):.0f}° {way}, seen from behind.",
    )


def _say_throw(bench, setting, findings):
    table = bench.rigged.over_throw
    if table is None or bench.rigged.rig.bellows is not None:
        return
    own = setting.image_distance / bench.plane.lens.focal_length - 1
    reached = float(np.max(table.magnification)) / bench.plane.lens.scale_behind
    if own > reached * 1.002:
        findings.caution(
            "plane.ring_ends",
            "/plane",
            "With this tilt the focus ring ends before the plane is reached.",
            "Add a short tube, or step back a little and focus again.",
        )


def _setting(bench, setting):
    work, lens, laid = bench.plane, bench.plane.lens, bench.plane.laid
    faces = (math.degrees(setting.azimuth) + 360) % 360 - 180
    hinge = hinge_distance(lens.focal_length, setting.tilt) if setting.tilt > 1e-9 else 1e9
    tilt_error, turn_error = _uncertainty(work, setting)
    own = setting.image_distance / laid.fit.z0
    pivot = lens.pivot_behind_node
    moved = None if pivot is None else node_moved_by_pivot(setting, pivot, own * lens.scale_behind).picture_moves
    return TiltAnswer(
        tilt_deg=math.degrees(setting.tilt),
        tilt_uncertainty_deg=tilt_error,
        faces_deg=faces,
        faces_uncertainty_deg=turn_error,
        faces=direction(faces),
        rotation_deg=rotation(faces, math.degrees(lens.rest)),
        size_held_tilt_deg=math.degrees(
            tilt_holding_magnification(math.hypot(laid.fit.slope_x, laid.fit.slope_y), lens.magnification)
        ),
        image_distance_mm=setting.image_distance,
        focus_moves_mm=setting.image_distance - lens.image_distance,
        magnification=own * lens.scale_behind,
        hinge_mm=min(hinge, 1e9),
        hinge_across_mm=-min(hinge, 1e9),
        hinge_behind_nearest_mm=-work.cloud.nearest,
        picture_moves_mm=moved,
    )


def _uncertainty(work, setting):
    """Standard uncertainty of tilt and direction, degrees; (None, None) where no point was read twice, or where the
    setting is not that of the plane through the points."""
    asked = work.cloud.asked
    errors = [work.cloud.points[index].uncertainty for index in asked]
    if any(error is None for error in errors) or work.laid.fit != work.laid.wanted:
        return None, None
    spread = fit_uncertainty(work.cloud.sharp, work.laid.wanted, errors)
    wanted, slope = work.laid.wanted, work.laid.slope
    if slope < LEVEL:
        return None, None
    along = np.array([0.0, wanted.slope_x, wanted.slope_y]) / slope
    aside = np.array([0.0, -wanted.slope_y, wanted.slope_x]) / slope**2
    # sin tilt = f slope / z0
    steepness = math.tan(setting.tilt) * (along / slope - np.array([1 / wanted.z0, 0.0, 0.0]))
    return tuple(math.degrees(math.sqrt(max(float(row @ spread @ row), 0.0))) for row in (steepness, aside))


def _covering(bench, setting):
    """The widest stop at which every point that must be sharp is, or None."""
    stops, work = bench.stops, bench.plane
    base = np.abs(work.lens.blur(setting, work.cloud.sharp, 1.0)).max()
    fine = base / stops.effective_f_numbers[: stops.clicks] <= stops.blurs[: stops.clicks]
    return float(stops.f_numbers[int(np.argmax(fine))]) if fine.any() else None


def _maps(bench):
    """Defocus over the frame for each way of one frame, tilted or not: list of BlurMap."""
    work, stops = bench.plane, bench.stops
    left, top = np.meshgrid((np.arange(COLUMNS) + 0.5) / COLUMNS, (np.arange(ROWS) + 0.5) / ROWS)
    surface = SubjectSurface(work, bench.shot.subject.depth_mm)
    points, _ = surface.points_at(left.ravel(), top.ravel())
    straight = work.lens.straight
    best = straight._replace(image_distance=_focused(work, best_focus(bench.view.depth, bench.view.pupil_distance)))
    wanted = {
        "one": (straight, stops.chosen),
        "one_best": (best, stops.best),
        "one_narrowest": (best, stops.clicks - 1),
    }
    if work.laid is not None and work.laid.setting is not None:
        wanted["tilt"] = (work.laid.setting, stops.chosen)
    if bench.shot.plane.strip is not None and (found := other_trades.strip_setting(bench.shot, work)[0]) is not None:
        wanted["strip"] = (found, stops.chosen)
    maps = []
    for way, (setting, stop) in wanted.items():
        allowed = float(stops.blurs[stop])
        if allowed <= 0:
            continue
        try:
            blur = work.lens.blur(setting, points, float(stops.effective_f_numbers[stop]))
        except OpticsError:
            continue
        percent = np.clip(np.rint(blur / allowed * 100), -MOST_PERCENT, MOST_PERCENT).astype(int)
        maps.append(BlurMap(way=way, columns=COLUMNS, rows=ROWS, percent=percent.tolist()))
    return maps


def _focused(work, behind_nearest):
    """Image distance at which the straight lens is focused so far behind the nearest point, mm."""
    away = work.cloud.nearest + behind_nearest
    return away * work.lens.focal_length / (away - work.lens.focal_length)
