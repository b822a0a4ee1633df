"""What a job is of: a name made of everything its result depends on, so that nothing is worked out twice."""

import hashlib
import json
from pathlib import Path

from just_plane.frames.intake import take_in
from just_plane.frames.trial_intake import trial_frames
from just_plane.frames.work import CODE


def check_request(folder, numbers, methods):
    """The request of a check, and its key.

    Parameters
    ----------
    folder : Path
    numbers : StackNumbers
    methods : list of str

    Returns
    -------
    (str, str)    JSON; 32 hexadecimal digits, of the work's code, the numbers, and the frames by name, size and time.

    Raises
    ------
    FolderError   No stack is there.
    """
    folder = Path(folder).expanduser().resolve()
    intake = take_in(folder)
    request = {"folder": str(folder), "numbers": numbers.model_dump(), "methods": sorted(methods)}
    frames = []
    for name in intake.names:
        about = (folder / name).stat()
        frames.append((name, about.st_size, about.st_mtime_ns))
    digest = hashlib.blake2b(digest_size=16)
    digest.update(json.dumps([CODE, request, frames], sort_keys=True).encode())
    return json.dumps(request), digest.hexdigest()


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
    digest = hashlib.blake2b(digest_size=16)
    digest.update(json.dumps([CODE, measured, frames], sort_keys=True).encode())
    return json.dumps(request), digest.hexdigest()


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
