"""Which frames make a stack, and in which order of focus: the run that most belong to, near to far.

What stands outside it, and what stands in it twice or out of order, is said.
"""

import numpy as np

from just_plane.core.frames.check.findings import Found
from just_plane.core.frames.check.order import distances, found_order
from just_plane.core.frames.check.similarity import scale_and_turn

FEWEST = 2
"""Frames that make a stack."""
FEW_COPIES = 3
"""Copies up to which each is said by itself; more are a card, or a part of one, that was copied twice."""
LEAST_TO_TURN, LEAST_GROWTH = 6, 5e-4
"""Frames from which the direction of focus is looked at; growth a frame under which it cannot be told."""


def outsiders(follower, main, missing, known=()):
    """Frames of other runs: alone they are foreign, several together could not be laid on the rest.

    Parameters
    ----------
    follower : Follower
    main : list of int        The run that is the stack.
    missing : iterable of int Frames that could not be read.
    known : collection of int Frames that are left out for a reason of their own.

    Returns
    -------
    dict, list of Found       Frame to the reason why it is left out; the first is said for all of its run.
    """
    left_out: dict = {}
    said: list = []
    for run in follower.runs():
        frames = [frame for frame in run if frame not in main and frame not in known]
        if frames:
            code = "foreign_frame" if len(frames) == 1 and len(main) > FEWEST else "registration_failed"
            left_out |= dict.fromkeys(frames, code)
            said.append(Found(code, frames[0], float(len(frames)), "frames", frames=tuple(frames)))
    left_out |= dict.fromkeys(missing, "unreadable")
    return left_out, said


def copies(same_files, main):
    """Frames with the very same pixels as one before.

    Parameters
    ----------
    same_files : dict     Frame to an earlier frame with the very same pixels.
    main : list of int    The run that is the stack.

    Returns
    -------
    dict, list of Found   Frame to the reason why it is left out; those that repeat one of the run, itself of it or not.
                          Many are said once, by the first of them.
    """
    twins = {frame: twin for frame, twin in same_files.items() if twin in main}
    said = [Found("duplicate", frame, 0.0, "steps", before=twin, frames=(frame,)) for frame, twin in twins.items()]
    if len(said) > FEW_COPIES:
        said = [said[0]._replace(frames=tuple(twins))]
    return dict.fromkeys(twins, "duplicate"), said


def near_first(follower, main):
    """The run from near to far: by a rail the view grows, by a ring it shrinks; told only where a plan says which.

    Parameters
    ----------
    follower : Follower   Its facts say what moved.
    main : list of int    Frames in the order they came.

    Returns
    -------
    list of int
    """
    facts = follower.facts
    if facts.step is None or facts.kind == "hand" or len(main) < LEAST_TO_TURN:
        return main
    growth = np.log(scale_and_turn(follower.between(main[0], main[-1]))[0]) / (len(main) - 1)
    growth = -growth if facts.kind == "ring" else growth
    return main[::-1] if growth < -LEAST_GROWTH else main


def light_of(follower, main):
    """Light of each frame; one that cannot be compared is unknown, those after it go by the last that can.

    Parameters
    ----------
    follower : Follower
    main : list of int   Frames of one run.

    Returns
    -------
    dict                 Frame to EV on the first of the run; NaN where not known.
    """
    light: dict = {}
    base: dict = {None: 0.0}
    for frame in main:
        for this in _back_to_known(follower, frame, base):
            followed = follower.frames[this]
            before = base[followed.before]
            light[this] = 0.0 if followed.before is None else before + followed.light_ev
            base[this] = light[this] if np.isfinite(light[this]) else before
    return light


def _back_to_known(follower, frame, known):
    """The frames by which one was laid on what is known, and it: the one that is nearest to that first."""
    way = []
    while frame not in known:
        way.append(frame)
        frame = follower.frames[frame].before
    return way[::-1]


def reference_of(main, order, dark):
    """The frame that all are laid on: of those that have light, the one nearest to the middle of the run.

    Parameters
    ----------
    main : list of int    The run, near to far.
    order : list of int   Those of it that are not left out.
    dark : list of int    Those of it that have no light.

    Returns
    -------
    int
    """
    bright = [frame for frame in order if frame not in dark] or order
    return min(bright, key=lambda frame: abs(main.index(frame) - len(main) // 2))


def in_order(order, dark, energies, moved):
    """The order of focus; dark frames, in which little can be seen, stay where they were.

    Frames that are at their places already, though they were not given there, are out of order, too.

    Parameters
    ----------
    order : list of int          As they were given.
    dark : list of int           Those in which little can be seen.
    energies : dict              Frame to (4, N) energies by band and tile, NaN outside the frame.
    moved : list of int          Those that were put at their places before.

    Returns
    -------
    list of int, list of Found
    """
    out = tuple(frame for frame in moved if frame in order)
    said = [Found("wrong_order", min(out), float(len(out)), "frames", frames=out)] if out else []
    seen = [frame for frame in order if frame not in dark]
    if len(seen) < FEWEST:
        return order, said
    found = [seen[k] for k in found_order(distances(np.stack([energies[frame] for frame in seen])))]
    rest = iter(found)
    whole = [frame if frame in dark else next(rest) for frame in order]
    changed = tuple(
        frame for frame, was in zip(found, seen, strict=True) if frame != was and not {frame, was} & set(moved)
    )
    if changed:
        said.append(Found("wrong_order", min(changed), float(len(changed)), "frames", frames=changed))
    return whole, said
