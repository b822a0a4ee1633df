"""The plane section of a plan: from the points to the setting, the wedge round it, and what each point makes of it."""

import math

from just_plane.contract.plane_plan import CoveringAnswer, PlaneSection, TiltAnswer
from just_plane.core.plane import fit_uncertainty, hinge_distance, tilt_holding_magnification, wedge_faces
from just_plane.core.plane.readings import node_moved_by_pivot
from just_plane.core.plane.tilting_lens import LEVEL, setting_uncertainty
from just_plane.core.units import UM_PER_MM
from just_plane.planning.plane import other_trades
from just_plane.planning.plane.checks import checks, correction, expected
from just_plane.planning.plane.limits import ring_ends, say_limits, turn_rest
from just_plane.planning.plane.lines import line_of, line_of_face
from just_plane.planning.plane.points import point_answers
from just_plane.planning.plane.words import direction, last_steps, rotation, steps
from just_plane.planning.words.findings import Answered, caution, note

ENDLESS_MM = 1e9


def plane(setup):
    """The plane section.

    Parameters
    ----------
    setup : Setup

    Returns
    -------
    Answered         Of contract PlaneSection.
    """
    work = setup.plane
    azimuth = work.laid.azimuth if work.laid else math.pi / 2
    rails, rings = expected(setup.rigged, work)
    laid, laid_said = _laid(setup, azimuth, rails, rings) if work.laid else ({}, ())
    points = point_answers(setup, azimuth, rails, rings)
    shift, join, strip = other_trades.shift(setup), other_trades.joined(setup), other_trades.strip(setup, azimuth)
    section = PlaneSection(
        points=points.section,
        steepest_deg=math.degrees(math.atan(work.lens.steepest)) if work.lens.limit else None,
        azimuth_deg=math.degrees(azimuth),
        half_field_mm=_half_field(work.frame, azimuth),
        allowed_blur_um=setup.stop.blur * UM_PER_MM,
        lens_behind_nearest_mm=-work.cloud.nearest,
        shift=shift.section,
        join=join.section,
        strip=strip.section,
        **laid,
    )
    return Answered(section, (*laid_said, *points.said, *shift.said, *join.said, *strip.said))


def steps_at_lens(setup):
    """What to do at the lens so that the plane is laid, in order, each with what it turns.

    Parameters
    ----------
    setup : Setup   With a setting laid.

    Returns
    -------
    list of Step
    """
    work = setup.plane
    looks = checks(work, *expected(setup.rigged, work))
    return steps(work.lens, _setting(work, work.laid.setting), looks[0] if looks else None, setup.wording)


def _half_field(frame, azimuth):
    half = abs(frame.width * math.cos(azimuth)) + abs(frame.height * math.sin(azimuth))
    return half / 2 / frame.magnification


def _laid(setup, azimuth, rails, rings):
    """What follows from a plane through the points: (members of PlaneSection, findings)."""
    work, wording = setup.plane, setup.wording
    laid, nearest = work.laid, work.cloud.nearest
    looks, corrected = checks(work, rails, rings), correction(setup)
    parts = {
        "angle_deg": math.degrees(math.atan(laid.slope)),
        "wanted": line_of(laid.wanted[:3], azimuth, nearest),
        "across_assumed": work.across_assumed,
        "largest_deviation_mm": laid.wanted.largest_deviation,
        "limited": laid.limited,
        "turn": other_trades.turn(setup),
        "checks": looks,
        "correction": corrected.section,
    }
    said = list(corrected.said)
    if laid.slope < LEVEL:
        said.append(
            note(
                "points.one_depth",
                "/plane/points",
                "The points stand at one depth: the camera is square to them, and no tilt is needed.",
            )
        )
    if laid.setting is None:
        return parts, said
    setting = _setting(work, laid.setting)
    parts |= (
        _wedge(setup, azimuth, setup.stop)
        | _covering(setup, azimuth)
        | {
            "setting": setting,
            "circle": other_trades.circle_answer(setup, laid.setting),
            "turn_rest": turn_rest(work, wording),
            "steps": [step.words for step in steps(work.lens, setting, looks[0] if looks else None, wording)],
            "last_steps": last_steps(work.rail_mark, setup.stop.f_number),
        }
    )
    if parts["circle"].inside is False:
        said.append(_out_of_circle(parts["circle"], wording))
    return parts, [*said, *say_limits(setup), *ring_ends(setup)]


def _wedge(setup, azimuth, stop):
    """The plane that the setting lays and the faces of the wedge round it at a stop, as lines of the side view."""
    work = setup.plane
    lens, laid, nearest = work.lens, work.laid, work.cloud.nearest
    near, far = wedge_faces(
        lens.focal_length, lens.f_number(stop.effective_f_number), laid.setting, stop.blur / lens.scale_behind
    )
    return {
        "laid": line_of(laid.fit[:3], azimuth, nearest),
        "near_face": line_of_face(near, laid.setting, azimuth, nearest),
        "far_face": line_of_face(far, laid.setting, azimuth, nearest),
        "left_over_mm": laid.fit.largest_deviation,
    }


def _out_of_circle(lit, wording):
    return caution(
        "plane.out_of_circle",
        "/plane",
        f"Tilted so, the frame needs a lit circle of {wording.length(lit.radius_mm * 2)} to reach "
        f"{wording.length(lit.needed_mm * 2)}: a corner goes dark.",
        "Use a crop mode, tilt or shift less, or crop the picture.",
    )


def _setting(work, setting):
    """The setting in degrees and words: TiltAnswer."""
    lens, laid = work.lens, work.laid
    faces = (math.degrees(setting.azimuth) + 360) % 360 - 180
    hinge = hinge_distance(lens.focal_length, setting.tilt) if setting.tilt > 1e-9 else ENDLESS_MM
    tilt_error, turn_error = _uncertainty(work)
    own = setting.image_distance / laid.fit.z0
    pivot = lens.pivot_behind_node
    moved = None if pivot is None else node_moved_by_pivot(setting, pivot, own, lens.scale_behind).picture_moves
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
        hinge_mm=min(hinge, ENDLESS_MM),
        hinge_across_mm=-min(hinge, ENDLESS_MM),
        hinge_behind_nearest_mm=-work.cloud.nearest,
        picture_moves_mm=moved,
    )


def _uncertainty(work):
    """Standard uncertainty of tilt and direction, degrees; (None, None) where no point was read twice, its slope
    across is assumed, or where the setting is not that of the plane through the points."""
    laid, cloud = work.laid, work.cloud
    errors = [cloud.points[index].uncertainty for index in cloud.asked]
    if work.across_assumed or any(error is None for error in errors) or laid.fit != laid.wanted or laid.slope < LEVEL:
        return None, None
    spread = fit_uncertainty(cloud.sharp, laid.wanted, errors)
    return tuple(math.degrees(each) for each in setting_uncertainty(laid.setting, laid.wanted, spread))


def _covering(setup, azimuth):
    """The widest stop at which every point that must be sharp is, and the wedge there: members of PlaneSection."""
    work, stops = setup.plane, setup.stops
    index, narrower = work.covering(stops), work.stopped_down(stops)
    parts = {} if index is None else {"covering_f_number": float(stops.f_numbers[index])}
    if narrower is None:
        return parts
    there = stops.at(narrower)
    wedge = _wedge(setup, azimuth, there)
    return parts | {
        "covering": CoveringAnswer(
            f_number=there.f_number,
            allowed_blur_um=there.blur * UM_PER_MM,
            blur_share=setup.stop.effective_f_number / there.effective_f_number,
            near_face=wedge["near_face"],
            far_face=wedge["far_face"],
        ),
    }
