"""The focus stack: step, count, positions, the march of a focus ring, slabs and time."""

import itertools
import math
from dataclasses import dataclass

from just_plane.core.domain import SMALLEST_POSITIVE, count, fraction, non_negative, positive
from just_plane.core.errors import OutOfDomainError, Quantity

OVERLAP_SCHOOLS = {"field": 0.25, "standard": 0.5, "close": 2 / 3}
"""Named overlaps: a quarter, two frames a depth, three frames a depth."""

MOST_FRAMES = 5000
"""A stack longer than this is refused: it is hours of wear for a subject that no one meant to be so deep."""

SLAB_FROM = 60
"""Frames past which merging in slabs pays."""


def step_from_depth(depth_of_field, overlap):
    """Step between frames: depth of field x (1 - overlap).

    Parameters
    ----------
    depth_of_field : float   Of one frame, mm, > 0.
    overlap : float          Share of one frame's depth that the next covers again, 0 <= overlap < 1.

    Returns
    -------
    float                    mm.

    Raises
    ------
    OutOfDomainError         An input is outside its range.
    """
    positive("depth_of_field", depth_of_field, "mm")
    fraction("overlap", overlap, "Overlap is a share of one frame's depth: 0.5 is two frames a depth.")
    return depth_of_field * (1 - overlap)


def overlap_left(depth_of_field, step):
    """Share of one frame's depth that the next has too at a step; below 0 the gap between them, as such a share.

    Parameters
    ----------
    depth_of_field, step : float   mm, > 0.

    Returns
    -------
    float                          Dimensionless.
    """
    positive("depth_of_field", depth_of_field, "mm")
    return 1 - positive("step", step, "mm") / depth_of_field


def _divisions(step, smallest_step):
    return math.floor(step / smallest_step * (1 + 1e-9))


def steps_to_cover(depth, step):
    """Number of steps that starts at the near point and ends at or past the far one: ceil(T / step).

    Parameters
    ----------
    depth : float   mm, >= 0.
    step : float    mm, > 0.

    Returns
    -------
    int             Steps; frames are one more.

    Raises
    ------
    OutOfDomainError   An input is outside its range, or the stack would pass ``MOST_FRAMES``.
    """
    non_negative("depth", depth, "mm")
    positive("step", step, "mm")
    if depth / step > MOST_FRAMES:
        raise too_many(depth, step)
    return _fewest_steps(depth, step)


def _fewest_steps(depth, step):
    # A depth so small that the division underflows is a depth all the same.
    steps = max(math.ceil(depth / step), 1 if depth > 0 else 0)
    # Division can round up across a whole number: 3 x 0.1 is not 0.3. Keep the fewest steps that arrive.
    return steps - 1 if steps > 0 and (steps - 1) * step >= depth * (1 - 1e-12) else steps


@dataclass(frozen=True, slots=True)
class Stack:
    """A planned stack. Positions are focus positions behind the nearest point, mm, in shooting order, near to far."""

    steps: int
    """Steps between the first and the last frame, spare ones included."""
    frames: int
    """Always steps + 1."""
    positions: tuple[float, ...]
    covering: int
    """Frames that cover the depth, without the spare ones."""
    smallest_gap: float
    """Shortest step, mm; for a rail every step is this."""
    largest_gap: float


def rail_stack(depth, depth_of_field, overlap, *, spare_before=0, spare_after=0, smallest_step=None):
    """A stack by moving the camera: magnification constant, steps equal.

    Parameters
    ----------
    depth : float                    Depth that must be sharp, mm, >= 0.
    depth_of_field : float           Of one frame, mm, > 0.
    overlap : float                  0 <= overlap < 1.
    spare_before, spare_after : int  Extra frames at each end.
    smallest_step : float or None    The rail's, mm; the step is brought down to a multiple of it. Where it is coarser
                                     than the step, one of its steps is taken: :func:`overlap_left` says what is left.

    Returns
    -------
    Stack                            First covering frame AT the near point, last AT or past the far point.

    Raises
    ------
    OutOfDomainError                 An input is outside its range, or too many frames.

    Examples
    --------
    >>> stack = rail_stack(4.114, 1.4224, 0.25)
    >>> stack.steps, stack.frames
    (4, 5)
    """
    step = step_from_depth(depth_of_field, overlap)
    if smallest_step is not None:
        step = max(_divisions(step, positive("smallest_step", smallest_step, "mm")), 1) * smallest_step
    steps = steps_to_cover(depth, step)
    before, after = count("spare_before", spare_before), count("spare_after", spare_after)
    positions = tuple(index * step for index in range(-before, steps + after + 1))
    return Stack(len(positions) - 1, len(positions), positions, steps + 1, step, step)


def rail_frames_by_stop(depth, depths_of_field, overlap, *, spare=0, smallest_step=None):
    """Frames that a stack by rail takes at each of some stops; the counts of :func:`rail_stack`.

    Parameters
    ----------
    depth : float                    mm, >= 0.
    depths_of_field : sequence       Of one frame at each stop, mm, >= 0.
    overlap : float                  0 <= overlap < 1.
    spare : int                      Extra frames, both ends together.
    smallest_step : float or None    The rail's, mm.

    Returns
    -------
    list of int or None              None where one frame has no depth, or the frames would be too many.

    Raises
    ------
    OutOfDomainError                 An input is outside its range.
    """
    non_negative("depth", depth, "mm")
    fraction("overlap", overlap)
    count("spare", spare)
    steps = [depth_of_field * (1 - overlap) for depth_of_field in depths_of_field]
    if smallest_step is not None:
        positive("smallest_step", smallest_step, "mm")
        steps = [
            max(_divisions(step, smallest_step), 1) * smallest_step if step > SMALLEST_POSITIVE else step
            for step in steps
        ]
    return [
        _fewest_steps(depth, step) + 1 + spare if step > SMALLEST_POSITIVE and depth / step <= MOST_FRAMES else None
        for step in steps
    ]


def ring_stack(depth, depth_at, overlap, *, spare_before=0, spare_after=0):
    """A stack by turning the focus ring: the camera stands, each step follows the depth of field where it is.

    Parameters
    ----------
    depth : float              Depth that must be sharp, mm, >= 0.
    depth_at : callable        Depth of field (mm) when focused this far behind the nearest point (mm).
    overlap : float            0 <= overlap < 1.
    spare_before, spare_after  Extra frames at each end.

    Returns
    -------
    Stack                      As for :func:`rail_stack`; gaps differ.

    Raises
    ------
    OutOfDomainError           An input is outside its range, no depth of field somewhere, or too many frames.
    """
    non_negative("depth", depth, "mm")
    share = 1 - fraction("overlap", overlap)

    def step_at(place):
        return positive("depth_of_field", depth_at(place), "mm") * share

    positions = [0.0]
    while positions[-1] < depth * (1 - 1e-12):
        positions.append(positions[-1] + step_at(positions[-1]))
        if len(positions) > MOST_FRAMES:
            raise too_many(depth, positions[-1] - positions[-2])
    covering = len(positions)
    for _ in range(count("spare_after", spare_after)):
        positions.append(positions[-1] + step_at(positions[-1]))
    for _ in range(count("spare_before", spare_before)):
        positions.insert(0, positions[0] - step_at(positions[0]))
    gaps = [later - earlier for earlier, later in itertools.pairwise(positions)] or [0.0]
    return Stack(len(positions) - 1, len(positions), tuple(positions), covering, min(gaps), max(gaps))


def slabs(frames, size=20, shared=4):
    """Group frames into overlapping slabs, to be merged first and then together.

    Parameters
    ----------
    frames : int   Frames in the stack.
    size : int     Frames in a slab, > shared.
    shared : int   Frames that neighbours have in common.

    Returns
    -------
    tuple of (int, int)   First and last frame of each slab, counted from 1; the last slab ends on the last frame.
    """
    count("frames", frames)
    if not 0 <= shared < size:
        raise OutOfDomainError(
            "shared.too_many",
            quantity="shared",
            value=shared,
            message=f"Slabs of {size} frames cannot share {shared}.",
            remedy="Share fewer frames than a slab holds.",
        )
    starts = range(1, max(frames - shared, 1) + 1, size - shared) if frames else ()
    return tuple((start, min(start + size - 1, frames)) for start in starts)


def kept_frames(frames, every):
    """Which frames of a set are merged when only every so manyth is kept; the first and the last always are.

    Parameters
    ----------
    frames : int           In the set, >= 0.
    every : int            >= 1.

    Returns
    -------
    tuple of int           Indices, ascending, from 0.
    """
    count("frames", frames)
    positive("every", every)
    kept = list(range(0, frames, every))
    return tuple(kept) if not kept or kept[-1] == frames - 1 else (*kept, frames - 1)


def stack_time(frames, settle, exposure, recovery, *, noise_reduction=False):
    """Time a run takes: frames x (settle + exposure, twice with long-exposure noise reduction, + recovery).

    Parameters
    ----------
    frames : int             Frames, spare ones included.
    settle : float           Wait after each move, s, >= 0.
    exposure : float         Shutter time, s, >= 0.
    recovery : float         Writing the file or charging the flash, whichever is longer, s, >= 0.
    noise_reduction : bool   A second, dark exposure after each.

    Returns
    -------
    float                    s.
    """
    count("frames", frames)
    non_negative("settle", settle, "s")
    non_negative("exposure", exposure, "s")
    non_negative("recovery", recovery, "s")
    return frames * (settle + exposure * (2 if noise_reduction else 1) + recovery)


def hold_time(frames, settle, exposure, recovery, *, noise_reduction=False):
    """How long the subject must hold still: one exposure, or from the first exposure of a stack to the last.

    Writing the last file, and the dark frame after it, no longer ask anything of the subject.

    Parameters
    ----------
    frames, settle, exposure, recovery, noise_reduction   As for :func:`stack_time`.

    Returns
    -------
    float                    s; 0 for no frame.
    """
    whole = stack_time(max(frames - 1, 0), settle, exposure, recovery, noise_reduction=noise_reduction)
    return whole + (exposure if frames else 0.0)


STOP_DOWN = "Stop down, work at a smaller magnification, or make less of the subject sharp."


def too_many(depth, step, quantity="depth", remedy=STOP_DOWN):
    """The refusal of a step of which there would be more than ``MOST_FRAMES``.

    Parameters
    ----------
    depth, step : float   mm.
    quantity : str        What is to be mended: ``depth`` or ``step``.
    remedy : str          What would work, a sentence.

    Returns
    -------
    OutOfDomainError      To be raised.
    """
    return OutOfDomainError(
        "frames.too_many",
        quantity=quantity,
        value=step if quantity == "step" else depth,
        unit="mm",
        message=f"A step of {{step}} over {{over}} takes more than {MOST_FRAMES} frames.",
        remedy=remedy,
        step=Quantity(step, "mm"),
        over=Quantity(depth, "mm", 4),
    )
