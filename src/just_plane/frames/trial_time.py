"""Trials of time: the longest shutter that stays sharp, and whether a camera takes a dark frame after a long one."""

import re
from datetime import datetime
from pathlib import Path

import numpy as np

from just_plane.contract.trial import DarkFound, StillnessFound, TrialFrame, TrialResult, TriedShutter
from just_plane.core.shutters import marked_shutter
from just_plane.core.trials.stillness import dark_frames, longest_shutter
from just_plane.core.trials.texture import shared_detail
from just_plane.frames.trial_intake import CLIPPED, readable
from just_plane.frames.trial_stops import CIRCLE_PX, refused

LEAST_FRAMES = 4
WANTED_FRAMES = 8
WHOLE_SECONDS = "The camera notes whole seconds only: the write time is no better than half of one."
TAKEN_AT = re.compile(r"(\d{4}:\d\d:\d\d \d\d:\d\d:\d\d)(?:\.(\d+))?")


def stillness_trial(frames, asked, progress=None):
    """Find the longest shutter that stays sharp.

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
    facts = [one for one in frames.facts if one.exposure_s]
    times = sorted({round(one.exposure_s, 6) for one in facts})
    if len(times) < 2:
        return refused(
            "stillness", "The files say fewer than two shutter times: take some frames at each of several.", odd
        )
    pictures: list = []
    shutters = []
    sharpest = before = None
    place = np.zeros(2)
    in_order = sorted(facts, key=lambda each: each.exposure_s)
    for one, picture, clipped in readable(in_order, odd, progress):
        if clipped > CLIPPED:
            odd.append(TrialFrame(file=Path(one.path).name, problem="Too much of it is burnt out; it is left out."))
            continue
        if sharpest is None:
            sharpest = before = picture
            continue
        if asked.held == "hand":
            # A hand carries the picture off; it is followed from frame to frame and laid over the first again.
            place = place + shared_detail(before, picture, 1 / CIRCLE_PX).shift
            before = picture
            picture = np.roll(picture, (-round(place[1]), -round(place[0])), (0, 1))
        # What it shares with the first frame at the shortest time: noise falls out, what is smeared is missing.
        shared = shared_detail(sharpest, picture, 1 / CIRCLE_PX)
        pictures.append(max(shared.energy, 0.0))
        shutters.append(round(one.exposure_s, 6))
    if len(set(shutters)) < 2:
        return refused("stillness", "Too few frames are left that can be read.", odd)
    found = longest_shutter(shutters, pictures)
    warnings = []
    if min(tried.frames for tried in found.tried) < WANTED_FRAMES:
        warnings.append(f"Fewer than {WANTED_FRAMES} frames at some shutter times: more would tell better.")
    if found.fails_at is None:
        warnings.append("No shutter time failed: longer ones were not tried.")
    return TrialResult(
        kind="stillness",
        refused=False,
        sentence=_longest_sentence(found),
        warnings=warnings,
        frames=odd,
        used=len(shutters) + 1,
        stillness=StillnessFound(
            longest_s=found.shutter,
            fails_at_s=found.fails_at,
            tried=[
                TriedShutter(shutter_s=each.shutter, passed=each.passed, frames=each.frames) for each in found.tried
            ],
        ),
    )


def _longest_sentence(found):
    if found.shutter is None:
        return "Not even the shortest shutter time tried stays sharp: shorter, or steadier."
    tried = next(each for each in found.tried if each.shutter == found.shutter)
    name = marked_shutter(found.shutter) or f"{found.shutter:g}"
    return (
        f"{tried.passed} of {tried.frames} frames stay sharp at {name} s, the longest that does: "
        "plan one stop shorter. That is a count, not a promise."
    )


def dark_trial(frames, asked, progress=None):
    """See from the times of a burst whether long exposures take twice as long.

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
    timed = [(one, taken_s(one.taken)) for one in frames.facts if one.exposure_s]
    timed = [(one, at) for one, at in timed if at is not None]
    if len(timed) < 2:
        return refused("dark", "The files do not say when they were taken, or how long: nothing can be told.", odd)
    timed.sort(key=lambda both: both[1])
    found = dark_frames(np.array([one.exposure_s for one, _ in timed]), np.array([at for _, at in timed], dtype=float))
    if found is None:
        return refused(
            "dark", "No frame of 1 s or longer has another right after it: take a burst at 1, 2 and 4 s.", odd
        )
    doubling = "takes a dark frame as long again" if found.doubled else "takes no dark frame"
    whole = all("." not in one.taken for one, _ in timed)
    return TrialResult(
        kind="dark",
        refused=False,
        sentence=f"After an exposure of 1 s or more the camera {doubling}; writing takes {found.write:.1f} s.",
        warnings=[WHOLE_SECONDS] if whole else [],
        frames=odd,
        used=len(timed),
        dark=DarkFound(doubled=found.doubled, write_s=round(found.write, 3)),
    )


def taken_s(taken):
    """When a frame was taken, s since some moment, by what its file says (str); None where that is no time."""
    found = TAKEN_AT.match(taken)
    if not found:
        return None
    try:
        at = datetime.strptime(found.group(1), "%Y:%m:%d %H:%M:%S")
    except ValueError:
        return None
    return at.timestamp() + (float(f"0.{found.group(2)}") if found.group(2) else 0.0)
