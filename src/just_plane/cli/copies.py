"""``just-plane backup`` and ``just-plane restore``: one file that holds everything, and back."""

import sys
from pathlib import Path

from just_plane.store.places import FILE, own_folder


def add_commands(commands):
    """Add both to a parser's sub-commands.

    Parameters
    ----------
    commands : object   As ``ArgumentParser.add_subparsers`` gives it.
    """
    backup = commands.add_parser(
        "backup",
        help="copy your data file, sound whatever is being written",
        description="Write one file that holds all shots and the kit, with their history; the server may be running.",
    )
    backup.add_argument("copy", metavar="COPY.sqlite3", type=Path, help="file to write")
    _folder(backup)
    backup.set_defaults(run=_backup)

    restore = commands.add_parser(
        "restore",
        help="put a copy back in the place of your data file",
        description="The data file there is now is set aside, not deleted. Stop the server first.",
    )
    restore.add_argument("copy", metavar="COPY.sqlite3", type=Path, help="a copy that backup made, or a daily one")
    _folder(restore)
    restore.set_defaults(run=_restore)


def _folder(parser):
    parser.add_argument("--data", metavar="DIR", type=Path, default=own_folder(), help="data folder (%(default)s)")


def _backup(options):
    from just_plane.store.copies import copy_to

    database = options.data / FILE
    if not database.exists():
        print(f"just-plane: there is no data file {database}. Choose the folder with --data.", file=sys.stderr)
        return 1
    copy_to(database, options.copy)
    print(f"{options.copy}: all shots and the kit of {database.parent}")
    return 0


def _restore(options):
    from just_plane.store.copies import restore

    folder = options.data
    folder.mkdir(parents=True, exist_ok=True)
    away = restore(folder / FILE, options.copy)
    print(f"{folder / FILE} is {options.copy} now" + (f"; what was there is {away.name}" if away else ""))
    return 0
