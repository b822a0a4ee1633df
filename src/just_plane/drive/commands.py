"""``just-plane run``: a shot's stack by the simulated rail and camera, from the shell."""

import sys
from datetime import UTC, datetime
from pathlib import Path

BAD_INPUT, TROUBLE, DONE = 2, 3, 0
MOST_RESTARTS = 3
"""Of a run that stands still: somebody mends what was said, and goes on."""


def add_commands(commands):
    """Add it to a parser's sub-commands.

    Parameters
    ----------
    commands : object   As ``ArgumentParser.add_subparsers`` gives it.
    """
    run = commands.add_parser(
        "run",
        help="run a shot's stack with the simulated rail and camera",
        description="Photograph the stack of a shot file with the simulated rail and camera, into a folder. "
        "Exit status 0: every frame was taken, 3: there was trouble, 2: the shot has no stack.",
    )
    run.add_argument("shot", metavar="SHOT.json", type=Path, help="a shot file; - reads standard input")
    run.add_argument("--simulated", action="store_true", help="with the simulated devices; no others are there yet")
    run.add_argument("--out", metavar="FOLDER", type=Path, required=True, help="folder for the frames and the run")
    run.add_argument("--way", metavar="ID", help="the way to run: rail or ring (the one decided on)")
    run.add_argument("--fault", metavar="NAME", action="append", default=[], help="what may go wrong; may be repeated")
    run.add_argument("--raw", action="store_true", help="a linear DNG beside each JPEG")
    run.add_argument("--seed", metavar="N", type=int, default=1, help="of all that is left to chance (1)")
    run.set_defaults(run=_run)


def _run(options):
    from just_plane.contract.json_file import FileError

    try:
        return _simulate(options)
    except (FileError, _RefusedError) as error:
        print(f"just-plane: {error}".rstrip(), file=sys.stderr)
    return BAD_INPUT


class _RefusedError(ValueError):
    pass


def _simulate(options):
    from pydantic import ValidationError

    from just_plane.contract.run import Devices, RunEvent
    from just_plane.contract.run_file import DoneEvent, RunFile
    from just_plane.contract.shot_file import read_shot
    from just_plane.contract.words import first_problem
    from just_plane.devices.clock import FastClock
    from just_plane.drive.driver import Driver
    from just_plane.drive.journal import MemoryJournal
    from just_plane.drive.simulated import NoSetError, simulated
    from just_plane.pictures.frames_out import written
    from just_plane.planning.pictures.made_set import made_set
    from just_plane.planning.plan import plan_shot
    from just_plane.planning.setup.rail_marks import knob_of
    from just_plane.planning.ways.step_table import step_rows
    from just_plane.runs.steps import run_plan

    if not options.simulated:
        raise _RefusedError("Only the simulated devices can be driven. Give --simulated.")
    try:
        content = sys.stdin.buffer.read() if str(options.shot) == "-" else options.shot.read_bytes()
        devices = Devices(
            rail="simulated", camera="simulated", faults=options.fault, raw_too=options.raw, seed=options.seed
        )
    except OSError as error:
        raise _RefusedError(f"{options.shot}: {error.strerror}.") from error
    except ValidationError as error:
        raise _RefusedError(f"--fault: {first_problem(error).message}") from error
    shot = read_shot(content)
    made = made_set(shot, options.way)
    if isinstance(made, str):
        raise _RefusedError(made)
    plan = plan_shot(shot)
    wanted = options.way or shot.chosen_way
    stacks = [way for way in plan.ways if way.stack is not None and way.kind in ("rail", "ring")]
    way = next((each for each in stacks if each.id == wanted), None) or min(stacks, key=lambda each: each.rank)
    rows = step_rows(way, plan.reach.magnification, shot.plane.rail_counts, knob=knob_of(shot.stack))
    if options.out.is_dir() and any(options.out.iterdir()):
        raise _RefusedError(f"{options.out} is not empty. Give a folder of its own for the frames.")
    journal = MemoryJournal(run_plan(shot, plan, way, rows), _progress())
    journal.tell(RunEvent(kind="devices", devices=devices))
    options.out.mkdir(parents=True, exist_ok=True)
    journal.tell(RunEvent(kind="watching", folder=str(options.out.resolve())))
    started, trouble = _now(), []
    for _ in range(MOST_RESTARTS + 1):
        try:
            bench = simulated(shot, journal.stand(), options.out)
        except NoSetError as error:
            raise _RefusedError(error.message) from error
        Driver(journal, bench, FastClock(), lambda: False).run()
        stand = journal.stand()
        if stand.state != "paused":
            break
        trouble.append(stand.trouble)
        print(f"\njust-plane: {stand.trouble}", file=sys.stderr)
        journal.tell(RunEvent(kind="went_on"))
    file = RunFile(
        name=shot.name,
        plan=journal.stand().plan,
        numbers=made.numbers,
        started_at=started,
        events=[DoneEvent(at=started, event=event) for event in journal.events],
    )
    written(options.out / "run.json", lambda to: to.write_text(file.model_dump_json(indent=1)))
    done = journal.stand().state == "finished"
    print(f"{sum(1 for times in journal.stand().times_taken if times)} frames in {options.out}")
    return DONE if done and not trouble else TROUBLE


def _now():
    return datetime.now(UTC).isoformat(timespec="milliseconds")


def _progress():
    if not sys.stderr.isatty():
        return None

    def show(done, count, name):
        bar = "#" * (30 * done // count)
        print(f"\r[{bar:30}] {done} of {count}  {name or ''}", end="", file=sys.stderr, flush=True)
        if done == count:
            print(file=sys.stderr)

    return show
