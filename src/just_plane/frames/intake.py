"""Which files of a folder are the frames of a stack, in which order."""

import re
from itertools import pairwise
from pathlib import Path
from typing import NamedTuple

from just_plane.pictures.frames import PLAIN_KINDS, RAW_KINDS, FrameFacts, frame_facts
from just_plane.pictures.reading import PictureError

FEWEST, MOST = 2, 2000
OWN = re.compile(r"-(proof-(depth|pyramid|windowed)|slab-\d+|depth|sheet)\.(tif|png|jpg)$")
"""What this program writes beside frames is not taken for frames."""


class FolderError(ValueError):
    """A folder that holds no stack; ``message`` and ``remedy`` are sentences."""

    def __init__(self, message, remedy):
        super().__init__(f"{message} {remedy}")
        self.message = message
        self.remedy = remedy


class Refused(NamedTuple):
    """A file that is no frame of this stack."""

    name: str
    reason: str


class Intake(NamedTuple):
    """Frames of a stack, in the order of their names."""

    folder: Path
    names: list
    facts: list
    """FrameFacts, or None of a frame that is refused."""
    refused: list
    said: list
    """What is odd about them, in sentences."""

    @property
    def size(self):
        """Width and height of the frames, px."""
        first = next(facts for facts in self.facts if facts is not None)
        return first.width, first.height


def natural(name):
    """Key by which 9 comes before 10."""
    return [int(part) if part.isdigit() else part.lower() for part in re.split(r"(\d+)", name)]


def take_in(folder):
    """The frames of a folder.

    Parameters
    ----------
    folder : Path

    Returns
    -------
    Intake

    Raises
    ------
    FolderError   No folder, or fewer than two frames in it.
    """
    folder = Path(folder)
    try:
        found = [path for path in folder.iterdir() if path.is_file() and not path.name.startswith(".")]
    except FileNotFoundError as error:
        raise FolderError(f"There is no folder {folder}.", "Choose the folder that the frames are in.") from error
    except OSError as error:
        raise FolderError(f"{folder} cannot be looked into: {error.strerror}.", "Choose another folder.") from error
    kinds = PLAIN_KINDS + RAW_KINDS
    pictures = [path for path in found if path.suffix.lower() in kinds and not OWN.search(path.name)]
    pictures, pairs = _without_twins(sorted(pictures, key=lambda path: natural(path.name)))
    return take_in_files(folder, pictures, [pairs] if pairs else [])


def take_in_files(folder, pictures, said=()):
    """Given files as frames, in the order given.

    Parameters
    ----------
    folder : Path
    pictures : list of Path
    said : sequence of str   What was found odd before.

    Returns
    -------
    Intake

    Raises
    ------
    FolderError   Fewer than two frames can be read, or more than the program takes.
    """
    if len(pictures) > MOST:
        raise FolderError(
            f"{folder} holds {len(pictures)} pictures; a stack has up to {MOST}.",
            "Put the stack into a folder of its own.",
        )
    facts: list[FrameFacts | None] = []
    refused = []
    for path in pictures:
        try:
            facts.append(frame_facts(path))
        except PictureError as error:
            facts.append(None)
            refused.append(Refused(path.name, f"{error.message} {error.remedy}"))
    size = _usual_size(facts)
    mostly_grey = 2 * sum(one.grey for one in facts if one is not None) > sum(one is not None for one in facts)
    for place, one in enumerate(facts):
        if one is not None and one.grey and not mostly_grey:
            facts[place] = None
            refused.append(Refused(pictures[place].name, "It is grey where the others are in colour."))
        elif one is not None and (one.width, one.height) != size:
            turned = (one.height, one.width) == size
            reason = (
                "It stands upright where the others lie, or lies where they stand."
                if turned
                else (f"It is {one.width} x {one.height} pixels where the others are {size[0]} x {size[1]}.")
            )
            facts[place] = None
            refused.append(Refused(pictures[place].name, reason))
    whole = sum(one is not None for one in facts)
    if whole < FEWEST:
        readable = "no frames" if whole == 0 else "one frame"
        why = f" {refused[0].name}: {refused[0].reason}" if refused else ""
        raise FolderError(
            f"{folder} holds {readable} that can be read; a stack has at least two.{why}",
            "Choose the folder with the frames: JPEG, PNG, TIFF, DNG or camera raw.",
        )
    names = [path.name for path in pictures]
    return Intake(folder, names, facts, refused, [*said, *_odd(names, facts)])


def _without_twins(pictures):
    """Of a raw frame and its JPEG the JPEG: it is what the camera showed, and quicker."""
    plain = {path.stem.lower() for path in pictures if path.suffix.lower() in (".jpg", ".jpeg")}
    kept = [path for path in pictures if not (path.suffix.lower() in RAW_KINDS and path.stem.lower() in plain)]
    left = len(pictures) - len(kept)
    return kept, f"{left} raw frames stand beside their JPEG; the JPEG is measured." if left else ""


def _usual_size(facts):
    sizes = [(one.width, one.height) for one in facts if one is not None]
    return max(set(sizes), key=sizes.count) if sizes else (0, 0)


def _odd(names, facts):
    """Where clock or settings contradict the order of the names or each other."""
    said = []
    known = [(name, one) for name, one in zip(names, facts, strict=True) if one is not None]
    for (before, first), (after, second) in pairwise(known):
        if first.taken and second.taken and second.taken < first.taken:
            said.append(f"The camera's clock puts {after} before {before}; they are read in the order of their names.")
            break
    for field, noun in (
        ("f_number", "stop"),
        ("exposure_s", "shutter"),
        ("iso", "ISO"),
        ("focal_length_mm", "focal length"),
    ):
        values = [getattr(one, field) for _, one in known if getattr(one, field) is not None]
        usual = max(set(values), key=values.count) if values else None
        others = [name for name, one in known if getattr(one, field) not in (None, usual)]
        if others:
            which = others[0] if len(others) == 1 else f"{others[0]} and {len(others) - 1} more"
            said.append(f"By the camera's notes {which} has another {noun} than the rest.")
    return said
