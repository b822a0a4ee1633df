"""The ways that use the plane: tilt, turn the camera square, tilt and stack, and the narrow strip."""

import math

import numpy as np

from just_plane.contract.plan import StackAnswer
from just_plane.core.contrast import contrast
from just_plane.core.defocus import View
from just_plane.core.errors import OpticsError
from just_plane.core.plane import deviations
from just_plane.core.plane.ring import plane_on_ring, ring_crop
from just_plane.core.plane.sweep import sweep_by_rail, sweep_by_ring
from just_plane.core.ranking import NEVER
from just_plane.core.stack import hold_time, stack_time
from just_plane.core.ways import Band, Single, Way, one_frames
from just_plane.planning.setup.ring_reach import ring_reaches
from just_plane.planning.ways.by_stack import merged, too_coarse
from just_plane.planning.ways.compared import Compared, impossible
from just_plane.planning.words.numbers import f_stop

ENOUGH = 1 + 1e-9
ENDLESS = 1e9
MOVER = {"rail": "rail", "ring": "focus ring"}


def plane_ways(setup):
    """The ways that use the plane: (those of one frame, those of several), each a list of Compared."""
    work = setup.plane
    if not work.cloud.points:
        why = "this lens does not tilt"
        if work.lens.limit > 0:
            why = "name the points that must be sharp at Plane, with their depths"
        return [impossible(setup, "tilt", "one_frame", "Tilt the lens", why)], []
    if work.laid is None:
        why = "no plane can be laid through the points yet: see Plane"
        return [impossible(setup, "tilt", "one_frame", "Tilt the lens", why)], []
    single = [*_tilts(setup), _turn(setup)]
    if work.strip is not None:
        single.append(_strip(setup))
    return single, [_tilt_and_stack(setup, "rail"), _tilt_and_stack(setup, "ring")]


def no_tilt(work):
    """Why a rig has no setting for the plane, as a clause."""
    if work.lens.limit == 0:
        asked = work.laid.asked
        degrees = f"; the plane asks for {math.degrees(asked.tilt):.1f}°" if asked is not None else ""
        return f"this lens does not tilt{degrees}"
    return "no tilt of this lens reaches the plane"


def _tilts(setup):
    """The tilt in one frame, at the stop in use; where that does not hold every point, at the widest that does too."""
    work = setup.plane
    if work.laid.setting is None:
        return [impossible(setup, "tilt", "one_frame", "Tilt the lens", no_tilt(work))]
    found = [_tilt(setup, "tilt", setup.stop)]
    narrower = work.stopped_down(setup.stops)
    if narrower is not None:
        found.append(_tilt(setup, "tilt_best", setup.stops.at(narrower)))
    return found


def _tilt(setup, way_id, stop):
    work, laid = setup.plane, setup.plane.laid
    setting = laid.setting
    blurs = work.blurs(stop.effective_f_number)
    held = blurs <= stop.blur * ENOUGH
    stands = []
    if laid.limited:
        stands.append(
            f"the lens's limit leaves {setup.wording.length(laid.fit.largest_deviation)} off the plane"
            if work.lens.turns or laid.asked is None or laid.asked.tilt > work.lens.limit
            else "the mechanism does not turn to where the plane recedes"
        )
    if work.is_lit(setting, setup.shot.plane.shift)[1] is False:
        stands.append("out of the image circle: the corners go dark")
    past_the_ring, excess = _past_the_ring(setup)
    return Compared(
        way_id,
        _way(setup, [blurs], _one_frame_time(setup, stop), [_on_axis(work, setting)], stop),
        f"Tilt {math.degrees(setting.tilt):.1f}°, {f_stop(stop.f_number)}",
        _tilt_note(setup, blurs, held),
        (*past_the_ring, *stands),
        excess,
        points_held=int(held.sum()),
        setting=setting,
    )


def _past_the_ring(setup):
    """What stands against every way with the setting laid where the ring ends before it: (clauses, excess)."""
    if ring_reaches(setup, setup.plane.laid.setting.image_distance):
        return (), 1.0
    return ("the focus ring ends before the plane: a short tube, or a step back, gives it room",), NEVER


def _tilt_note(setup, blurs, held):
    work = setup.plane
    asked = work.cloud.asked
    if not held.all():
        without = [index for index, fine in zip(asked, held, strict=True) if not fine]
        missed = list(dict.fromkeys(work.cloud.name(index) for index in without))
        names = ", ".join(missed[:2]) + (f" and {len(missed) - 2} more" if len(missed) > 2 else "")
        return f"misses {names}"
    return f"tightest at {work.cloud.name(asked[int(np.argmax(blurs))])}"


def _one_frame_time(setup, stop):
    pace = setup.pace
    return stack_time(1, 0.0, stop.shutter, pace.recovery, noise_reduction=pace.dark(stop.shutter))


def _on_axis(work, setting, place=None):
    """Where the plane of focus of a setting meets the axis, mm behind the nearest point; endless is a long way off.

    With the ring at a place, where there is one.
    """
    try:
        at = plane_on_ring(work.lens.focal_length, setting, setting.image_distance if place is None else place)
        return at[0] - work.cloud.nearest
    except OpticsError:
        return ENDLESS


def _way(setup, blurs_by_frame, time, axis, stop, kind="one_frame"):
    """A way by the blur of each point in each frame; its bands reach from the nearest to the farthest point held.

    ``axis`` are the places, mm behind the nearest point, at which the plane of focus of each frame meets the axis.
    """
    f_number, effective, allowed = stop[:3]
    work = setup.plane
    blurs = np.array(blurs_by_frame)
    best = blurs.min(axis=0)
    depths = work.cloud.depths_asked
    bands = []
    for frame in blurs:
        inside = depths[frame <= allowed * ENOUGH]
        bands.append(Band(float(inside.min()), float(inside.max())) if inside.size else Band(0.0, 0.0))
    worst = int(np.argmax(best))
    return Way(
        kind,
        f_number,
        effective,
        tuple(axis),
        tuple(bands),
        float(np.mean(best <= allowed * ENOUGH)) if allowed > 0 else 0.0,
        float(contrast(1 / setup.circle, effective, float(best[worst]), setup.wavelength)) * stop.lens_share,
        float(depths[worst]),
        time,
        _hold_time(setup, len(axis), stop),
        float(best[worst]),
    )


def _hold_time(setup, frames, stop):
    pace = setup.pace
    return hold_time(frames, pace.settle, stop.shutter, pace.recovery, noise_reduction=pace.dark(stop.shutter))


def _tilt_and_stack(setup, kind):
    """Tilt first, then the few frames left over, by rail or by ring."""
    way_id, title = f"tilt_{kind}", f"Tilt and stack by {MOVER[kind]}"
    work, laid, options = setup.plane, setup.plane.laid, setup.shot.stack
    f_number, effective, allowed = setup.stop[:3]
    if laid.setting is None:
        return impossible(setup, way_id, kind, title, no_tilt(work))
    if allowed == 0:
        return impossible(setup, way_id, kind, title, "no depth in any frame at this stop")
    if kind == "ring" and setup.rigged.over_throw is None:
        return impossible(setup, way_id, kind, title, "this rig has no focus ring to step with")
    lens, behind = work.lens, work.lens.scale_behind
    if work.blurs(effective).max() <= allowed * ENOUGH:
        return impossible(setup, way_id, kind, title, "not needed: with the tilt one frame holds every point")
    common = (lens.focal_length, lens.f_number(effective), laid.setting, allowed / behind, work.cloud.sharp)
    try:
        if kind == "rail":
            sweep = sweep_by_rail(*common, options.overlap, options.rail_smallest_step_mm)
        else:
            sweep = sweep_by_ring(*common, options.overlap)
    except OpticsError as error:
        return impossible(setup, way_id, kind, title, error.spoken(setup.wording.quantity)[0])
    if kind == "ring" and not ring_reaches(setup, sweep.places):
        why = "the focus ring ends before every point is reached: a short tube, or a step back, gives it room"
        return impossible(setup, way_id, kind, title, why)
    pace = setup.pace
    time = stack_time(len(sweep.places), pace.settle, setup.stop.shutter, pace.recovery,
                      noise_reduction=pace.dark(setup.stop.shutter))  # fmt: skip
    if kind == "rail":
        axis = [_on_axis(work, laid.setting) + place for place in sweep.places]
    else:
        axis = [_on_axis(work, laid.setting, place) for place in sweep.places]
    way = _way(setup, sweep.blurs * behind, time, axis, setup.stop, kind)
    length = setup.wording.length
    step = f"step {length(sweep.step)}" if kind == "rail" else f"the lens moves {length(sweep.step)} a frame"
    lit = work.is_lit(laid.setting, setup.shot.plane.shift)[1]
    # A stack by ring has been asked already whether every frame of it is reached.
    past_the_ring, excess = _past_the_ring(setup) if kind == "rail" else ((), 1.0)
    return Compared(
        way_id,
        way,
        f"Tilt {math.degrees(laid.setting.tilt):.1f}° and {MOVER[kind]}, {f_stop(f_number)}",
        f"{step}; " + ("the plane moves along" if kind == "rail" else "the plane swings as it goes"),
        (
            *past_the_ring,
            *(("out of the image circle: the corners go dark",) if lit is False else ()),
            *too_coarse(setup, kind, sweep.step, sweep.depth),
        ),
        excess,
        stack=_sweep_answer(sweep, kind, axis, setup),
        points_held=int((sweep.best * behind <= allowed * ENOUGH).sum()),
        setting=laid.setting,
        places=sweep.places,
    )


def _sweep_answer(sweep, kind, axis, setup):
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
        first_rail_mm=setup.plane.mark_moved(sweep.places[0]) if kind == "rail" else None,
        frames_per_depth=1 / (1 - setup.shot.stack.overlap),
        crop=0.0 if kind == "rail" else ring_crop(setup.plane.laid.setting, sweep.places, setup.plane.cloud.sharp),
        magnifications=[setup.view.magnification],
        camera_words="",
        **merged(setup, len(axis), sweep.depth, sweep.step),
    )


def _turn(setup):
    """Turn the camera square to the plane: what is off it is all the depth that is left."""
    work, laid = setup.plane, setup.plane.laid
    square = work.square
    f_number, effective, allowed = setup.stop[:3]
    view = View(setup.view.magnification, setup.view.pupil_distance, setup.circle, square.depth, setup.view.wavelength)
    if square.depth >= view.pupil_distance:
        return impossible(setup, "turn", "one_frame", "Turn the camera square", "too deep to stand square to")
    single = Single(f_number, effective, allowed, setup.stop.shutter, None, setup.stop.lens_share)
    turned = one_frames(view, (single,), setup.pace)[0]
    near, far = turned.bands[0]
    off = deviations(work.cloud.sharp, laid.wanted)
    # To a picometre: where the plane passes through every point, rounding must not decide which is named.
    deep = np.round((off - off.min()) * math.cos(square.angle), 9)
    held = (deep >= near) & (deep <= far)
    depths = work.cloud.depths_asked
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
        turned.hold,
        turned.edge_blur,
    )
    left = f"{setup.wording.length(square.depth)} deep then" if square.depth > 1e-3 else "no depth left"
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


def _strip(setup):
    """Only a strip along a chosen line stays sharp; what counts is what must be sharp all the same."""
    work = setup.plane
    setting = work.strip.setting
    if setting is None:
        return impossible(setup, "strip", "one_frame", "Narrow strip", work.strip.why_not)
    f_number, effective, allowed = setup.stop[:3]
    blurs = np.abs(work.lens.blur(setting, work.cloud.sharp, effective))
    held = blurs <= allowed * ENOUGH
    return Compared(
        "strip",
        _way(setup, [blurs], _one_frame_time(setup, setup.stop), [_on_axis(work, setting)], setup.stop),
        f"Narrow strip, tilt {math.degrees(setting.tilt):.1f}°, {f_stop(f_number)}",
        "the rest goes soft on purpose",
        points_held=int(held.sum()),
        setting=setting,
    )
