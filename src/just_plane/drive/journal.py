"""The run that a driver writes to: in the data file, or in memory for the shell."""

import uuid
from pathlib import Path

from just_plane.contract.run import RunEvent, RunPlan
from just_plane.frames.arriving import Counted, arrived
from just_plane.pictures.fingerprint import fingerprint
from just_plane.runs.replay import after, replay
from just_plane.store.errors import ConflictError

MOST_RACES = 20


def stand_of(run):
    """Where a kept run stands.

    Parameters
    ----------
    run : store.runs.Run

    Returns
    -------
    Stand
    """
    events = [RunEvent.model_validate_json(event) for _, event in run.events]
    return replay(RunPlan.model_validate_json(run.plan_json), events)


def in_order_taken(run):
    """Pictures of a kept run in the order in which they were taken, each where it was taken last.

    Parameters
    ----------
    run : store.runs.Run

    Returns
    -------
    list of Counted
    """
    events = [RunEvent.model_validate_json(event) for _, event in run.events]
    return [
        Counted(event.frame, event.file, event.sha256)
        for event in events
        if event.kind in ("taken", "once_more") and event.file is not None and event.frame is not None
    ]


def with_content(event, folder):
    """The event with the content of its picture as it is now, whatever was sent.

    Parameters
    ----------
    event : RunEvent
    folder : str or None   That the run watches.

    Returns
    -------
    RunEvent
    """
    content = None
    if event.file is not None and folder:
        try:
            content = fingerprint(Path(folder) / event.file)
        except (OSError, ValueError):  # gone, or no name of a file
            content = None
    return event if content == event.sha256 else event.model_copy(update={"sha256": content})


def uncounted(stand):
    """Whole pictures in the folder of a run that are not counted.

    Parameters
    ----------
    stand : Stand

    Returns
    -------
    list of str
    """
    if not stand.folder:
        return []
    found = arrived(stand.folder, stand.known, at_rest_s=0.0)  # the simulated camera's own: nothing to doubt
    return [file.name for file in found.files if file.whole]


class StoredJournal:
    """A run in the data file; hands may press while a driver works."""

    def __init__(self, runs, run_id):
        self._runs = runs
        self._run_id = run_id

    def stand(self):
        """Where it stands now."""
        return stand_of(self._runs.get(self._run_id))

    def tell(self, event):
        """Add an event; where somebody else was quicker it is tried again on what is then."""
        event = with_content(event, self.stand().folder)
        press, body = f"driver-{uuid.uuid4().hex}", event.model_dump_json()
        for _ in range(MOST_RACES):
            number = len(self._runs.get(self._run_id).events)
            try:
                self._runs.add(self._run_id, number, press, body, lambda run: after(stand_of(run), event))
            except ConflictError:
                continue
            return
        raise ConflictError("Too many pressed at once.", "Pause, and go on.")

    def new_files(self, stand):
        """Pictures that are not counted."""
        return uncounted(stand)


class MemoryJournal:
    """A run of the shell, kept until it is written to a file."""

    def __init__(self, plan, on_taken=None):
        self.plan = plan
        self.events = []
        self._on_taken = on_taken

    def stand(self):
        """Where it stands now."""
        return replay(self.plan, self.events)

    def tell(self, event):
        """Add an event."""
        event = with_content(event, self.stand().folder)
        stand = after(self.stand(), event)
        self.events.append(event)
        if event.kind == "taken" and self._on_taken is not None:
            self._on_taken(sum(times > 0 for times in stand.times_taken), len(stand.times_taken), event.file)

    def new_files(self, stand):
        """Pictures that are not counted."""
        return uncounted(stand)


def folder_of(results, run_id):
    """Where the simulated camera of a run writes to.

    Parameters
    ----------
    results : Path   Beside the data file.
    run_id : str

    Returns
    -------
    Path
    """
    return Path(results) / "simulated" / run_id
