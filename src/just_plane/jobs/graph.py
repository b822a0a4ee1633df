"""A job cut into pieces: each with a name made of all it depends on, and the names of those it rests on.

Frames count by their bytes, not by where they lie: the same frames under another name, or another method of the same
stack, find what was measured of them. How many pieces there are follows the workers; what comes out does not.
"""

import hashlib
import json
from pathlib import Path

from just_plane.contract.stack_numbers import StackNumbers
from just_plane.frames.checking import stack_facts, with_pitch
from just_plane.frames.finishing import REPORT
from just_plane.frames.intake import take_in
from just_plane.frames.measuring import slabs
from just_plane.frames.taking import TRIAL, stamps
from just_plane.jobs.requests import CODE, digest_of, part_file, request_of, results_folder
from just_plane.pictures.frames_out import written
from just_plane.store.work import Task

READ = 1 << 20
MEASURE, FOCUS, MERGE, WRITE = 3, 2, 2, 6
"""Weight a frame of measuring, of finding depth, of a method of merging; of writing a proof."""


def pieces(job, results, work, workers, progress=None):
    """The pieces of a job.

    Parameters
    ----------
    job : Job
    results : Path                Folder of all results; the stack is written down there.
    work : Work                   Remembers what frames' bytes are named.
    workers : int
    progress : function or None   Called with (frames read, frames in all).

    Returns
    -------
    list of Task                  In an order in which they can be done.

    Raises
    ------
    FolderError, OSError
    """
    request = request_of(job)
    if job.kind == "trial":
        return [Task(job.request_key, "trial", 1, job.request_json, [])]
    return _check(job, request, results, work, workers, progress)


def _check(job, request, results, work, workers, progress):
    intake = take_in(Path(request["folder"]))
    hashes = frame_hashes(intake, work, progress)
    numbers = with_pitch(StackNumbers.model_validate(request["numbers"]), intake)
    facts = stack_facts(numbers, intake.size[0])
    reduction = facts.reduction(intake.size[0])
    measured_by = [reduction, facts.circle_px(reduction), facts.step_blur_px(reduction)]
    stack = {"folder": request["folder"], "numbers": request["numbers"], "frames": stamps(intake)}
    stack_key = _written(results, stack)
    count, methods = len(intake.names), request["methods"]
    tasks = _Tasks(stack_key)
    measured = [
        tasks.add("measure", MEASURE * (last - first), {"part": [first, last]}, [],
                  [hashes[max(first - 1, 0) : last], first, measured_by])
        for first, last in slabs(count)
    ]  # fmt: skip
    order = {"put_back": request.get("put_back", [])}
    judged = tasks.add("judge", 2, order, measured, [intake.names, hashes, request["numbers"], request["folder"]])
    a_share = -(-count // workers)
    focused = [tasks.add("focus", FOCUS * a_share, {"part": [share, workers]}, [judged]) for share in range(workers)]
    depth = tasks.add("depth", 2, {}, [judged, *focused])
    bands = [
        tasks.add(
            "merge",
            MERGE * (1 + len(methods)) * a_share,
            {"part": [share, workers], "methods": methods},
            [judged, depth],
        )
        for share in range(workers if methods else 0)
    ]
    layers = []
    if request.get("slabs"):
        frames, shared = request["slabs"]
        most = -(-max(count - shared, 1) // (frames - shared))
        layers = [
            tasks.add("slab", MERGE * frames, {"part": place, "slabs": request["slabs"]}, [judged])
            for place in range(most)
        ]
    last = {"methods": methods, "bands": len(bands), "slabs": request.get("slabs")}
    tasks.add("finish", WRITE * (1 + len(methods)), last, [judged, depth, *bands, *layers], key=job.request_key)
    return tasks.all


class _Tasks:
    """Gathers tasks; each rests on the stack as it was written down, too."""

    def __init__(self, stack_key):
        self.all = []
        self._stack = stack_key

    def add(self, kind, weight, order, needs, of=(), key=None):
        key = key or digest_of(CODE, kind, order, needs, list(of))
        self.all.append(Task(key, kind, max(weight, 1), json.dumps(order), [self._stack, *needs]))
        return key


def _written(results, stack):
    """The stack as the pieces find it; its own name is its key."""
    key = digest_of("stack", stack)
    path = part_file(results, key)
    if not path.exists():
        path.parent.mkdir(parents=True, exist_ok=True)
        written(path, lambda to: to.write_text(json.dumps(stack)))
    return key


def frame_hashes(intake, work, progress=None):
    """Names of the bytes of frames, each read once.

    Parameters
    ----------
    intake : Intake
    work : Work
    progress : function or None   Called with (frames read, frames in all).

    Returns
    -------
    list of str                   32 hexadecimal digits each; empty of a file that cannot be read.
    """
    names, new = [], []
    for place, (name, size, modified) in enumerate(stamps(intake)):
        path = intake.folder.resolve() / name
        known = work.frame_hash(path, (size, modified))
        if known is None:
            known = _hash(path)
            if known:
                new.append((str(path), (size, modified), known))
        names.append(known)
        if progress:
            progress(place, len(intake.names))
    if new:
        work.keep_frame_hashes(new)
    return names


def _hash(path):
    digest = hashlib.blake2b(digest_size=16)
    try:
        with path.open("rb") as file:
            while block := file.read(READ):
                digest.update(block)
    except OSError:
        return ""
    return digest.hexdigest()


def out_of(task, results):
    """Where a task leaves what it makes, and what tells that it is whole.

    Parameters
    ----------
    task : Task
    results : Path

    Returns
    -------
    (Path, Path)    The same but of the last task, which leaves a folder.
    """
    if task.kind == "finish":
        folder = results_folder(results, task.result_key)
        return folder, folder / REPORT
    if task.kind == "trial":
        path = results_folder(results, task.result_key) / TRIAL
        return path, path
    path = part_file(results, task.result_key)
    return path, path
