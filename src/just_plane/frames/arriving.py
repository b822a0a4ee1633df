"""Pictures as they come into a folder, whatever puts them there."""

import time
from pathlib import Path
from typing import NamedTuple

from just_plane.contract.run import Arrived, ArrivedFile
from just_plane.frames.camera_notes import NOTHING_ASKED, differs, doubt
from just_plane.frames.intake import OWN, natural
from just_plane.pictures.fingerprint import fingerprint, where_now
from just_plane.pictures.frames import PLAIN_KINDS, RAW_KINDS, frame_facts
from just_plane.pictures.reading import PictureError

AT_REST_S = 0.7
"""A file that was written to so short ago may not be whole yet."""
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


class Counted(NamedTuple):
    """A picture that is a frame of the run."""

    frame: int
    name: str
    sha256: str | None


def arrived(folder, known, settings=NOTHING_ASKED, counted=(), at_rest_s=AT_REST_S):
    """Pictures that came and are not known yet.

    Parameters
    ----------
    folder : str
    known : set of str            Names that are counted, or were there before.
    settings : Settings           That the plan asks for.
    counted : sequence of Counted  The run's frames in the order in which they were taken.
    at_rest_s : float             A file written to more recently may not be whole.

    Returns
    -------
    Arrived
    """
    try:
        new = [name for name in pictures_in(folder) if name not in known and not _has_twin(name, known)]
    except OSError as error:
        reason = error.strerror or "it cannot be read"
        return Arrived(
            folder=folder, files=[], trouble=f"{folder}: {reason}. The run waits; it goes on when the folder is back."
        )
    if not new:
        return Arrived(folder=folder, files=[])
    beside = Beside(folder, settings, counted)
    return Arrived(folder=folder, files=[beside.told(Path(folder) / name, at_rest_s) for name in new[:MOST]])


def _has_twin(name, known):
    """Whether a picture is the JPEG of a raw frame that is known, or the other way round: one of them came later."""
    path = Path(name)
    raw = path.suffix.lower() in RAW_KINDS
    return any(
        Path(other).stem.lower() == path.stem.lower()
        and (Path(other).suffix.lower() in RAW_KINDS) != raw
        and Path(other if raw else name).suffix.lower() in (".jpg", ".jpeg")
        for other in known
    )


def place_of(folder, name, sha256):
    """Where a picture of a run lies now, though it was renamed: Path."""
    return where_now(folder, name, sha256, lambda: pictures_in(folder))


class Beside:
    """New pictures beside the plan and the frames that the run has."""

    def __init__(self, folder, settings, counted):
        self._settings = settings
        self._counted = counted
        self._first = _facts(folder, counted[0]) if counted else None
        self._last = _facts(folder, counted[-1]) if counted else None

    def told(self, path, at_rest_s=0.0):
        """What is to be said of one picture.

        Parameters
        ----------
        path : Path
        at_rest_s : float

        Returns
        -------
        ArrivedFile
        """
        try:
            if time.time() - path.stat().st_mtime < at_rest_s:
                return ArrivedFile(name=path.name, whole=False, said="It is being written.")
            facts, content = frame_facts(path), fingerprint(path)
        except PictureError as error:
            return ArrivedFile(name=path.name, whole=False, said=f"{error.message} {error.remedy}")
        except OSError:
            return ArrivedFile(name=path.name, whole=False, said="It is gone again.")
        same = next((each for each in self._counted if each.sha256 == content), None)
        if same is not None:
            why = f"It is the same file as frame {same.frame + 1}, {same.name}."
        else:
            why = doubt(facts, self._first, self._last)
        said = differs(facts, self._settings, self._first)
        return ArrivedFile(name=path.name, whole=True, said=" ".join(filter(None, (why, said))), doubt=bool(why))


def _facts(folder, counted):
    try:
        return frame_facts(place_of(folder, counted.name, counted.sha256))
    except PictureError:
        return None
