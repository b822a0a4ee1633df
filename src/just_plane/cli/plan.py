"""``just-plane plan``: a shot file's plan as JSON."""

import sys


def add_commands(commands):
    """Add it to a parser's sub-commands.

    Parameters
    ----------
    commands : object   As ``ArgumentParser.add_subparsers`` gives it.
    """
    plan = commands.add_parser(
        "plan",
        help="print the plan of a shot file as JSON",
        description="Read a shot file and print its plan as JSON. Exit status 1 when the file is refused.",
    )
    plan.add_argument("shot", metavar="SHOT.json", help="a shot file; - reads standard input")
    plan.add_argument("--units", choices=("mm", "in"), default="mm", help="how sentences speak of lengths (mm)")
    plan.set_defaults(run=_plan)


def _plan(options):
    from just_plane.contract.shot_file import LARGEST_BYTES, read_shot
    from just_plane.planning.plan import plan_shot

    if options.shot == "-":
        content = sys.stdin.buffer.read(LARGEST_BYTES + 1)
    else:
        try:
            with open(options.shot, "rb") as file:
                content = file.read(LARGEST_BYTES + 1)
        except OSError as error:
            print(f"just-plane: {options.shot}: {error.strerror}", file=sys.stderr)
            return 1
    print(plan_shot(read_shot(content), options.units).model_dump_json(indent=2))
    return 0
