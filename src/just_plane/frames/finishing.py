"""The last task of a check: everything that is kept of a stack, in one folder, whole or not at all."""

import errno
import os
import shutil

from just_plane.contract.check import PictureReport, SlabReport
from just_plane.frames.marks import marks_of
from just_plane.frames.outputs import with_depth, write_depth, write_points, write_proof, write_report, write_sheet
from just_plane.frames.proofing import Deep
from just_plane.frames.taking import judged, merger_of, stack_of, write_arrays
from just_plane.pictures.frames_out import proof_jpeg, written
from just_plane.pictures.rows import Picture, RowsFile, pictures_of
from just_plane.pictures.tiles import write_tiles

REPORT, CURVES, MARKS = "report.json", "curves.npz", "marks.json"


def finish(order, needs, out, progress):
    """Write what was found and made; needs what was judged, depth, every share of the proofs, every slab."""
    making = out.with_name(f".tmp-{os.getpid()}-{out.name}")
    shutil.rmtree(making, ignore_errors=True)
    making.mkdir(parents=True)
    try:
        report, curves = judged(needs[0])
        if curves:
            write_arrays(making / CURVES, curves)
        merger = merger_of(order, report)
        intake, _, facts = stack_of(order)
        if merger is not None:
            bands = needs[2 : 2 + order["bands"]]
            stack = (intake, facts, merger)
            report = write_made(making, order["methods"], stack, report, needs[1], bands, progress)
            report = _with_slabs(making, stack, report, order["slabs"], needs[2 + order["bands"] :])
            _write_for_looking(making, order, merger, report, needs[1], bands)
        progress(3, 4, "the sheet")
        write_sheet(making, report, intake)
        write_report(making / REPORT, report)
        if out.is_dir() and not (out / REPORT).exists():
            shutil.rmtree(out)  # somebody took the report out of it: what is left is of no use
        os.replace(making, out)
    except OSError as error:
        if not (out.is_dir() and error.errno in (errno.EEXIST, errno.ENOTEMPTY)):  # another did the same meanwhile
            raise
    finally:
        shutil.rmtree(making, ignore_errors=True)


def _pictures(methods, bands):
    made = [pictures_of(path) for path in bands if path.stat().st_size]
    return {method: Picture([band[place] for band in made]) for place, method in enumerate(methods)} if made else {}


def write_made(folder, methods, stack, report, deep_path, bands, progress=None):
    """Depth, proofs and points.

    Parameters
    ----------
    folder : Path
    methods : sequence of str                Of the proofs.
    stack : (Intake, StackFacts, Merger)
    report : CheckReport
    deep_path : Path                         As the task of depth left it.
    bands : list of Path                     As the tasks of the proofs left them, from the top.
    progress : function or None

    Returns
    -------
    CheckReport                              With what was made.
    """
    intake, facts, merger = stack
    deep = Deep(deep_path)
    progress = progress or _nobody
    progress(0, 4, "depth")
    told = write_depth(folder, report, merger.used, deep.found, deep.filled)
    report = with_depth(report, deep.brush, told)
    pictures = _pictures(methods, bands)
    proofs: list = []
    for method, picture in pictures.items():
        progress(1, 4, f"the proof {len(proofs) + 1} of {len(pictures)}")
        name = write_proof(folder, report, intake, facts, method, picture)
        proofs.append(PictureReport(method=method, file=name))
    if pictures:
        picture = next(iter(pictures.values()))
        write_points(folder, report, facts, merger.used, deep.found, deep.filled, picture)
    return report.model_copy(update={"pictures": proofs})


def _write_for_looking(folder, order, merger, report, deep_path, bands):
    """Every proof as a JPEG and as tiles, and what is drawn over them."""
    deep, pictures = Deep(deep_path), _pictures(order["methods"], bands)
    for method, picture in pictures.items():
        proof_jpeg(folder / f"proof-{method}.jpg", picture)
        write_tiles(folder / f"proof-{method}.tiles", picture)
    marks = marks_of(report, merger.used, deep.found, deep.filled, deep.brush, pictures)
    written(folder / MARKS, lambda to: to.write_text(marks.model_dump_json()))


def _nobody(_done, _count, _name):
    """Nobody looks."""


def write_slabs(folder, stack, report, slabs, scratch):
    """Slabs, made here and now.

    Parameters
    ----------
    folder : Path
    stack : (Intake, StackFacts, Merger)
    report : CheckReport
    slabs : (int, int)          Frames of a slab; shared with the one before.
    scratch : Path

    Returns
    -------
    CheckReport                 With what was made.
    """
    merger, made = stack[2], []
    for place, frames in enumerate(merger.slabs(*slabs)):
        made.append(scratch / f"slab-{place}")
        with RowsFile(made[-1], 1) as file:
            merger.only(frames).pictures(("pyramid",), None, lambda _method, shape, file=file: file.begin(shape))
    return _with_slabs(folder, stack, report, slabs, made)


def _with_slabs(folder, stack, report, slabs, made):
    intake, facts, merger = stack
    told = []
    for place, path in enumerate(made):
        if path.stat().st_size:
            picture = Picture(pictures_of(path))
            name = write_proof(folder, report, intake, facts, f"slab-{place + 1:02d}", picture)
            told.append(SlabReport(file=name, frames=merger.slabs(*slabs)[place]))
    return report.model_copy(update={"slabs": told})
