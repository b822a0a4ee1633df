"""A focus stack by rail or by focus ring as a way: steps, price, and what stands against it."""

import math

from just_plane.contract.plan import StackAnswer
from just_plane.core.errors import OpticsError
from just_plane.core.ranking import NEVER
from just_plane.core.stack import SLAB_FROM, kept_frames, overlap_left, rail_stack, ring_stack, slabs
from just_plane.core.throw import throw_over
from just_plane.core.ways import FramesView, stacked
from just_plane.planning.setup.focus_units import camera_units
from just_plane.planning.setup.own_steps import gap_words, is_own, left_open, own_frames_of
from just_plane.planning.ways.compared import Compared, impossible
from just_plane.planning.words.numbers import count, f_stop, ordinal, percent


def stack_by(setup, kind):
    """A focus stack by ``rail`` or ``ring`` at the stop in use (Setup, str): Compared."""
    stop = setup.stop
    title = f"Stack by {'rail' if kind == 'rail' else 'focus ring'}, {f_stop(stop.f_number)}"
    if stop.blur == 0:
        return impossible(
            setup, kind, kind, title, "no depth in any frame at this stop: open up, or use a coarser measure"
        )
    try:
        if kind == "rail":
            stack = own_frames_of(setup, kind) if is_own(setup, kind) else _rail(setup)
            view = FramesView(
                setup.view.magnification, setup.view.pupil_distance, stop.effective_f_number, stop.blur, stop.lens_share
            )
            crop = 0.0
        else:
            stack, view, crop = _ring(setup)
    except OpticsError as error:
        return impossible(setup, kind, kind, title, " ".join(error.spoken(setup.wording.quantity)).strip())
    way = stacked(setup.view, kind, stop.f_number, view, stack, stop.shutter, setup.pace)
    answer = _stack_answer(setup, kind, stack, view, crop, way)
    against, excess = _against_stack(setup, kind, answer)
    return Compared(kind, way, title, _stack_note(setup, kind, answer), against, excess, answer)


SLAB, SHARED = 20, 4
SAME_STEP = 1e-6
FEW = 6
"""Frames that are merged in one go, whatever crosses."""


def _rail(setup):
    """The steps worked out for the rail: Stack."""
    options = setup.shot.stack
    return rail_stack(
        setup.depth,
        setup.stop.depth,
        options.overlap,
        spare_before=options.spare_before,
        spare_after=options.spare_after,
        smallest_step=options.rail_smallest_step_mm,
    )


class OutOfThrowError(OpticsError):
    """The focus ring does not get to both ends of the subject."""


WIDER = 1.3
"""A table that ends before the spare frames is made anew this much past them."""
MOST_TABLES = 8
MOST_THRESHOLD = 0.999


def _ring(setup):
    """Stack, view of its frames and crop for the ring; raises OutOfThrowError where the ring does not reach."""
    beyond = None
    for _ in range(MOST_TABLES):
        table = _throw(setup, beyond)
        if table is None or table.nearest > 0 or table.farthest < setup.depth:
            raise OutOfThrowError("ring.out_of_throw", quantity="depth", message=_why_not(setup, table))
        stack = _ring_frames(setup, table)
        first, last = stack.positions[0], stack.positions[-1]
        if table.spans(first, last):
            view = table.view(stack.positions)._replace(lens_share=setup.stop.lens_share)
            return stack, view, table.crop(stack.positions)
        if first < table.nearest or last > table.farthest:
            break
        beyond = (max(-first, 0.0) * WIDER + 1e-3, max(last - setup.depth, 0.0) * WIDER + 1e-3)
    raise OutOfThrowError(
        "ring.no_spare", quantity="depth", message="The ring ends before the spare frames: ask for fewer."
    )


def _ring_frames(setup, table):
    """The frames of a ring whose throw was tabulated: Stack."""
    options = setup.shot.stack
    if is_own(setup, "ring"):
        return own_frames_of(setup, "ring", lambda place: float(table.view([place]).magnification[0]))
    return ring_stack(
        setup.depth,
        table.depth_at(),
        options.overlap,
        spare_before=options.spare_before,
        spare_after=options.spare_after,
    )


def _throw(setup, beyond):
    """The ring's throw over the subject and so far beyond it: Throw, or None."""
    shot, made = setup.shot, setup.rigged
    if made.over_throw is None:
        return None
    return throw_over(
        made.rig,
        made.settings,
        made.over_throw.subject_to_sensor,
        to_nearest_point=made.imaging.subject_to_sensor - setup.focus,
        depth=setup.depth,
        f_number=setup.stop.f_number,
        school=shot.sharp.depth_school,
        circle_of_confusion=setup.circle,
        wavelength=setup.wavelength,
        contrast_threshold=min(shot.sharp.contrast_threshold / setup.stop.lens_share, MOST_THRESHOLD),
        beyond=beyond,
    )


def _why_not(setup, table):
    length = setup.wording.length
    if setup.rigged.over_throw is None:
        return "This rig has no focus ring to step with: use the rail."
    if table is None:
        return "At this size the ring moves the plane of focus hardly at all: use the rail."
    if table.nearest > 0:
        return f"The ring ends {length(table.nearest)} behind the nearest point: use the rail, or a wider frame."
    return f"The ring ends {length(setup.depth - table.farthest)} before the farthest point."


def _stack_answer(setup, kind, stack, view, crop, way):
    sizes = [float(view.magnification)] if isinstance(view.magnification, float) else view.magnification.tolist()
    depth = way.bands[0].far - way.bands[0].near
    return StackAnswer(
        step_mm=stack.positions[1] - stack.positions[0] if stack.frames > 1 else stack.smallest_gap,
        largest_step_mm=stack.largest_gap,
        steps=stack.steps,
        frames=stack.frames,
        covering_frames=stack.covering,
        first_mm=stack.positions[0],
        last_mm=stack.positions[-1],
        first_rail_mm=setup.plane.mark_moved(stack.positions[0] - setup.focus) if kind == "rail" else None,
        frames_per_depth=min(depth / stack.smallest_gap, 1e6) if stack.smallest_gap > 0 else 1.0,
        crop=crop,
        magnifications=sizes,
        camera_words=camera_units(setup, stack.smallest_gap) if kind == "ring" else "",
        own=is_own(setup, kind),
        gaps_mm=left_open(way.bands, setup.depth),
        **merged(setup, stack.frames, depth, stack.largest_gap),
    )


def merged(setup, frames, depth, step):
    """Which frames are merged, how they overlap, and in which slabs: members of StackAnswer.

    Parameters
    ----------
    setup : Setup
    frames : int
    depth, step : float   Of one frame, and the longest between two, mm.
    """
    options = setup.shot.stack
    kept = len(kept_frames(frames, options.keep_every))
    wanted = options.slabs == "always" or (
        options.slabs == "as_needed" and (kept > SLAB_FROM or (setup.shot.subject.crosses and kept > FEW))
    )
    size, shared = (SLAB, SHARED) if kept > SLAB_FROM else (max(FEW, math.ceil(kept / 3) + 2), 2)
    return {
        "kept_frames": kept,
        "kept_overlap": 1 - step * options.keep_every / depth if depth > 0 else 0.0,
        "slabs": [list(slab) for slab in slabs(kept, size, shared)] if wanted and kept > size else [],
    }


def _stack_note(setup, kind, answer):
    length = setup.wording.length
    spare = answer.frames - answer.covering_frames
    extra = f", {count(spare, 'spare frame')}" if spare else ""
    if answer.own:
        extra = f", as you set it{extra}"
        left = gap_words(setup, answer.gaps_mm)
        extra += f"; {left}{_worked_out(setup, kind)}" if left else "; no gap"
    if kind == "rail":
        return f"step {length(answer.step_mm)}{extra}"
    if answer.largest_step_mm - answer.step_mm < SAME_STEP * answer.step_mm:
        return f"step {length(answer.step_mm)}, crops {percent(answer.crop)}{extra}"
    return f"step {length(answer.step_mm)} to {length(answer.largest_step_mm)}, crops {percent(answer.crop)}{extra}"


def _worked_out(setup, kind):
    """What the steps would be if they were worked out, in brackets; nothing where that cannot be said."""
    if kind != "rail":
        return ""
    try:
        return f" (worked out, {count(_rail(setup).frames, 'frame')} leave none)"
    except OpticsError:
        return ""


def _against_stack(setup, kind, answer):
    """What stands against a stack, and how far over what can be done it goes: (tuple of str, float)."""
    options, length, against, excess = setup.shot.stack, setup.wording.length, [], 1.0
    travel = answer.last_mm - answer.first_mm
    if kind == "rail" and options.rail_travel_mm is not None and travel > options.rail_travel_mm:
        against.append(f"needs {length(travel)} of rail; there are {length(options.rail_travel_mm)}")
        excess = NEVER
    if kind == "rail" and setup.rigged.working_distance < answer.last_mm:
        against.append("the lens would touch the subject before the last frame")
        excess = NEVER
    if not answer.own:
        against += too_coarse(setup, kind, answer.step_mm, setup.stop.depth)
    elif kind == "rail":
        against += _no_such_step(setup, answer.step_mm)
    if answer.frames_per_depth > 5.5:
        against.append("past five frames a depth the merge only gets softer")
    if answer.slabs:
        against.append(f"merge in {len(answer.slabs)} slabs")
    if options.keep_every > 1 and answer.kept_overlap < 0:
        against.append(f"keeping every {ordinal(options.keep_every)} frame leaves gaps")
    return tuple(against), excess


def _no_such_step(setup, step):
    """A step of one's own that the rail cannot do, as clauses."""
    smallest, length = setup.shot.stack.rail_smallest_step_mm, setup.wording.length
    if smallest is None or abs(step / smallest - round(step / smallest)) <= 1e-6 * max(step / smallest, 1):
        return ()
    nearest = max(round(step / smallest), 1) * smallest
    return (f"the rail goes in steps of {length(smallest)}: the nearest to yours is {length(nearest)}",)


def too_coarse(setup, kind, step, depth):
    """What a rail too coarse for the overlap asked leaves, as clauses; none where it is fine enough.

    Parameters
    ----------
    setup : Setup
    kind : str            ``rail`` or ``ring``.
    step, depth : float   Taken, and of one frame, mm.
    """
    smallest, length, asked = setup.shot.stack.rail_smallest_step_mm, setup.wording.length, setup.shot.stack.overlap
    if kind != "rail" or smallest is None or step <= depth * (1 - asked) * (1 + 1e-9):
        return ()
    left = overlap_left(depth, step)
    one = f"the rail's smallest step, {length(step)}, is coarser than the {length(depth * (1 - asked))} asked"
    if left >= 0:
        return (f"{one}: {percent(left)} overlap is left of {percent(asked)}",)
    return (f"{one}: {length(step - depth)} between two frames is in neither",)
