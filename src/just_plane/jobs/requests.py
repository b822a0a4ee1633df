"""What a job is of: a name made of everything its result depends on, so that nothing is worked out twice."""

import hashlib
import json
from pathlib import Path

from just_plane.frames.intake import take_in
from just_plane.frames.taking import stamps
from just_plane.frames.trial_intake import trial_frames

CODE = "3"
"""Of the work; what was done by another is done again."""


def digest_of(*parts):
    """A name of things that JSON can tell: 32 hexadecimal digits."""
    return hashlib.blake2b(json.dumps(parts, sort_keys=True).encode(), digest_size=16).hexdigest()


def check_request(folder, numbers, methods, slabs=None, put_back=()):
    """The request of a check, and its key.

    Parameters
    ----------
    folder : Path
    numbers : StackNumbers
    methods : list of str
    slabs : (int, int) or None   Frames of a slab, and those it shares with the one before.
    put_back : list of str       Frames that are used though they would be left out.

    Returns
    -------
    (str, str)    JSON; 32 hexadecimal digits, of the work's code, the numbers, and the frames by name, size and time.

    Raises
    ------
    FolderError   No stack is there.
    """
    folder = Path(folder).expanduser().resolve()
    request = {
        "folder": str(folder),
        "numbers": numbers.model_dump(),
        "methods": sorted(methods),
        "slabs": list(slabs) if slabs else None,
        "put_back": sorted(put_back),
    }
    return json.dumps(request), digest_of(CODE, request, stamps(take_in(folder)))


def trial_request(asked):
    """The request of a trial, and its key.

    Parameters
    ----------
    asked : TrialAsked

    Returns
    -------
    (str, str)    As for :func:`check_request`.

    Raises
    ------
    FolderError   There are no frames.
    """
    folder = Path(asked.folder).expanduser().resolve()
    frames = []
    for one in trial_frames(folder).facts:
        about = Path(one.path).stat()
        frames.append((Path(one.path).name, about.st_size, about.st_mtime_ns))
    request = asked.model_dump() | {"folder": str(folder)}
    measured = {name: value for name, value in request.items() if name not in ("kit_id",)}
    return json.dumps(request), digest_of(CODE, measured, frames)


def results_folder(folder, request_key):
    """Where the results of a request lie.

    Parameters
    ----------
    folder : Path       Of all results.
    request_key : str

    Returns
    -------
    Path
    """
    return Path(folder) / request_key[:2] / request_key


def part_file(folder, key):
    """Where what a piece of work left lies.

    Parameters
    ----------
    folder : Path   Of all results.
    key : str

    Returns
    -------
    Path
    """
    return Path(folder) / "parts" / key[:2] / key


def result_file(jobs, job, name):
    """Where a file of a job's results lies: Path."""
    return results_folder(jobs.folder, job.request_key) / name


def request_of(job):
    """What a job was asked: dict of ``folder``, ``numbers`` and ``methods``."""
    return json.loads(job.request_json)
