"""Frames of a run looked at as they come, each beside those before: what can be mended at once is said at once.

Only what two neighbours show: light, a jump of the view, a picture of something else, the same file twice. Steps,
gaps and shake need the whole stack, and are for the check.
"""

import math
import threading
from pathlib import Path
from typing import NamedTuple

import numpy as np

from just_plane.core.frames.check.findings import DEAD_EV
from just_plane.core.frames.check.series import Follower
from just_plane.core.frames.check.similarity import moved
from just_plane.frames.arriving import place_of
from just_plane.frames.camera_notes import NOTHING_ASKED, dark_frame, differs
from just_plane.frames.checking import of_pixels, stack_facts
from just_plane.pictures.frames import FrameFacts, as_float, frame_facts, read_grey, same_pixels
from just_plane.pictures.reading import PictureError

LAST = 5
"""Pairs that say what is usual in this run."""
JUMP_CIRCLES, JUMP_TIMES = 1.2, 4.0
"""A jump of the view is more than so many circles of confusion, and so many times what is usual."""
DRIFT_EV = 0.15
FAR, FAR_TIMES = 3, 2.5
"""A frame focused beside one so many frames back, and so many times nearer to it than to the last, was taken later."""


class Look(NamedTuple):
    """What one frame shows beside those before it."""

    file: str
    light_ev: float | None
    """Against the first frame; None: cannot be told."""
    moved_px: float | None
    """Of the view, from the frame before, pixels of the frame; None: cannot be told."""
    said: str
    """What is wrong with it and what to do, or empty."""


class Watching:
    """The frames of one run, in the order they came."""

    def __init__(self, numbers, settings=NOTHING_ASKED):
        """
        Parameters
        ----------
        numbers : StackNumbers
        settings : Settings      That the plan asks for.
        """
        self._numbers = numbers
        self._settings = settings
        self._first: FrameFacts | None = None
        self._follower: Follower | None = None
        self._reduction = 1
        self._light: list = []
        self._shifts: list = []
        self._pixels: dict = {}
        self._drift_said = 0.0
        self.looks: list = []
        self.later: set = set()
        """Looks at frames that belong beside an earlier one."""

    def look(self, path, name=None, beside=None):
        """Look at the next frame.

        Parameters
        ----------
        path : Path
        name : str or None            Under which it was counted, if it was renamed since.
        beside : (int, Path) or None  The look and picture of an earlier frame, where it belongs beside that one.

        Returns
        -------
        Look
        """
        try:
            found = self._looked(Path(path), beside)
        except PictureError as error:
            found = Look(Path(path).name, None, None, f"{error.message} {error.remedy}")
        found = found._replace(file=name or found.file)
        self.looks.append(found)
        return found

    def _looked(self, path, beside):
        facts = frame_facts(path)
        noted = differs(facts, self._settings, self._first)
        if self._first is not None and len(self.looks) == 1:
            noted = " ".join(filter(None, (noted, dark_frame(self._first, facts, self._settings))))
        self._first = self._first or facts
        found = self._shown(path, facts, beside)
        return found._replace(said=" ".join(filter(None, (found.said, noted))))

    def _shown(self, path, facts, beside):
        if self._follower is None:
            self._numbers = of_pixels(self._numbers, facts.width, facts.pitch_mm)
            stack = stack_facts(self._numbers, facts.width)
            self._reduction = stack.reduction(facts.width)
        picture = read_grey(facts, self._reduction)
        if self._follower is None:
            self._follower = Follower(picture.shape, stack_facts(self._numbers, facts.width), self._reduction)
        if picture.shape != self._follower.shape:
            said = "It has another size than the frames before it. Look what camera sent it."
            return Look(path.name, None, None, said)
        name = same_pixels(picture)
        if name in self._pixels:
            said = f"It is the same picture as {self._pixels[name]}. Take this frame once more."
            return Look(path.name, None, None, said)
        self._pixels[name] = path.name
        before = self._earlier(beside)
        if before is None:
            followed = self._follower.add(len(self.looks), as_float(picture), coarsely=True)
        else:
            self.later.add(len(self.looks))
            followed = self._follower.add_beside(len(self.looks), as_float(picture), *before)
        if followed.laid is None or followed.before is None:
            said = "" if not self._light else "It shows something else than the frames before it. Look at it."
            self._light.append(0.0 if not self._light else math.nan)
            return Look(path.name, self._light[-1] if not said else None, None, said)
        return self._beside(path.name, followed, self._follower, before is not None)

    def _earlier(self, beside):
        """The look and the picture of an earlier frame; None where there is none any more."""
        if beside is None or self._follower is None or beside[0] not in self._follower.frames:
            return None
        try:
            return beside[0], as_float(read_grey(frame_facts(beside[1]), self._reduction))
        except PictureError:
            return None

    def _beside(self, name, followed, follower, later):
        rows, columns = follower.shape
        middle = np.array([[columns / 2, rows / 2]])
        shift = float(np.linalg.norm(moved(followed.laid.similarity, middle)[0] - middle[0]))
        light = self._light[followed.before] + followed.light_ev if followed.before < len(self._light) else math.nan
        recent = [value for value in self._light[-LAST:] if math.isfinite(value)]
        said = ""
        if recent and light - float(np.median(recent)) < DEAD_EV:
            stops = float(np.median(recent)) - light
            said = f"It is {stops:.1f} stops darker than those before it: the light did not come. Take it once more."
        elif not later and self._jumped(shift, follower.circle_px):
            said = (
                f"The view jumped by {shift * self._reduction:.0f} px. Stop: look what was knocked. "
                "If the subject moved, begin again; if only the camera did, go on."
            )
        elif recent and abs(light) > self._drift_said + DRIFT_EV and abs(light - recent[-1]) < DRIFT_EV / 2:
            self._drift_said = abs(light)
            said = f"The light has drifted by {light:+.2f} stops since the first frame. Let lamps warm up."
        self._light.append(light)
        if not later:
            self._shifts.append(shift)
        return Look(
            name,
            round(light, 3) if math.isfinite(light) else None,
            None if later else round(shift * self._reduction, 1),
            said,
        )

    def _jumped(self, shift, circle_px):
        usual = float(np.median(self._shifts[-LAST:])) if len(self._shifts) >= 2 else math.inf
        return shift > JUMP_CIRCLES * circle_px and shift > JUMP_TIMES * usual


class Watchings:
    """The runs that a server looks at as they come; what it forgets it looks at again."""

    KEPT = 4
    AT_ONCE = 3
    """Frames that one question waits for."""

    def __init__(self):
        self._runs: dict = {}
        self._lock = threading.Lock()

    def looks(self, run_id, numbers, folder, files, settings=NOTHING_ASKED, focuses_mm=()):
        """Looks at the frames of a run so far.

        Parameters
        ----------
        run_id : str
        numbers : StackNumbers
        folder : str or Path
        files : list of Counted   In the order in which they were taken.
        settings : Settings       That the plan asks for.
        focuses_mm : sequence     Of the plan's frames; without them each frame is looked at beside the last.

        Returns
        -------
        (list of Look, bool)  And whether more are to come: ask again.
        """
        with self._lock:
            watching = self._runs.pop(run_id, None) or Watching(numbers, settings)
            if [look.file for look in watching.looks] != [each.name for each in files[: len(watching.looks)]]:
                watching = Watching(numbers, settings)
            while len(self._runs) >= self.KEPT:
                self._runs.pop(next(iter(self._runs)))
            self._runs[run_id] = watching
            for place, each in list(enumerate(files))[len(watching.looks) :][: self.AT_ONCE]:
                near = _nearest(files[:place], each, focuses_mm, watching.later)
                beside = None if near is None else (near, place_of(folder, files[near].name, files[near].sha256))
                watching.look(place_of(folder, each.name, each.sha256), each.name, beside)
            return list(watching.looks), len(watching.looks) < len(files)


def _nearest(before, this, focuses_mm, later):
    """Of the frames before, that beside which one belongs, where that is not the last: its place in the order taken."""
    if not before or any(one.frame >= len(focuses_mm) for one in (*before, this)):
        return None
    away = [abs(focuses_mm[one.frame] - focuses_mm[this.frame]) for one in before]
    near, last = int(np.argmin(away)), max(place for place in range(len(before)) if place not in later)
    return near if away[last] > FAR_TIMES * away[near] and (near in later or last - near >= FAR) else None
