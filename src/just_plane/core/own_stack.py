"""A stack that someone has already: so many frames so far apart, and what they leave between them."""

import itertools
import math

from just_plane.core.domain import count, positive
from just_plane.core.errors import OutOfDomainError
from just_plane.core.stack import MOST_FRAMES, Stack, steps_to_cover, too_many

LONGER = "Take longer steps, or let them be worked out."


def own_stack(depth, step, *, frames=None, first=0.0, spare_before=0, spare_after=0):
    """Frames at steps that were given, not worked out.

    Parameters
    ----------
    depth : float                    That must be sharp, mm, >= 0.
    step : float or callable         Between two frames, mm, > 0; a callable gives it at a place (mm behind the nearest
                                     point), for steps that change along the subject.
    frames : int or None             How many, all of them; None: as many as arrive at the far end.
    first : float                    The first frame, mm behind the nearest point.
    spare_before, spare_after : int  Extra frames at each end, where ``frames`` is None.

    Returns
    -------
    Stack                            Its ``covering`` counts the frames from the nearest point to the first at or past
                                     the farthest.

    Raises
    ------
    OutOfDomainError                 An input is outside its range, or too many frames.
    """
    if not callable(step):
        positive("step", step, "mm")
        if frames is None:
            if depth - first > MOST_FRAMES * step:
                raise too_many(depth - first, step, "step", LONGER)
            steps = steps_to_cover(max(depth - first, 0.0), step)
            numbers = range(-count("spare_before", spare_before), steps + count("spare_after", spare_after) + 1)
        else:
            numbers = range(_frames(frames))
        places = [first + index * step for index in numbers]
    else:
        places = _marched(depth, step, frames, first, spare_before, spare_after)
    gaps = [later - earlier for earlier, later in itertools.pairwise(places)]
    if not gaps:
        gaps = [step(first) if callable(step) else step]
    before = sum(place < -1e-9 for place in places)
    # Up to the first frame that arrives; where none does, all of them are needed.
    arrives = next((index for index, place in enumerate(places) if place >= depth * (1 - 1e-12)), len(places) - 1)
    return Stack(len(places) - 1, len(places), tuple(places), max(arrives - before + 1, 1), min(gaps), max(gaps))


def spread_step(depth, frames, first=0.0, smallest_step=None):
    """The step at which so many frames go from the first place to the far end.

    Parameters
    ----------
    depth : float                   mm, >= 0.
    frames : int                    >= 2.
    first : float                   mm behind the nearest point.
    smallest_step : float or None   The rail's, mm: the step becomes a multiple of it that still arrives.

    Returns
    -------
    float                           mm.

    Raises
    ------
    OutOfDomainError                Fewer than two frames, or nothing lies behind the first.
    """
    if _frames(frames) < 2 or depth <= first:
        raise OutOfDomainError(
            "frames.too_few",
            quantity="frames",
            value=frames,
            message="One frame has no step, and frames that start behind the subject cover none of it.",
            remedy="Give two frames or more, and a first place before the farthest point.",
        )
    step = (depth - first) / (frames - 1)
    if smallest_step is not None:
        step = math.ceil(step / positive("smallest_step", smallest_step, "mm") * (1 - 1e-9)) * smallest_step
    return step


def _frames(frames):
    if count("frames", frames) < 1 or frames > MOST_FRAMES:
        raise OutOfDomainError(
            "frames.out_of_range",
            quantity="frames",
            value=frames,
            message=f"A stack has 1 to {MOST_FRAMES} frames.",
            remedy="Give a number in that range.",
        )
    return frames


def _marched(depth, step_at, frames, first, spare_before, spare_after):
    """Places whose steps follow from where they are: list of float, mm."""

    def onward(place):
        return positive("step", step_at(place), "mm")

    places = [first]
    if frames is not None:
        while len(places) < _frames(frames):
            places.append(places[-1] + onward(places[-1]))
        return places
    while places[-1] < depth * (1 - 1e-12):
        places.append(places[-1] + onward(places[-1]))
        if len(places) > MOST_FRAMES:
            raise too_many(depth - first, places[1] - places[0], "step", LONGER)
    for _ in range(spare_after):
        places.append(places[-1] + onward(places[-1]))
    for _ in range(spare_before):
        places.insert(0, places[0] - onward(places[0]))
    return places
