"""Frames of a stack measured, a slab at a time: work for one process, the same wherever it is done."""

import io
import json
import math
from typing import NamedTuple

import numpy as np

from just_plane.core.frames.check.moving import Moved
from just_plane.core.frames.check.register import Laid
from just_plane.core.frames.check.series import Glance, Pair, glance, paired
from just_plane.core.frames.check.tiles import Measured, grid_for, measured
from just_plane.pictures.frames import as_float, read_grey, same_pixels
from just_plane.pictures.reading import PictureError

FRAMES = 10
"""Frames of a slab: what a broken-off process loses. Sums over a slab are part of the result, so it is the same
everywhere."""
OTHER_SIZE = "Its pixels are not as many as its file says."


class Slab(NamedTuple):
    """What is kept of some frames."""

    numbers: dict
    """Frame to Measured."""
    names: dict
    """Frame to the name of its very pixels."""
    pairs: dict
    """(frame before, frame) to Pair."""
    unreadable: dict
    """Frame to why."""


def slabs(count):
    """How a stack is cut.

    Parameters
    ----------
    count : int   Frames.

    Returns
    -------
    list of (int, int)   First and past the last frame of each.
    """
    return [(first, min(first + FRAMES, count)) for first in range(0, count, FRAMES)]


def reduced(intake, reduction):
    """Rows and columns that frames are measured at: (int, int)."""
    width, height = intake.size
    return height // reduction, width // reduction


def measure_slab(intake, facts, part, last=None, progress=None):
    """Measure some frames, and lay each on the one before.

    Parameters
    ----------
    intake : Intake
    facts : StackFacts
    part : (int, int)             First and past the last frame.
    last : (Glance, Measured)     Of the last frame before them where it is at hand; else it is unpacked again.
    progress : function or None   Called with (frames done, frames in all, name); what it raises ends the work.

    Returns
    -------
    (Slab, (Glance, Measured) or None)   And the last frame, for the next slab.
    """
    reduction = facts.reduction(intake.size[0])
    rows, columns = shape = reduced(intake, reduction)
    circle = facts.circle_px(reduction)
    grid = grid_for(columns, rows, circle, facts.step_blur_px(reduction))
    slab = Slab({}, {}, {}, {})
    first, end = part
    if last is None:
        last = _the_one_before(intake, first, reduction, shape, circle, grid)
    for frame in range(first, end):
        if progress:
            progress(frame - first, end - first, intake.names[frame])
        if intake.facts[frame] is None:
            continue
        try:
            picture = _picture(intake, frame, reduction, shape)
        except PictureError as error:
            slab.unreadable[frame] = f"{error.message} {error.remedy}".strip()
            continue
        grey = as_float(picture)
        numbers = measured(grey, grid)
        seen = glance(frame, grey, circle)
        slab.numbers[frame], slab.names[frame] = numbers, same_pixels(picture)
        if last is not None:
            slab.pairs[last[0].number, frame] = paired(last[0], seen, last[1], numbers, grid)
        last = (seen, numbers)
    return slab, last


def _picture(intake, frame, reduction, shape):
    picture = read_grey(intake.facts[frame], reduction)
    if picture.shape != shape:
        raise PictureError(OTHER_SIZE, "")
    return picture


def _the_one_before(intake, first, reduction, shape, circle, grid) -> tuple[Glance, Measured] | None:
    for frame in range(first - 1, -1, -1):
        if intake.facts[frame] is None:
            continue
        try:
            grey = as_float(_picture(intake, frame, reduction, shape))
        except PictureError:
            continue
        return glance(frame, grey, circle), measured(grey, grid)
    return None


def slab_bytes(slab):
    """A slab to be kept in a file.

    Parameters
    ----------
    slab : Slab

    Returns
    -------
    bytes
    """
    arrays: dict = {}
    for frame, numbers in slab.numbers.items():
        arrays |= {f"{name}-{frame}": getattr(numbers, name) for name in ("energy", "slopes", "light")}
    told = {
        "frames": [[frame, slab.names[frame], numbers.clipped] for frame, numbers in slab.numbers.items()],
        "pairs": [[*key, _pair_told(pair)] for key, pair in slab.pairs.items()],
        "unreadable": list(slab.unreadable.items()),
    }
    arrays["told"] = np.frombuffer(json.dumps(told).encode(), np.uint8)
    content = io.BytesIO()
    np.savez(content, **arrays)
    return content.getvalue()


def slab_of(path):
    """A slab that was kept.

    Parameters
    ----------
    path : Path

    Returns
    -------
    Slab
    """
    with np.load(path, allow_pickle=False) as kept:
        told = json.loads(kept["told"].tobytes())
        numbers = {
            frame: Measured(kept[f"energy-{frame}"], kept[f"slopes-{frame}"], kept[f"light-{frame}"], clipped)
            for frame, _, clipped in told["frames"]
        }
    return Slab(
        numbers,
        {frame: name for frame, name, _ in told["frames"]},
        {(before, frame): _pair_of(pair) for before, frame, pair in told["pairs"]},
        dict(told["unreadable"]),
    )


def _pair_told(pair):
    laid, moved = pair.laid, pair.moved
    return {
        "similarity": None if laid.similarity is None else np.asarray(laid.similarity, float).tolist(),
        "likeness": float(laid.likeness),
        "light_ev": None if math.isnan(pair.light_ev) else pair.light_ev,
        "moved": None
        if moved is None
        else [[float(v) for v in moved.shift], [float(v) for v in moved.place], moved.share],
    }


def _pair_of(told):
    similarity, moved = told["similarity"], told["moved"]
    return Pair(
        Laid(None if similarity is None else np.array(similarity), told["likeness"]),
        math.nan if told["light_ev"] is None else told["light_ev"],
        None if moved is None else Moved(tuple(moved[0]), tuple(moved[1]), moved[2]),
    )
