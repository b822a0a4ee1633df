"""Pictures as they come into a folder, whatever puts them there."""

import time
from pathlib import Path

from just_plane.contract.run import Arrived, ArrivedFile
from just_plane.frames.intake import OWN, natural
from just_plane.pictures.frames import PLAIN_KINDS, RAW_KINDS, frame_facts
from just_plane.pictures.reading import PictureError

AT_REST_S = 0.7
"""A file that was written to so short ago may not be whole yet."""
SAME_STOP = 0.03
"""Cameras round what they note: f/5.6 is 5.657."""
MOST = 50
"""Pictures that are looked into at once; the others are named."""


def pictures_in(folder):
    """Names of the pictures in a folder, in order; of a raw frame and its JPEG the JPEG.

    Parameters
    ----------
    folder : Path

    Returns
    -------
    list of str

    Raises
    ------
    OSError
    """
    names = [path.name for path in Path(folder).iterdir() if path.is_file()]
    kinds = PLAIN_KINDS + RAW_KINDS
    names = [name for name in names if Path(name).suffix.lower() in kinds and not name.startswith(".")]
    plain = {Path(name).stem.lower() for name in names if Path(name).suffix.lower() in (".jpg", ".jpeg")}
    twins = {name for name in names if Path(name).suffix.lower() in RAW_KINDS and Path(name).stem.lower() in plain}
    return sorted((name for name in names if name not in twins and not OWN.search(name)), key=natural)


def arrived(folder, known, f_number=None, at_rest_s=AT_REST_S):
    """Pictures that came and are not known yet.

    Parameters
    ----------
    folder : str
    known : set of str        Names that are counted, or were there before.
    f_number : float or None  Marked, that the plan asks for.
    at_rest_s : float         A file written to more recently may not be whole.

    Returns
    -------
    Arrived
    """
    try:
        new = [name for name in pictures_in(folder) if name not in known]
    except OSError as error:
        reason = error.strerror or "it cannot be read"
        return Arrived(
            folder=folder, files=[], trouble=f"{folder}: {reason}. The run waits; it goes on when the folder is back."
        )
    return Arrived(folder=folder, files=[_file(Path(folder) / name, f_number, at_rest_s) for name in new[:MOST]])


def _file(path, f_number, at_rest_s):
    try:
        if time.time() - path.stat().st_mtime < at_rest_s:
            return ArrivedFile(name=path.name, whole=False, said="It is being written.")
        facts = frame_facts(path)
    except PictureError as error:
        return ArrivedFile(name=path.name, whole=False, said=f"{error.message} {error.remedy}")
    except OSError:
        return ArrivedFile(name=path.name, whole=False, said="It is gone again.")
    if f_number is not None and facts.f_number and abs(facts.f_number / f_number - 1) > SAME_STOP:
        return ArrivedFile(
            name=path.name, whole=True, said=f"It was taken at f/{facts.f_number:.3g}; the plan says f/{f_number:.3g}."
        )
    return ArrivedFile(name=path.name, whole=True, said="")
