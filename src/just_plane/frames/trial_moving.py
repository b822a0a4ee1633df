"""Trials of movement: how soon a rail is calm after a move, and how much a hand sways."""

import math
from pathlib import Path

import numpy as np

from just_plane.contract.trial import CalmFound, SwayFound, TrialFrame, TrialResult
from just_plane.core.motion import settling_needed
from just_plane.core.trials.calm import read_calm
from just_plane.core.trials.hand import hand_sway, sharp_lines
from just_plane.core.trials.rows import row_energies
from just_plane.core.trials.texture import shared_detail
from just_plane.core.units import UM_PER_MM
from just_plane.frames.trial_intake import CLIPPED, readable
from just_plane.frames.trial_stops import CIRCLE_PX, refused, without_scale
from just_plane.frames.trial_time import taken_s

CIRCLE_MM = 0.03


def calm_trial(frames, asked, progress=None):
    """Measure how a rail comes to rest, from a burst right after one move, in the order of the files.

    Parameters
    ----------
    frames : TrialFrames
    asked : TrialAsked
    progress : function or None

    Returns
    -------
    TrialResult
    """
    odd = list(frames.odd)
    if (unscaled := without_scale("calm", asked, odd)) is not None:
        return unscaled
    facts, shifts, _ = _followed(frames, odd, progress)
    times = _times(frames.facts, facts, asked.interval_s)
    if times is None:
        return refused(
            "calm", "The files do not say when they were taken finely enough: give the time between two frames.", odd
        )
    mm = asked.pixel_pitch_mm / asked.magnification
    found = read_calm(times, np.array(shifts) * mm)
    if isinstance(found, str):
        return refused("calm", found, odd)
    circle = asked.c_mm or CIRCLE_MM
    wait = settling_needed(found.swing, max(found.calms_in, 1e-3), asked.magnification, circle) if found.seen else 0.0
    what = (asked.name or "the rail")[:1].upper() + (asked.name or "the rail")[1:]
    swing = UM_PER_MM * found.swing
    sentence = (
        f"{what} swings by {swing:.3g} µm after a move and is down to a third of it in {found.calms_in:.2g} s, give or "
        f"take {found.doubt:.1g}: wait {wait:.2g} s at {asked.magnification:g}×."
        if found.seen
        else f"{what} is calm at once: no swing over {swing:.2g} µm was seen."
    )
    return TrialResult(
        kind="calm",
        refused=False,
        sentence=sentence,
        warnings=["The time counts from the first frame: take it right as the move ends."] if found.seen else [],
        frames=odd,
        used=len(times),
        calm=CalmFound(
            swing_um=round(swing, 3),
            calms_s=round(found.calms_in, 4),
            doubt_s=round(found.doubt, 4),
            wait_s=round(wait, 3),
            seen=found.seen,
        ),
    )


def sway_trial(frames, asked, progress=None):
    """Measure how much a hand sways, from a burst of a slanted print.

    Parameters
    ----------
    frames : TrialFrames
    asked : TrialAsked
    progress : function or None

    Returns
    -------
    TrialResult
    """
    odd = list(frames.odd)
    if (unscaled := without_scale("sway", asked, odd)) is not None:
        return unscaled
    _, shifts, energies = _followed(frames, odd, progress)
    if len(energies) < 2:
        return refused("sway", "Too few frames are left that can be read: take thirty in a burst.", odd)
    moved = np.array(shifts)
    lines = sharp_lines(np.array(energies), moved[:, 1])
    found = hand_sway(lines, moved, asked.pixel_pitch_mm, asked.magnification, math.radians(asked.angle_deg))
    if isinstance(found, str):
        return refused("sway", found, odd)
    return TrialResult(
        kind="sway",
        refused=False,
        sentence=f"Your hands sway by {found.along:.2g} mm along, {found.across:.2g} mm across: standard deviations.",
        warnings=[],
        frames=odd,
        used=found.frames,
        sway=SwayFound(along_mm=round(found.along, 4), across_mm=round(found.across, 4)),
    )


def _followed(frames, odd, progress):
    """Frames that count, where the picture lies in each from the first (px right, down), and detail of their rows."""
    kept, shifts, energies = [], [], []
    before, place = None, np.zeros(2)
    for one, picture, clipped in readable(frames.facts, odd, progress):
        if clipped > CLIPPED:
            odd.append(TrialFrame(file=Path(one.path).name, problem="Too much of it is burnt out; it is left out."))
            continue
        if before is not None:
            # From frame to frame: where a hand goes, the first may soon share too little.
            place = place + shared_detail(before, picture, 1 / CIRCLE_PX).shift
        before = picture
        kept.append(one)
        shifts.append(place)
        energies.append(row_energies(picture)[0])
    return kept, shifts, energies


def _times(taken, kept, interval):
    """Seconds of each frame that counts from the first taken: as given, else as the files say; None: not finely.

    A frame that is left out was taken all the same: those after it are not sooner.
    """
    if interval is not None:
        return interval * np.array([taken.index(one) for one in kept], dtype=float)
    times = [taken_s(one.taken) for one in kept]
    if any(time is None for time in times) or len(times) < 2:
        return None
    since = np.array(times, dtype=float) - times[0]
    return since if np.all(np.diff(since) > 0) else None
