"""Trials of a rail or of a camera's focus steps: how far a step goes, and how much play there is."""

import math

import numpy as np

from just_plane.contract.trial import BacklashFound, StepsFound, TrialResult
from just_plane.core.trials.backlash import LEAST_FRAMES, read_backlash
from just_plane.core.trials.rows import row_energies
from just_plane.core.trials.slope import angle_by_ruler, read_slope, step_of
from just_plane.frames.trial_intake import readable
from just_plane.frames.trial_stops import refused, without_scale

WIDER = "The ruler's ticks stand wider in the frame than they can: are size, pixel and ticks right?"
COARSE_ONLY = "Only part of the rows agree: a coarse reading. Stronger texture or smaller steps tell more."


def steps_trial(frames, asked, progress=None):
    """Measure how far a step goes, from a stack on a slanted surface.

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
    if (unscaled := without_scale("steps", asked, odd)) is not None:
        return unscaled
    angle = _angle(asked)
    if angle is None:
        return refused("steps", WIDER, odd)
    rows, columns = _energies(frames, odd, progress)
    read = _better(rows, columns)
    if isinstance(read, str):
        return refused("steps", read, odd)
    step, doubt = step_of(read, asked.pixel_pitch_mm, asked.magnification, angle)
    per_unit = step / asked.per_step
    warnings = [] if read.fine else [COARSE_ONLY]
    lean = step * math.radians(1) / math.sin(angle) / math.cos(angle)
    warnings.append(f"If the surface stands 1° off what was given, this is {100 * lean / step:.1f} % off.")
    what = _capital(asked.name or "a step")
    unit = f"{per_unit:.4g} mm a {asked.unit}"
    return TrialResult(
        kind="steps",
        refused=False,
        sentence=f"{what}: {unit}, give or take {1000 * doubt / asked.per_step:.2g} µm.",
        warnings=warnings,
        frames=odd,
        used=len(rows),
        steps=StepsFound(
            step_mm=round(step, 7),
            doubt_mm=round(doubt, 7),
            per_unit_mm=round(per_unit, 8),
            unit=asked.unit,
            fine=read.fine,
            rows_agree=round(read.agree, 3),
        ),
    )


def _angle(asked):
    """Of the surface from the axis, radians: by a ruler that lies there, else as given; None: no ruler lies so."""
    if asked.tick_mm is None or asked.tick_px is None:
        return math.radians(asked.angle_deg)
    return angle_by_ruler(asked.tick_px, asked.tick_mm, asked.pixel_pitch_mm, asked.magnification)


def backlash_trial(frames, asked, progress=None):
    """Measure play, from a pass forward and one back over the same readings, in the order of the files.

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
    if asked.step_mm is None:
        return refused("backlash", "The step must be known: give what the rail reads between two frames.", odd)
    rows, columns = _energies(frames, odd, progress)
    count = len(rows) // 2
    if len(rows) % 2 or count < LEAST_FRAMES:
        return refused(
            "backlash",
            f"There are {len(rows)} frames: take {LEAST_FRAMES} or more forward and the same readings back, "
            "an even number in all.",
            odd,
        )
    # On the way back the first frame after turning stands at the last reading: whatever it shows, it is left out.
    both = [read_backlash(part[:count], part[count:][::-1][:-1], asked.step_mm) for part in (rows, columns)]
    read = [found for found in both if not isinstance(found, str)]
    if not read:
        return refused("backlash", str(both[0]), odd)
    best = min(read, key=lambda found: found.doubt)
    what = _capital(asked.name or "the rail")
    sentence = (
        f"{what} has {1000 * best.play:.0f} µm of play, give or take {1000 * best.doubt:.0f}: "
        f"go back {best.take_up:.3f} mm past a mark, then come on to it."
        if best.seen
        else f"No play seen: less than {2000 * best.doubt:.0f} µm."
    )
    return TrialResult(
        kind="backlash",
        refused=False,
        sentence=sentence,
        warnings=[],
        frames=odd,
        used=len(rows),
        backlash=BacklashFound(
            play_mm=round(best.play, 6),
            doubt_mm=round(best.doubt, 6),
            seen=best.seen,
            take_up_mm=round(best.take_up, 5),
        ),
    )


def _capital(words):
    return words[:1].upper() + words[1:]


def _energies(frames, odd, progress):
    energies = [row_energies(picture) for _, picture, _ in readable(frames.facts, odd, progress)]
    rows, columns = zip(*energies, strict=True) if energies else ((), ())
    return np.array(rows), np.array(columns)


def _better(rows, columns):
    """The surface slants down the frame or across it: whichever more rows agree on."""
    if len(rows) == 0:
        return "There is no frame that can be read."
    both = [read_slope(rows), read_slope(columns, along_columns=True)]
    read = [found for found in both if not isinstance(found, str)]
    if not read:
        return both[0]
    return max(read, key=lambda found: (found.fine, found.agree, abs(found.rows_per_frame)))
