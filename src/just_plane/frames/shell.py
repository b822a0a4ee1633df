"""A stack from the shell, with the verdict as exit status."""

import json
import sys
import tempfile
from pathlib import Path

from pydantic import ValidationError

from just_plane.contract.check import CheckReport
from just_plane.contract.json_file import FileError
from just_plane.contract.run_file import FORMAT as RUN_FORMAT
from just_plane.contract.run_file import read_run
from just_plane.contract.shot_file import read_shot
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.contract.words import first_problem
from just_plane.frames.checking import check_intake, stack_facts
from just_plane.frames.finishing import write_made, write_slabs
from just_plane.frames.intake import FolderError, take_in
from just_plane.frames.merging import METHODS, Merger
from just_plane.frames.outputs import write_report, write_sheet
from just_plane.frames.proofing import Deep, keep_depth
from just_plane.pictures.frames_out import WriteError
from just_plane.pictures.reading import PictureError
from just_plane.pictures.rows import RowsFile
from just_plane.planning.stack_numbers import stack_numbers

MAY_COME_DOWN, MAY_NOT, BAD_INPUT = 0, 3, 2
LARGEST_PLAN = 10_000_000


def check(options):
    """Check a folder; the exit status is the verdict."""
    return _guarded(_check, options)


def merge(options):
    """Merge a folder; 0 when it was done."""
    return _guarded(_merge, options)


def _guarded(run, options):
    try:
        return run(options)
    except (FolderError, FileError, PictureError, WriteError) as error:
        print(f"just-plane: {error.message} {error.remedy}".rstrip(), file=sys.stderr)
    except MemoryError:
        print("just-plane: there is not enough memory for frames of this size.", file=sys.stderr)
    return BAD_INPUT


def _check(options):
    numbers = _numbers(options.plan, options.units)
    intake = take_in(options.folder)
    report, _ = check_intake(intake, numbers, progress("checked"), _put_back(options, intake))
    if options.out is not None:
        if not options.quick and len([frame for frame in report.frames if frame.used]) >= 2:
            facts = stack_facts(numbers, report.width_px)
            stack = (intake, facts, Merger(intake, report, facts))
            report = _merged(options.out.parent, stack, report, ())
        write_report(options.out, report)
    _tell(report)
    return MAY_COME_DOWN if report.verdict.may_come_down else MAY_NOT


def _merge(options):
    if options.slabs and not 0 <= options.shared < options.slabs:
        raise FolderError(
            f"Slabs of {options.slabs} frames cannot share {options.shared}.", "Give --shared fewer, from 0 on."
        )
    numbers = _numbers(options.plan, options.units)
    intake = take_in(options.folder)
    report = _report(options.check, intake) if options.check else None
    if report is None:
        report, _ = check_intake(intake, numbers, progress("checked"), _put_back(options, intake))
    elif options.plan is None:
        numbers = report.plan
    if len([frame for frame in report.frames if frame.used]) < 2:
        raise FolderError("There are no two frames that can be merged.", report.verdict.answer)
    facts = stack_facts(numbers, report.width_px)
    options.out.mkdir(parents=True, exist_ok=True)
    methods = METHODS if options.method == "all" else (options.method,)
    slabs = (options.slabs, options.shared) if options.slabs else None
    report = _merged(options.out, (intake, facts, Merger(intake, report, facts)), report, methods, slabs)
    write_sheet(options.out, report, intake)
    write_report(options.out / f"{report.name}-check.json", report)
    for made in (*report.pictures, *report.slabs):
        print(options.out / made.file)
    return 0


def _merged(folder, stack, report, methods, slabs=None):
    """Depth, proofs and slabs into a folder, by the same functions as jobs; here one after the other."""
    merger = stack[2]
    with tempfile.TemporaryDirectory(dir=folder, prefix=".tmp-") as scratch:
        deep, rows = Path(scratch) / "depth", Path(scratch) / "rows"
        keep_depth(deep, merger, merger.focus(None, progress("depth")))
        bands = []
        if methods:
            with RowsFile(rows, len(methods)) as file:
                filled = Deep(deep).filled
                merger.pictures(methods, filled, lambda _method, shape: file.begin(shape), None, progress("merged"))
            bands.append(rows)
        report = write_made(folder, methods, stack, report, deep, bands)
        return write_slabs(folder, stack, report, slabs, Path(scratch)) if slabs else report


def _put_back(options, intake):
    unknown = [name for name in options.put_back if name not in intake.names]
    if unknown:
        raise FolderError(f"There is no frame {unknown[0]} in {intake.folder}.", "Give --put-back a name as listed.")
    return options.put_back


def _numbers(path, units):
    """The numbers of a stack from a shot file, a run file, a report, or JSON of its own, said in ``units`` if any."""
    numbers = _numbers_of(path)
    return numbers if units is None else numbers.model_copy(update={"units": units})


def _numbers_of(path):
    if path is None:
        return StackNumbers()
    try:
        content = sys.stdin.buffer.read(LARGEST_PLAN) if str(path) == "-" else path.read_bytes()
    except OSError as error:
        raise FileError(f"{path}: {error.strerror}.", "Give the file of the shot, or leave --plan out.") from error
    try:
        document = json.loads(content)
    except (ValueError, RecursionError) as error:
        raise FileError(f"{path} is no JSON.", "Give a shot file, or the numbers of the stack.") from error
    if isinstance(document, dict) and document.get("format") == RUN_FORMAT:
        return read_run(content).numbers
    if isinstance(document, dict) and "format" in document:
        return stack_numbers(read_shot(content))
    if isinstance(document, dict) and "plan" in document and "verdict" in document:
        document = document["plan"]
    try:
        return StackNumbers.model_validate(document, strict=False)
    except ValidationError as error:
        problem = first_problem(error)
        raise FileError(problem.message, f"Mend {path} at {problem.field}.", problem.field) from error


def _report(path, intake):
    try:
        report = CheckReport.model_validate_json(path.read_bytes())
    except OSError as error:
        raise FileError(f"{path}: {error.strerror}.", "Run check again.") from error
    except ValidationError as error:
        raise FileError(f"{path} is no report of a check.", "Give the file that check wrote.") from error
    if [frame.file for frame in report.frames] != intake.names:
        raise FileError(f"{path} is of other frames than are in {intake.folder} now.", "Run check again.")
    return report


def progress(word):
    """Words on a terminal while frames are gone through; None where nobody looks."""
    if not sys.stderr.isatty():
        return None

    def show(done, count, name):
        print(f"\r{word} {done + 1} of {count}  {name[:40]:40}", end="", file=sys.stderr, flush=True)
        if done + 1 == count:
            print(file=sys.stderr)

    return show


def _tell(report):
    print(report.verdict.answer)
    if report.verdict.action:
        print(report.verdict.action)
    for one in report.findings:
        print(f"- {one.message} {one.remedy}")
    for sentence in (*report.against_plan, *report.not_judged):
        print(f"- {sentence}")
