"""Files that were brought through the page: kept as they are, under their own names, in a folder for each time."""

import os
import re
from pathlib import Path

from just_plane.store.errors import DiskError, StoreError

NAME = re.compile(r"^[^/\\\x00-\x1f<>:\"|?*]{1,120}$")
KINDS = frozenset(
    {".jpg", ".jpeg", ".png", ".tif", ".tiff", ".dng", ".arw", ".cr2", ".cr3", ".nef", ".orf", ".raf", ".rw2"}
)
CHUNK = 1 << 20
LEAST_FREE = 200_000_000
"""Bytes that stay free on the disk: shots and runs are written there too."""
KEPT_DAYS = 30
"""Copies that nothing looked at for so long go; what they were copied from is not ours."""


class NotBroughtError(StoreError):
    """A file that cannot be taken; the message says why, the remedy what would work."""


def bring(folder, batch, name, stream):
    """Take a file in.

    Parameters
    ----------
    folder : Path    Of the data.
    batch : str      Of files that belong together; 32 hexadecimal digits.
    name : str       Its own.
    stream : object  With ``read(size)``.

    Returns
    -------
    Path             The folder that it is in now.

    Raises
    ------
    NotBroughtError  Its name cannot be, it is no picture, or it is empty.
    DiskError        The disk is full or refuses it.
    """
    if not NAME.match(name) or name.startswith("."):
        raise NotBroughtError(f"A file cannot be called “{name[:80]}”.", "Give it a plain name, and bring it again.")
    if Path(name).suffix.lower() not in KINDS:
        raise NotBroughtError(f"{name} is no picture that can be read.", "Bring JPEG, PNG, TIFF, DNG or raw files.")
    into = Path(folder) / "brought" / batch
    making = into / f".{name}.part"
    try:
        into.mkdir(parents=True, exist_ok=True)
        with making.open("wb") as file:
            size = 0
            while chunk := stream.read(CHUNK):
                file.write(chunk)
                size += len(chunk)
                if size % (64 * CHUNK) < CHUNK and _free(into) < LEAST_FREE:
                    raise OSError("nearly full")
        if size == 0:
            raise NotBroughtError(f"{name} is empty.", "Copy it from the card again.")
        os.replace(making, into / name)
    except OSError as error:
        raise DiskError(
            f"{name} could not be kept: the disk is full or refuses it.", "Make room, then bring it again."
        ) from error
    finally:
        making.unlink(missing_ok=True)
    return into


def _free(folder):
    facts = os.statvfs(folder)
    return facts.f_bavail * facts.f_frsize
