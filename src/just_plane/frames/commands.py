"""``just-plane check`` and ``just-plane merge``: what they take. The work is imported when it is asked for."""

import argparse
from pathlib import Path

LEAST_OF_A_SLAB, MOST_OF_A_SLAB = 4, 100
METHODS = ("depth", "pyramid", "windowed")


def add_commands(commands):
    """Add both to a parser's sub-commands.

    Parameters
    ----------
    commands : object   As ``ArgumentParser.add_subparsers`` gives it.
    """
    check = commands.add_parser(
        "check",
        help="look through the frames of a stack: can the set come down?",
        description="Measure every frame of a folder and say what is missing. Exit status 0: the set may come down, "
        "3: it may not, 2: the folder or the plan cannot be used.",
    )
    check.add_argument("folder", metavar="FOLDER", type=Path, help="the folder that the frames are in")
    _plan(check)
    check.add_argument("--out", metavar="REPORT.json", type=Path, help="write the report there, a depth map beside it")
    check.add_argument("--quick", action="store_true", help="without the depth map: each frame is unpacked once")
    _put_back(check)
    check.set_defaults(run=_check)

    merge = commands.add_parser(
        "merge",
        help="merge the frames of a stack into a proof",
        description="Make one sharp picture to decide by, a depth map in mm, points and a contact sheet.",
    )
    merge.add_argument("folder", metavar="FOLDER", type=Path, help="the folder that the frames are in")
    _plan(merge)
    merge.add_argument("--check", metavar="REPORT.json", type=Path, help="a report that check wrote; else it is made")
    merge.add_argument("--method", choices=(*METHODS, "all"), default="windowed", help="how (windowed)")
    merge.add_argument("--slabs", metavar="N", type=_slab, help="slabs of so many frames besides, each by itself")
    merge.add_argument("--shared", metavar="N", type=int, default=2, help="frames that slabs share (2)")
    merge.add_argument("--out", metavar="FOLDER", type=Path, required=True, help="folder to write to; made if missing")
    _put_back(merge)
    merge.set_defaults(run=_merge)


def _plan(parser):
    parser.add_argument(
        "--plan",
        metavar="FILE.json",
        type=Path,
        help="a shot or run file, or the numbers of the stack as JSON; - reads stdin",
    )
    parser.add_argument("--units", choices=("mm", "in"), help="how sentences speak of lengths (as the plan; else mm)")


def _put_back(parser):
    parser.add_argument(
        "--put-back", metavar="NAME", action="append", default=[], help="use this frame though it would be left out"
    )


def _slab(text):
    frames = int(text)
    if not LEAST_OF_A_SLAB <= frames <= MOST_OF_A_SLAB:
        raise argparse.ArgumentTypeError(f"a slab has {LEAST_OF_A_SLAB} to {MOST_OF_A_SLAB} frames")
    return frames


def _check(options):
    from just_plane.frames.shell import check

    return check(options)


def _merge(options):
    from just_plane.frames.shell import merge

    return merge(options)
