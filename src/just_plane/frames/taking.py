"""Tasks that look at the frames of a stack: measured slab by slab, judged as a whole; and a trial."""

import json
from pathlib import Path

import numpy as np

from just_plane.contract.check import CheckReport
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.contract.trial import TrialAsked
from just_plane.core.frames.check.focus_fit import through_frames
from just_plane.core.frames.check.tiles import FINE
from just_plane.frames.checking import judge, stack_facts, with_pitch
from just_plane.frames.intake import FolderError, take_in
from just_plane.frames.measuring import measure_slab, slab_bytes, slab_of
from just_plane.frames.merging import Merger
from just_plane.frames.trials import run_trial
from just_plane.pictures.frames_out import written

LEAST_TO_MERGE = 2
TRIAL = "trial.json"


def stamps(intake):
    """What tells whether the frames are still the same: list of [name, bytes, time]."""
    return [[name, *_stamp(intake.folder / name)] for name in intake.names]


def _stamp(path):
    try:
        about = path.stat()
    except OSError:
        return [-1, -1]
    return [about.st_size, about.st_mtime_ns]


def stack_of(order):
    """The stack that an order is about.

    Parameters
    ----------
    order : dict   ``folder``; ``numbers`` of StackNumbers; ``frames``, their :func:`stamps` when it was asked.

    Returns
    -------
    (Intake, StackNumbers, StackFacts)

    Raises
    ------
    FolderError    No stack is there, or not the one that was asked about.
    """
    intake = take_in(Path(order["folder"]))
    known, now = order["frames"], stamps(intake)
    if now != known:
        changed = [name for name, *stamp in known if _stamp(intake.folder / name) != stamp]
        which = changed[0] if changed else next(name for name, *_ in now if name not in {one[0] for one in known})
        raise FolderError(f"{which} changed while the stack was looked through.", "Start it again once all are there.")
    numbers = with_pitch(StackNumbers.model_validate(order["numbers"]), intake)
    return intake, numbers, stack_facts(numbers, intake.size[0])


def merger_of(order, report):
    """The merger of a judged stack; None where no two frames fit each other."""
    intake, _, facts = stack_of(order)
    return Merger(intake, report, facts) if mergeable(report) else None


def mergeable(report):
    """Whether two frames at least can be merged: bool."""
    return sum(frame.used for frame in report.frames) >= LEAST_TO_MERGE


def measure_task(order, _needs, out, progress):
    """Measure the frames of ``part`` (first, one past the last): a slab."""
    intake, _, facts = stack_of(order)
    slab, _ = measure_slab(intake, facts, tuple(order["part"]), None, progress)
    written(out, lambda to: to.write_bytes(slab_bytes(slab)))


def judge_task(order, needs, out, progress):
    """Judge the stack by its slabs: the report, and the contrast of places through the frames."""
    progress(0, 1, "")
    intake, numbers, _ = stack_of(order)
    report, checked = judge(intake, numbers, [slab_of(need) for need in needs], order["put_back"])
    write_arrays(out, {"report": np.frombuffer(report.model_dump_json().encode(), np.uint8)} | _curves(checked))


def judged(path):
    """What :func:`judge_task` left: (CheckReport, dict of arrays)."""
    with np.load(path) as kept:
        curves = {name: kept[name] for name in kept.files if name != "report"}
        return CheckReport.model_validate_json(kept["report"].tobytes()), curves


def _curves(checked):
    """Contrast of the finest detail through the frames, tile by tile: what a press on the picture asks for."""
    if checked.energies is None:
        return {}
    fine = checked.energies[:, FINE]
    with np.errstate(all="ignore"):
        strength = np.sqrt(np.maximum(fine - through_frames(fine, 0.08), 0))
        share = strength / np.nanmax(strength, axis=0)
    return {
        "share": np.nan_to_num(share, nan=-1).astype(np.float32),
        "depths": np.nan_to_num(checked.fit.depths, nan=-1e9).astype(np.float32),
        "frames": np.array(checked.judged),
        "grid": np.array([checked.grid.across, checked.grid.down, checked.grid.width, checked.grid.height]),
    }


def write_arrays(path, arrays):
    """Arrays into a file that is whole or not there."""

    def write(to):
        with to.open("wb") as file:
            np.savez(file, **arrays)

    written(path, write)


def trial_task(order, _needs, out, progress):
    """A trial; the order is a TrialAsked."""
    result = run_trial(TrialAsked.model_validate_json(json.dumps(order)), progress)
    written(out, lambda to: to.write_text(result.model_dump_json()))
