"""``just-plane trial``: gear measured from a folder of photographs."""

import sys
from pathlib import Path

BAD_INPUT, REFUSED, DONE = 2, 3, 0
KINDS = {
    "stops": "the best stop of a lens: two frames at each stop of a flat, printed target",
    "steps": "how far a step goes: a stack on a slanted, printed surface",
    "backlash": "the play of a rail: such a stack forward, then the same readings back",
    "calm": "how soon a rail is calm: a burst of short exposures right after one move",
    "stillness": "the longest shutter that stays sharp: frames at several times",
    "sway": "how much a hand sways: a burst of thirty frames of a slanted, printed surface",
    "dark": "whether long exposures take twice as long: a burst at 1, 2 and 4 s",
}


def add_commands(commands):
    """Add it to a parser's sub-commands.

    Parameters
    ----------
    commands : object   As ``ArgumentParser.add_subparsers`` gives it.
    """
    trial = commands.add_parser(
        "trial",
        help="measure gear from photographs",
        description="Measure gear from a folder of photographs. Exit status 0: measured, 3: refused, with the reason, "
        "2: the folder or the numbers cannot be used.",
    )
    kinds = trial.add_subparsers(title="what to measure", required=True, metavar="WHAT")
    for kind, words in KINDS.items():
        one = kinds.add_parser(kind, help=words, description=f"Measure {words}.")
        one.add_argument("folder", metavar="FOLDER", type=Path, help="the folder that the frames are in")
        one.add_argument("--name", default="", help="of the lens or rail")
        one.add_argument("--out", metavar="RESULT.json", type=Path, help="write the result there")
        one.add_argument("--json", action="store_true", help="print the result as JSON")
        if kind in ("stops", "steps", "calm", "stillness", "sway"):
            one.add_argument("--magnification", metavar="M", type=float, help="size on the sensor")
            one.add_argument("--pixel-pitch-mm", metavar="MM", type=float, help="of the frames as they are")
        if kind == "stops":
            one.add_argument("--target", choices=("texture", "edge"), default="texture", help="what was photographed")
            one.add_argument("--stops", metavar="N,N,...", default="", help="in the order of the frames")
            one.add_argument("--c-mm", metavar="MM", type=float, help="circle of confusion")
            one.add_argument("--pupil-magnification", metavar="P", type=float, default=1.0, help="of the lens (1)")
        if kind in ("steps", "sway"):
            one.add_argument("--angle-deg", metavar="DEG", type=float, default=30.0, help="surface to axis (30)")
        if kind == "calm":
            one.add_argument("--interval-s", metavar="S", type=float, help="between frames, where the files do not say")
            one.add_argument("--c-mm", metavar="MM", type=float, help="circle of confusion")
        if kind == "steps":
            one.add_argument("--tick-mm", metavar="MM", type=float, help="ticks of a ruler that lies there")
            one.add_argument("--tick-px", metavar="PX", type=float, help="the same ticks as seen in a frame")
            one.add_argument("--per-step", metavar="N", type=float, default=1.0, help="units a step (1)")
            one.add_argument("--unit", default="step", help="what those are called (step)")
        if kind == "backlash":
            one.add_argument("--step-mm", metavar="MM", type=float, required=True, help="by the rail")
        one.set_defaults(run=_trial, kind=kind)


def _trial(options):
    from pydantic import ValidationError

    from just_plane.contract.trial import TrialAsked
    from just_plane.contract.words import first_problem
    from just_plane.frames.intake import FolderError
    from just_plane.frames.shell import progress
    from just_plane.frames.trials import run_trial
    from just_plane.pictures.frames_out import WriteError, written

    known = {name: value for name, value in vars(options).items() if value is not None}
    given = {name: value for name, value in known.items() if name in TrialAsked.model_fields}
    try:
        stops = [float(part) for part in getattr(options, "stops", "").split(",") if part.strip()]
        asked = TrialAsked(**given | {"folder": str(options.folder), "f_numbers": stops})
        result = run_trial(asked, progress("read"))
    except ValidationError as error:
        problem = first_problem(error)
        return _said(f"{problem.field.strip('/').replace('_', '-')}: {problem.message}")
    except ValueError as error:
        if isinstance(error, FolderError):
            return _said(f"{error.message} {error.remedy}")
        return _said(f"--stops: {error}. Give f-numbers with commas between.")
    if options.out is not None:
        try:
            written(options.out, lambda to: to.write_text(result.model_dump_json(indent=1)))
        except WriteError as error:
            return _said(f"{error.message} {error.remedy}")
    if options.json:
        print(result.model_dump_json(indent=1))
    else:
        print(result.sentence)
        for warning in result.warnings:
            print(f"- {warning}")
        for frame in result.frames:
            print(f"- {frame.file}: {frame.problem}")
    return REFUSED if result.refused else DONE


def _said(words):
    print(f"just-plane: {words}", file=sys.stderr)
    return BAD_INPUT
