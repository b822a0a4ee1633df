"""The command line: ``just-plane plan``, ``check``, ``merge``, ``serve``, ``demo`` and the rest.

Every command brings its own parser; what only one of them needs is imported when it runs, so that `plan` starts soon.
"""

import argparse
import sys

from just_plane import __version__
from just_plane.cli import copies, plan, ruler, serving
from just_plane.contract.json_file import FileError
from just_plane.drive import commands as drive
from just_plane.frames import commands as frames
from just_plane.frames import trial_commands as trials
from just_plane.jobs import host_commands as hosts
from just_plane.store.errors import StoreError

COMMANDS = (plan, ruler, serving, copies, frames, drive, trials, hosts)
"""In the order in which help lists them."""


def main(arguments=None):
    """Entry point; returns the exit status: 0 done, 1 refused, 2 bad usage."""
    options = _parser().parse_args(arguments)
    try:
        return options.run(options)
    except FileError as error:
        where = f" at {error.field}" if error.field else ""
        print(f"just-plane: {error.message}{where} {error.remedy}", file=sys.stderr)
    except StoreError as error:
        print(f"just-plane: {error.message} {error.remedy}", file=sys.stderr)
    return 1


def _parser():
    parser = argparse.ArgumentParser(
        prog="just-plane",
        description="Plans close-up photographs: size, effective aperture, depth of field, focus stacks.",
    )
    parser.add_argument("--version", action="version", version=f"just-plane {__version__}")
    commands = parser.add_subparsers(title="commands", required=True, metavar="COMMAND")
    for each in COMMANDS:
        each.add_commands(commands)
    return parser
