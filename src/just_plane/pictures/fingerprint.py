"""A picture known by its content, whatever it is called and wherever it lies."""

import hashlib
from functools import lru_cache
from pathlib import Path

AT_ONCE = 1 << 20
KEPT = 4096


def fingerprint(path):
    """Content hash of a file.

    Parameters
    ----------
    path : Path

    Returns
    -------
    str       SHA-256, 64 hexadecimal digits.

    Raises
    ------
    OSError   It is gone, or cannot be read.
    """
    path = Path(path)
    told = path.stat()
    return _fingerprint(str(path), told.st_size, told.st_mtime_ns)


@lru_cache(maxsize=KEPT)
def _fingerprint(path, size, written_ns):
    """Read once as long as size and time of writing stay the same."""
    digest = hashlib.sha256()
    with open(path, "rb") as opened:
        while part := opened.read(AT_ONCE):
            digest.update(part)
    return digest.hexdigest()


def where_now(folder, name, sha256, others):
    """Where a picture lies now: under its name, or another one of the same folder with the same content.

    Parameters
    ----------
    folder : str or Path
    name : str            Under which it was counted.
    sha256 : str or None  Its content then; None: not known.
    others : callable     () -> names of the pictures in the folder; may raise OSError.

    Returns
    -------
    Path                  Under its name, where nothing better is found.
    """
    path = Path(folder) / name
    if sha256 is None or path.is_file():
        return path
    try:
        return next((found for other in others() if _is(found := Path(folder) / other, sha256)), path)
    except OSError:
        return path


def _is(path, sha256):
    try:
        return fingerprint(path) == sha256
    except OSError:
        return False
