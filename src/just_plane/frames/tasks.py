"""What long work is made of: functions of an order, of files that others left, and of one file that is to be.

Each can be done by any process that sees the folders, twice or in any order that its needs allow: what it leaves has
the same bytes, and is there whole or not at all. None knows a server, a data file or a clock.
"""

import json
from contextlib import contextmanager
from pathlib import Path

import cv2

from just_plane.frames.finishing import REPORT, finish
from just_plane.frames.intake import FolderError
from just_plane.frames.proofing import depth, focus, merge, slab
from just_plane.frames.taking import judge_task, measure_task, trial_task
from just_plane.pictures.frames_out import WriteError, written
from just_plane.pictures.reading import PictureError

TASKS = {
    "measure": (measure_task, "Measuring"),
    "judge": (judge_task, "Judging"),
    "focus": (focus, "Finding depth in"),
    "depth": (depth, "Filling in depth"),
    "merge": (merge, "Merging"),
    "slab": (slab, "Merging slabs:"),
    "finish": (finish, "Writing"),
    "trial": (trial_task, "Measuring"),
}
"""Kind of work: its function, and the word for it."""


class WorkError(Exception):
    """Work that cannot be done, in words; it is not tried again."""

    def __init__(self, message, remedy):
        super().__init__(message, remedy)
        self.message = message
        self.remedy = remedy


class StoppedError(Exception):
    """Somebody asked for the work to stop."""


def do_task(kind, order_json, needs, out, scratch, key):
    """Do one piece of work.

    Parameters
    ----------
    kind : str            Of TASKS.
    order_json : str      What it is about; see the function of its kind.
    needs : list of str   Files that the work it rests on left, in order; the first, of all but trials, tells the stack.
    out : str             The file (of ``finish`` the folder) to make; nothing is done where it is.
    scratch : str         A folder for progress (written) and ``stop`` (looked for between frames).
    key : str             Name of this piece there.

    Raises
    ------
    WorkError     The frames cannot be used, or the disk refused.
    StoppedError  ``stop`` appeared.
    """
    work, word = TASKS[kind]
    with _told():
        if (Path(out) / REPORT if kind == "finish" else Path(out)).exists():
            return
        cv2.setNumThreads(1)
        Path(out).parent.mkdir(parents=True, exist_ok=True)
        progress = _progress(Path(scratch), key, word)
        order, files = json.loads(order_json), [Path(need) for need in needs]
        if files:
            order |= json.loads(files.pop(0).read_text())
        work(order, files, Path(out), progress)


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


def _progress(scratch, key, word):
    def told(done, count, name):
        if (scratch / "stop").exists():
            raise StoppedError
        content = json.dumps({"share": done / max(count, 1), "words": f"{word} {name}".strip()})
        written(scratch / f"{key}.progress", lambda to: to.write_text(content))

    return told
