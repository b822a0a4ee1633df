"""The ways that use the plane: tilt, turn the camera square, tilt and stack, and the narrow strip."""

import math

import numpy as np

from just_plane.contract.plan import StackAnswer
from just_plane.core.contrast import contrast
from just_plane.core.errors import OpticsError
from just_plane.core.plane import plane_of_setting
from just_plane.core.plane.strip import strip_along
from just_plane.core.plane.sweep import sweep_by_rail, sweep_by_ring
from just_plane.core.plane.turning import turn_square
from just_plane.core.stack import stack_time
from just_plane.core.units import MM_PER_NM
from just_plane.core.ways import Band, Single, View, Way, one_frames
from just_plane.planning.circle import circle
from just_plane.planning.rail_marks import mark_moved
from just_plane.planning.ways_bench import Compared, impossible
from just_plane.planning.wording import f_stop, percent

ENOUGH = 1 + 1e-9
ENDLESS = 1e9
MOVER = {"rail": "rail", "ring": "focus ring"}


def plane_ways(bench):
    """The ways that use the plane: (those of one frame, those of several), each a list of Compared."""
    work = bench.plane
    if work is None or not work.cloud.points:
        why = "name the points that must be sharp at Plane, with their depths"
        return [impossible(bench, "tilt", "one_frame", "Tilt the lens", why)], []
    if work.laid is None:
        why = "no plane can be laid through the points yet: see Plane"
        return [impossible(bench, "tilt", "one_frame", "Tilt the lens", why)], []
    single = [_tilt(bench), _turn(bench)]
    if bench.shot.plane.strip is not None:
        single.append(_strip(bench))
    return single, [_tilt_and_stack(bench, "rail"), _tilt_and_stack(bench, "ring")]


def no_tilt(work):
    """Why a rig has no setting for the plane, as a clause."""
    if work.lens.limit == 0:
        asked = work.laid.asked
        degrees = f"; the plane asks for {math.degrees(asked.tilt):.1f}°" if asked is not None else ""
        return f"this lens does not tilt{degrees}"
    return "no tilt of this lens reaches the plane"


def _tilt(bench):
    work, laid = bench.plane, bench.plane.laid
    if laid.setting is None:
        return impossible(bench, "tilt", "one_frame", "Tilt the lens", no_tilt(work))
    f_number, effective, allowed = bench.chosen
    setting = laid.setting
    blurs = np.abs(work.lens.blur(setting, work.cloud.sharp, effective))
    held = blurs <= allowed * ENOUGH
    stands = []
    if laid.limited:
        stands.append(
            f"the lens's limit leaves {bench.wording.length(laid.fit.largest_deviation)} off the plane"
            if work.lens.turns or laid.asked is None or laid.asked.tilt > work.lens.limit
            else "the mechanism does not turn to where the plane recedes"
        )
    lit = circle(bench.shot, bench.rigged, work, setting)
    if lit.inside is False:
        stands.append("out of the image circle: the corners go dark")
    return Compared(
        "tilt",
        _way(bench, [blurs], _one_frame_time(bench), [_on_axis(work, setting)]),
        f"Tilt {math.degrees(setting.tilt):.1f}°, {f_stop(f_number)}",
        _tilt_note(bench, blurs, held),
        tuple(stands),
        points_held=int(held.sum()),
        setting=setting,
    )


def _tilt_note(bench, blurs, held):
    work = bench.plane
    asked = work.cloud.asked
    if not held.all():
        missed = list(dict.fromkeys(work.name(index) for index, fine in zip(asked, held, strict=True) if not fine))
        names = ", ".join(missed[:2]) + (f" and {len(missed) - 2} more" if len(missed) > 2 else "")
        return f"misses {names}"
    return f"tightest at {work.name(asked[int(np.argmax(blurs))])}"


def _one_frame_time(bench):
    pace = bench.pace
    return stack_time(1, 0.0, bench.exposure(bench.stops.chosen), pace.recovery, noise_reduction=pace.noise_reduction)


def _on_axis(work, setting):
    """Where the plane of focus of a setting meets the axis, mm behind the nearest point; endless is a long way off."""
    try:
        return plane_of_setting(work.lens.focal_length, setting)[0] - work.cloud.nearest
    except OpticsError:
        return ENDLESS


def _way(bench, blurs_by_frame, time, axis, kind="one_frame"):
    """A way by the blur of each point in each frame; its bands reach from the nearest to the farthest point held.

    ``axis`` are the places, mm behind the nearest point, at which the plane of focus of each frame meets the axis.
    """
    f_number, effective, allowed = bench.chosen
    work = bench.plane
    blurs = np.array(blurs_by_frame)
    best = blurs.min(axis=0)
    depths = work.cloud.sharp[:, 2] - work.cloud.nearest
    bands = []
    for frame in blurs:
        inside = depths[frame <= allowed * ENOUGH]
        bands.append(Band(float(inside.min()), float(inside.max())) if inside.size else Band(0.0, 0.0))
    worst = int(np.argmax(best))
    wavelength = bench.shot.sharp.wavelength_nm * MM_PER_NM
    return Way(
        kind,
        f_number,
        effective,
        tuple(axis),
        tuple(bands),
        float(np.mean(best <= allowed * ENOUGH)) if allowed > 0 else 0.0,
        float(contrast(1 / bench.circle, effective, float(best[worst]), wavelength)),
        float(depths[worst]),
        time,
    )


def _tilt_and_stack(bench, kind):
    """Tilt first, then the few frames left over, by rail or by ring."""
    way_id, title = f"tilt_{kind}", f"Tilt and stack by {MOVER[kind]}"
    work, laid, options = bench.plane, bench.plane.laid, bench.shot.stack
    f_number, effective, allowed = bench.chosen
    if laid.setting is None:
        return impossible(bench, way_id, kind, title, no_tilt(work))
    if allowed == 0:
        return impossible(bench, way_id, kind, title, "no depth in any frame at this stop")
    if kind == "ring" and bench.rigged.over_throw is None:
        return impossible(bench, way_id, kind, title, "this rig has no focus ring to step with")
    lens, behind = work.lens, work.lens.scale_behind
    if np.abs(lens.blur(laid.setting, work.cloud.sharp, effective)).max() <= allowed * ENOUGH:
        return impossible(bench, way_id, kind, title, "not needed: with the tilt one frame holds every point")
    common = (lens.focal_length, lens.f_number(effective), laid.setting, allowed / behind, work.cloud.sharp)
    try:
        if kind == "rail":
            sweep = sweep_by_rail(*common, options.overlap, options.rail_smallest_step_mm)
        else:
            sweep = sweep_by_ring(*common, options.overlap)
    except OpticsError as error:
        return impossible(bench, way_id, kind, title, error.message)
    pace = bench.pace
    time = stack_time(len(sweep.places), pace.settle, bench.exposure(bench.stops.chosen), pace.recovery,
                      noise_reduction=pace.noise_reduction)  # fmt: skip
    if kind == "rail":
        axis = [_on_axis(work, laid.setting) + place for place in sweep.places]
    else:
        axis = [_on_axis(work, laid.setting._replace(image_distance=place)) for place in sweep.places]
    way = _way(bench, sweep.blurs * behind, time, axis, kind)
    length = bench.wording.length
    step = f"step {length(sweep.step)}" if kind == "rail" else f"focus moves {percent(sweep.step)} a frame"
    lit = circle(bench.shot, bench.rigged, work, laid.setting)
    return Compared(
        way_id,
        way,
        f"Tilt {math.degrees(laid.setting.tilt):.1f}° and {MOVER[kind]}, {f_stop(f_number)}",
        f"{step}; " + ("the plane moves along" if kind == "rail" else "the plane swings about the hinge"),
        ("out of the image circle: the corners go dark",) if lit.inside is False else (),
        _sweep_answer(sweep, kind, axis, bench),
        points_held=int((sweep.best * behind <= allowed * ENOUGH).sum()),
        setting=laid.setting,
        places=sweep.places,
    )


def _sweep_answer(sweep, kind, axis, bench):
    """The few frames in numbers; steps and places along the axis, where the plane of focus meets it."""
    steps = np.abs(np.diff(axis))
    return StackAnswer(
        step_mm=float(steps[0]) if steps.size else 0.0,
        largest_step_mm=float(steps.max(initial=0.0)),
        steps=len(axis) - 1,
        frames=len(axis),
        covering_frames=len(axis),
        first_mm=axis[0],
        last_mm=axis[-1],
        first_rail_mm=mark_moved(bench.shot, bench.plane, sweep.places[0]) if kind == "rail" else None,
        frames_per_depth=1 / (1 - bench.shot.stack.overlap),
        crop=0.0 if kind == "rail" else abs(1 - min(sweep.places) / max(sweep.places)),
        magnifications=[bench.view.magnification],
        slabs=[],
    )


def _turn(bench):
    """Turn the camera square to the plane: what is off it is all the depth that is left."""
    work, laid = bench.plane, bench.plane.laid
    square = turn_square(work.cloud.sharp, laid.wanted, work.frame.distance)
    f_number, effective, allowed = bench.chosen
    view = View(bench.view.magnification, bench.view.pupil_distance, bench.circle, square.depth, bench.view.wavelength)
    if square.depth >= view.pupil_distance:
        return impossible(bench, "turn", "one_frame", "Turn the camera square", "too deep to stand square to")
    single = Single(f_number, effective, allowed, bench.exposure(bench.stops.chosen))
    turned = one_frames(view, (single,), bench.pace)[0]
    near, far = turned.bands[0]
    off = work.cloud.sharp @ np.array([-laid.wanted.slope_x, -laid.wanted.slope_y, 1.0]) - laid.wanted.z0
    deep = (off - off.min()) * math.cos(square.angle)
    held = (deep >= near) & (deep <= far)
    depths = work.cloud.sharp[:, 2] - work.cloud.nearest
    inside = depths[held]
    way = Way(
        "one_frame",
        f_number,
        effective,
        (float(depths[int(np.argmin(np.abs(deep - turned.focuses[0])))]),),
        (Band(float(inside.min()), float(inside.max())) if inside.size else Band(0.0, 0.0),),
        float(held.mean()),
        turned.worst_contrast,
        float(depths[int(np.argmax(np.abs(deep - turned.focuses[0])))]),
        turned.time,
    )
    left = f"{bench.wording.length(square.depth)} deep then" if square.depth > 1e-3 else "no depth left"
    note = f"{left}; the raking view is lost"
    return Compared(
        "turn",
        way,
        f"Turn the camera {math.degrees(square.angle):.0f}°, {f_stop(f_number)}",
        note if square.angle > 1e-3 else "it stands square already",
        points_held=int(held.sum()),
        keeps_picture=False,
        changes="changes the view",
    )


def _strip(bench):
    """Only a strip along a chosen line stays sharp; what counts is what must be sharp all the same."""
    work = bench.plane
    setting, why = strip_setting(bench.shot, work)
    if setting is None:
        return impossible(bench, "strip", "one_frame", "Narrow strip", why)
    f_number, effective, allowed = bench.chosen
    blurs = np.abs(work.lens.blur(setting, work.cloud.sharp, effective))
    held = blurs <= allowed * ENOUGH
    return Compared(
        "strip",
        _way(bench, [blurs], _one_frame_time(bench), [_on_axis(work, setting)]),
        f"Narrow strip, tilt {math.degrees(setting.tilt):.1f}°, {f_stop(f_number)}",
        "the rest goes soft on purpose",
        points_held=int(held.sum()),
        setting=setting,
    )


def strip_setting(shot, work):
    """(TiltSetting, "") of the narrow strip asked for, or (None, why not)."""
    wanted = shot.plane.strip
    if work.lens.limit == 0:
        return None, "this lens does not tilt"
    ends = [_index_of(work, each) for each in (wanted.first, wanted.second)]
    if None in ends or ends[0] == ends[1]:
        return None, "choose two points that are read"
    tilt = work.lens.limit if wanted.tilt_deg is None else min(math.radians(wanted.tilt_deg), work.lens.limit)
    surface = (work.laid.wanted.slope_x, work.laid.wanted.slope_y) if work.laid else (0.0, 0.0)
    try:
        return strip_along(work.lens.focal_length, work.cloud.xyz[ends], tilt, surface), ""
    except OpticsError as error:
        return None, error.message[:1].lower() + error.message[1:].rstrip(".")


def _index_of(work, point_id):
    known = work.cloud.known
    return next((index for index in known if work.cloud.points[index].id == point_id), None)
