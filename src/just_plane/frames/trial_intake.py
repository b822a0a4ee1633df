"""Frames of a trial: read, made linear, and told apart from those that do not belong."""

import math
import re
from functools import lru_cache
from pathlib import Path
from typing import NamedTuple

import cv2
import numpy as np

from just_plane.contract.trial import TrialFrame
from just_plane.frames.arriving import pictures_in
from just_plane.frames.intake import FolderError
from just_plane.pictures.frames import FrameFacts, frame_facts, read_grey
from just_plane.pictures.reading import PictureError

CLIPPED = 0.005
"""Share of a frame that may be burnt out."""
BURNT = 0.995
IN_NAME = re.compile(r"(?:^|[^a-z0-9])f[-_ /]?(\d{1,2}(?:[.p,]\d)?)(?![0-9])", re.IGNORECASE)


class TrialFrames(NamedTuple):
    """Frames that can be read, in order."""

    folder: Path
    facts: list
    """FrameFacts."""
    odd: list
    """TrialFrame of those that cannot."""


def trial_frames(folder):
    """The frames of a folder.

    Parameters
    ----------
    folder : Path

    Returns
    -------
    TrialFrames

    Raises
    ------
    FolderError   It cannot be read, or holds no frames; or frames of two cameras or two sizes.
    """
    folder = Path(folder).expanduser()
    try:
        names = pictures_in(folder)
    except OSError as error:
        raise FolderError(f"{folder}: {error.strerror}.", "Choose the folder that the frames are in.") from error
    good: list[FrameFacts] = []
    odd: list[TrialFrame] = []
    for name in names:
        try:
            good.append(frame_facts(folder / name))
        except PictureError as error:
            odd.append(TrialFrame(file=name, problem=f"{error.message} {error.remedy}"))
    if not good:
        raise FolderError(f"There are no frames in {folder}.", "Choose the folder that the frames of the trial are in.")
    kept = []
    for facts in good:
        problem = _other(facts, good)
        if problem:
            odd.append(TrialFrame(file=Path(facts.path).name, problem=problem))
        else:
            kept.append(facts)
    return TrialFrames(folder, kept, odd)


def _other(facts, everything):
    """What makes a frame one of another series than most, or nothing."""

    def usual(of):
        values = [of(each) for each in everything]
        return max(set(values), key=values.count)

    if (facts.width, facts.height) != usual(lambda each: (each.width, each.height)):
        return "It has another size than the others. Take it out, or put it into a folder of its own."
    if facts.camera != usual(lambda each: each.camera):
        return "It was taken with another camera than the others. Trials do not mix: use a folder for each."
    if facts.focal_length_mm != usual(lambda each: each.focal_length_mm):
        return "It was taken at another focal length than the others. Trials do not mix: use a folder for each."
    return ""


def linear(facts):
    """Linear light of a frame, and the share of it that is burnt out.

    Parameters
    ----------
    facts : FrameFacts

    Returns
    -------
    ((H, W) float32 array, float)

    Raises
    ------
    PictureError
    """
    coded = read_grey(facts)
    clipped = np.count_nonzero(coded >= math.ceil(BURNT * int(np.iinfo(coded.dtype).max))) / coded.size
    return light_of(coded), clipped


def light_of(coded):
    """Linear light of a picture encoded as common screens are (IEC 61966-2-1).

    Parameters
    ----------
    coded : array   uint8 or uint16.

    Returns
    -------
    array           float32, 0 to 1.
    """
    table = _light_of(int(np.iinfo(coded.dtype).max))
    # The library's look-up for 8 bits is several times quicker.
    return cv2.LUT(coded, table) if coded.dtype == np.uint8 else np.take(table, coded)


def readable(facts, odd, progress=None):
    """Frames one after the other, those that cannot be read told and passed over.

    Parameters
    ----------
    facts : list of FrameFacts
    odd : list of TrialFrame      Added to.
    progress : function or None   Called with (done, count, name).

    Yields
    ------
    (FrameFacts, (H, W) array, float)   Linear light, and the share of it that is burnt out.
    """
    for index, one in enumerate(facts):
        if progress:
            progress(index, len(facts), Path(one.path).name)
        try:
            picture, clipped = linear(one)
        except PictureError as error:
            odd.append(TrialFrame(file=Path(one.path).name, problem=f"{error.message} {error.remedy}"))
            continue
        yield one, picture, clipped


@lru_cache(maxsize=2)
def _light_of(most):
    """Linear light of every code from 0 to the largest."""
    coded = np.arange(most + 1) / most
    return np.where(coded <= 0.04045, coded / 12.92, ((coded + 0.055) / 1.055) ** 2.4).astype(np.float32)


def stop_of(facts):
    """f-number of a frame: as the camera noted it, else as its name says; None where neither does.

    Parameters
    ----------
    facts : FrameFacts

    Returns
    -------
    float or None
    """
    if facts.f_number:
        return float(facts.f_number)
    found = IN_NAME.search(Path(facts.path).stem)
    return float(re.sub("[p,]", ".", found.group(1))) if found else None
