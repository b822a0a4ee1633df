"""The work of one job as a function of paths: frames in, one folder of results out. Knows no server, no data file."""

import io
import json
import os
import shutil
from contextlib import contextmanager
from pathlib import Path

import cv2
import numpy as np
from PIL import Image

from just_plane.contract.check import CheckReport
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.contract.trial import TrialAsked
from just_plane.core.frames.check.tiles import FINE
from just_plane.frames.checking import check_intake, stack_facts
from just_plane.frames.intake import FolderError, take_in
from just_plane.frames.merging import Merger
from just_plane.frames.outputs import with_depth, write_depth, write_points, write_proofs, write_report, write_sheet
from just_plane.frames.trials import run_trial
from just_plane.pictures.frames import read_colour
from just_plane.pictures.frames_out import WriteError, written
from just_plane.pictures.reading import PictureError

CODE = "2"
"""Of the work; what was done by another is done again."""
REPORT, CURVES, TRIAL = "report.json", "curves.npz", "trial.json"


class WorkError(Exception):
    """Work that cannot be done, in words; it is not tried again."""

    def __init__(self, message, remedy):
        super().__init__(message, remedy)
        self.message = message
        self.remedy = remedy


class StoppedError(Exception):
    """Somebody asked for the work to stop."""


def check_into(folder, numbers_json, methods, results, scratch):
    """Check a folder, merge it, and leave everything in one folder of results, whole or not at all.

    Parameters
    ----------
    folder : str           The frames.
    numbers_json : str     StackNumbers.
    methods : list of str  Proofs to make.
    results : str          The folder to make.
    scratch : str          A folder for ``progress`` (written) and ``stop`` (looked for between frames).

    Raises
    ------
    WorkError   The frames cannot be used, or the disk refused.
    StoppedError  ``stop`` appeared.
    """
    with _told():
        _check_into(Path(folder), StackNumbers.model_validate_json(numbers_json), methods, Path(results), Path(scratch))


def trial_into(asked_json, results, scratch):
    """Run a trial, and leave its result in a folder, whole or not at all.

    Parameters
    ----------
    asked_json : str       TrialAsked.
    results : str          The folder to make.
    scratch : str          As for :func:`check_into`.

    Raises
    ------
    WorkError     The frames cannot be used, or the disk refused.
    StoppedError  ``stop`` appeared.
    """
    with _told():
        asked, folder = TrialAsked.model_validate_json(asked_json), Path(results)
        if (folder / TRIAL).exists():
            return
        cv2.setNumThreads(1)
        result = run_trial(asked, _progress(Path(scratch), 0, 1))
        folder.mkdir(parents=True, exist_ok=True)
        written(folder / TRIAL, lambda to: to.write_text(result.model_dump_json()))


@contextmanager
def _told():
    """What may go wrong with files, as one error with sentences."""
    try:
        yield
    except (FolderError, PictureError, WriteError) as error:
        raise WorkError(error.message, error.remedy) from None
    except MemoryError:
        raise WorkError("There is not enough memory for frames of this size.", "Close other programs.") from None
    except OSError as error:
        raise WorkError(f"The disk refused: {error.strerror}.", "Make room, or look at the folder.") from None


def _check_into(folder, numbers, methods, results, scratch):
    if (results / REPORT).exists():
        return
    cv2.setNumThreads(1)
    passes = 3 if methods else 2
    intake = take_in(folder)
    report, checked = check_intake(intake, numbers, _progress(scratch, 0, passes))
    making = results.with_name(f".tmp-{os.getpid()}-{results.name}")
    shutil.rmtree(making, ignore_errors=True)
    making.mkdir(parents=True)
    try:
        report = _merged(making, intake, report, methods, scratch, passes)
        _write_curves(making / CURVES, checked)
        write_sheet(making, report, intake)
        write_report(making / REPORT, report)
        os.replace(making, results)
    finally:
        shutil.rmtree(making, ignore_errors=True)


def _merged(making, intake, report: CheckReport, methods, scratch, passes) -> CheckReport:
    if sum(frame.used for frame in report.frames) < 2:
        return report
    facts = stack_facts(report.plan, report.width_px)
    merger = Merger(intake, report, facts)
    found, depth = merger.focus(_progress(scratch, 1, passes))
    told = write_depth(making, report, merger.used, found, depth)
    pictures = merger.pictures(tuple(methods), depth, _progress(scratch, 2, passes)) if methods else {}
    proofs = write_proofs(making, report, intake, facts, pictures)
    for method, picture in pictures.items():
        jpeg_file(making / f"proof-{method}.jpg", picture)
    if pictures:
        write_points(making, report, facts, merger.used, found, depth, next(iter(pictures.values())))
    return with_depth(report, merger, depth, told).model_copy(update={"pictures": proofs})


def _write_curves(path, checked):
    """Contrast of the finest detail through the frames, tile by tile: what a click on the picture asks for."""
    if checked.energies is None:
        return
    fine = checked.energies[:, FINE]
    with np.errstate(all="ignore"):
        floors = np.nanpercentile(fine, 8, axis=0)
        strength = np.sqrt(np.maximum(fine - floors, 0))
        share = strength / np.nanmax(strength, axis=0)
    written(
        path,
        lambda to: np.savez_compressed(
            to.open("wb"),
            share=np.nan_to_num(share, nan=-1).astype(np.float32),
            depths=np.nan_to_num(checked.fit.depths, nan=-1e9).astype(np.float32),
            frames=np.array(checked.judged),
            grid=np.array([checked.grid.across, checked.grid.down, checked.grid.width, checked.grid.height]),
        ),
    )


def _progress(scratch, part, passes):
    def told(done, count, name):
        if (scratch / "stop").exists():
            raise StoppedError
        share = (part + done / max(count, 1)) / passes
        words = ("Measuring", "Finding depth in", "Merging")[part]
        written(
            scratch / "progress", lambda to: to.write_text(json.dumps({"share": share, "words": f"{words} {name}"}))
        )

    return told


def jpeg_file(path, picture, width=None):
    """A picture for the screen.

    Parameters
    ----------
    path : Path
    picture : (H, W, 3) array   uint8, uint16 or float32 0 to 1; blue-green-red.
    width : int or None         px; smaller where it is wider.
    """
    written(path, lambda to: to.write_bytes(jpeg_bytes(picture, width)))


def jpeg_bytes(picture, width=None):
    """The same as bytes."""
    if width is not None and picture.shape[1] > width:
        height = max(round(picture.shape[0] * width / picture.shape[1]), 1)
        picture = cv2.resize(picture, (width, height), interpolation=cv2.INTER_AREA)
    if picture.dtype == np.uint16:
        picture = (picture // 257).astype(np.uint8)
    elif picture.dtype != np.uint8:
        picture = np.rint(np.clip(picture, 0, 1) * 255).astype(np.uint8)
    content = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(picture[..., ::-1])).save(content, "JPEG", quality=90, subsampling=0)
    return content.getvalue()


def frame_preview(facts, to_reference, width, crop=None):
    """One frame as the reference would see it, for the screen: bytes of a JPEG.

    Parameters
    ----------
    facts : FrameFacts
    to_reference : list or None   2 x 3; as it is where there is none.
    width : int                   px.
    crop : tuple or None          Left, top, width, height in px of the reference frame.

    Raises
    ------
    PictureError                  Its pixels cannot be read.
    """
    picture = read_colour(facts)
    if to_reference is not None:
        picture = cv2.warpAffine(picture, np.array(to_reference), picture.shape[1::-1], flags=cv2.INTER_LINEAR)
    if crop is not None:
        left, top, across, down = (round(value) for value in crop)
        picture = picture[top : top + down, left : left + across]
    return jpeg_bytes(picture, width)
