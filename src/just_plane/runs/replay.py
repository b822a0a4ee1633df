"""Where a run stands: its events gone through once, from the first."""

from typing import NamedTuple

from just_plane.contract.run import Devices, RunPlan, WhiteBalance
from just_plane.runs.steps import added_steps


class RefusedEventError(ValueError):
    """A press that does not fit where the run stands; ``message`` and ``remedy`` are sentences."""

    def __init__(self, message, remedy):
        super().__init__(f"{message} {remedy}")
        self.message = message
        self.remedy = remedy


class Stand(NamedTuple):
    """Where a run stands."""

    plan: RunPlan
    """With the frames that were added."""
    state: str
    """running, paused, stopped or finished."""
    times_taken: tuple
    """By frame."""
    skipped: frozenset
    folder: str | None = None
    known: frozenset = frozenset()
    """Names in that folder that are counted, or were there before."""
    files: tuple = ()
    """By frame: name, or None."""
    contents: tuple = ()
    """By frame: SHA-256 of that picture when it was counted, or None."""
    devices: Devices = Devices()
    set_frame: int | None = None
    """That the rail stands for; whether it was taken is not known."""
    reading: float | None = None
    """Of the rail, mm, the last that was noted."""
    trouble: str = ""
    white: WhiteBalance | None = None

    @property
    def next_frame(self):
        """The frame to take: the first that was neither taken nor skipped; None when none is left."""
        if self.state == "stopped":
            return None
        for frame, times in enumerate(self.times_taken):
            if not times and frame not in self.skipped:
                return frame
        return None


def replay(plan, events):
    """Go through the events of a run.

    Parameters
    ----------
    plan : RunPlan             As the run was made.
    events : list of RunEvent  In the order they came.

    Returns
    -------
    Stand

    Raises
    ------
    RefusedEventError   An event that does not fit.
    """
    stand = Stand(plan, "running", (0,) * len(plan.steps), frozenset(), files=(None,) * len(plan.steps))
    stand = stand._replace(contents=stand.files)
    for event in events:
        stand = after(stand, event)
    return stand


def after(stand, event):
    """Where a run stands after one more event.

    Parameters
    ----------
    stand : Stand
    event : RunEvent

    Returns
    -------
    Stand

    Raises
    ------
    RefusedEventError
    """
    if event.kind == "devices":
        return stand._replace(devices=event.devices or Devices())
    if event.kind == "watching":
        return stand._replace(folder=event.folder, known=frozenset(event.there_before))
    if event.kind == "grey":
        return stand._replace(white=event.white)
    if event.kind == "passed":
        return stand._replace(known=stand.known | set(event.there_before))
    if event.kind == "added":
        return _with_added(stand, event)
    if stand.state == "stopped":
        raise RefusedEventError("This run was stopped.", "Begin another run of the shot.")
    if event.kind == "stopped":
        return stand._replace(state="stopped")
    if event.kind == "paused":
        return stand._replace(state="paused") if stand.state == "running" else stand
    if event.kind == "went_on":
        return stand._replace(state="running", trouble="") if stand.state == "paused" else stand
    if event.kind == "trouble":
        return stand._replace(state="paused", trouble=event.words) if stand.state == "running" else stand
    return _of_a_frame(stand, event)


def _with_added(stand, event):
    if not event.focuses_mm:
        raise RefusedEventError("No frames were named.", "Say where to focus them.")
    plan = stand.plan.model_copy(update={"steps": [*stand.plan.steps, *added_steps(stand.plan, event.focuses_mm)]})
    more = len(event.focuses_mm)
    return stand._replace(
        plan=plan,
        state="running",
        times_taken=stand.times_taken + (0,) * more,
        files=stand.files + (None,) * more,
        contents=stand.contents + (None,) * more,
    )


def _of_a_frame(stand, event):
    frame = event.frame
    if frame is None or frame >= len(stand.times_taken):
        raise RefusedEventError(
            f"There is no such frame: the run has {len(stand.times_taken)}.", "Look at where the run stands."
        )
    if event.kind == "set":
        return stand._replace(set_frame=frame, reading=event.reading_mm)
    if event.kind == "skipped":
        if stand.times_taken[frame]:
            raise RefusedEventError(f"Frame {frame + 1} was taken already.", "Go on with the next.")
        return _settled(stand._replace(skipped=stand.skipped | {frame}))
    if event.kind == "retake":
        return _to_be_retaken(stand, frame)
    if event.kind == "once_more" and not stand.times_taken[frame]:
        raise RefusedEventError(f"Frame {frame + 1} was not taken yet.", "Take it first.")
    if event.kind == "taken" and frame != stand.next_frame:
        raise RefusedEventError(
            f"Frame {frame + 1} is not the next one.", "Another window may have counted it: look where the run stands."
        )
    if event.file is not None:
        if event.file in stand.known:
            raise RefusedEventError(f"{event.file} is counted already.", "Look where the run stands.")
        files = (*stand.files[:frame], event.file, *stand.files[frame + 1 :])
        contents = (*stand.contents[:frame], event.sha256, *stand.contents[frame + 1 :])
        stand = stand._replace(files=files, contents=contents, known=stand.known | {event.file, *event.there_before})
    taken = list(stand.times_taken)
    taken[frame] += 1
    stand = stand._replace(set_frame=None, trouble="")
    return _settled(stand._replace(times_taken=tuple(taken), state="running", skipped=stand.skipped - {frame}))


def _to_be_retaken(stand, frame):
    """A frame that devices take again: it is the next one, and the picture that it was is none of the run."""
    if not stand.times_taken[frame]:
        raise RefusedEventError(f"Frame {frame + 1} was not taken yet.", "Take it first.")
    taken = list(stand.times_taken)
    taken[frame] = 0
    files = (*stand.files[:frame], None, *stand.files[frame + 1 :])
    contents = (*stand.contents[:frame], None, *stand.contents[frame + 1 :])
    state = "running" if stand.state == "finished" else stand.state
    return stand._replace(
        times_taken=tuple(taken), files=files, contents=contents, set_frame=None, trouble="", state=state
    )


def _settled(stand):
    return stand._replace(state="finished") if stand.next_frame is None else stand
