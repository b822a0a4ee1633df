"""The loop of a driven run: move, wait, release, write down; one frame at a time, nothing taken for done that is not.

What it does next follows from the run alone, so that a driver that starts again after a crash goes on where the last
one stopped. Before a frame it writes down which one the rail stands for; a frame in doubt is looked for on the card.
"""

import contextlib
from collections.abc import Callable
from typing import NamedTuple, Protocol

from just_plane.contract.run import RunEvent
from just_plane.devices.protocols import Camera, CameraState, Clock, DeviceError, Rail
from just_plane.runs.marks import direction, reading_of
from just_plane.runs.replay import RefusedEventError

LOOK_S = 0.15
"""How often hands are looked after."""
MOST_RETRIES = 5
"""Of one frame, by itself, before somebody is asked."""


class Journal(Protocol):
    """The run as it is kept: read before each act, written after."""

    def stand(self):
        """Where it stands: Stand."""

    def tell(self, event):
        """Write an event down. Raises RefusedEventError, or ConflictError where somebody else was quicker."""

    def new_files(self, stand):
        """Names of whole pictures in the run's folder that are not counted: list of str."""


class Devices(NamedTuple):
    """Who moves, who releases, and the time that they live in."""

    rail: Rail | None
    """None: moved by hand; it stands when somebody says so."""
    camera: Camera | None
    """None: released by hand; it is taken when somebody says so."""
    clock: Clock
    placed: Callable
    """Called with the step that a hand has set."""


class Driver:
    """One run, one rail, one camera; either may be a hand."""

    def __init__(self, journal, devices, wall, stopped):
        """
        Parameters
        ----------
        journal : Journal
        devices : Devices
        wall : Clock          Of the room, in which hands are waited for.
        stopped : function    True once the server ends.
        """
        self.journal, self.wall, self.stopped = journal, wall, stopped
        self.rail, self.camera, self.clock, self._placed = devices
        self._tries = 0
        self.reported: CameraState | None = None
        """What the camera said of itself after its last frame: card and battery."""

    def run(self):
        """Go on until the run is over, paused, or in trouble."""
        while not self.stopped():
            stand = self.journal.stand()
            if stand.state != "running" or stand.next_frame is None:
                return
            try:
                self._once(stand)
                self._tries = 0
            except DeviceError as error:
                if not self._again(error):
                    return

    def _once(self, stand):
        frame = stand.next_frame
        if stand.set_frame != frame:
            if self.rail is None:
                self.wall.sleep(LOOK_S)
                return
            reading = self._move(stand, frame)
            self.clock.sleep(stand.plan.settle_s or 0.0)
            self.journal.tell(RunEvent(kind="set", frame=frame, reading_mm=reading))
            stand = self.journal.stand()
            if stand.state != "running" or stand.next_frame != frame:
                return
        if self.camera is None:
            self.wall.sleep(LOOK_S)
            return
        if not self._found(stand, frame):
            if self.rail is None:
                self._placed(stand.plan.steps[frame])
            taken = self.camera.shoot()
            try:
                self.journal.tell(RunEvent(kind="taken", frame=frame, file=taken.file.name))
            except RefusedEventError:
                # A hand asked for another frame while this one was taken: it is none of the run, and must not be
                # found on the card as the next.
                self.journal.tell(RunEvent(kind="passed", there_before=[taken.file.name]))
            self.reported = self.camera.state()

    def _move(self, stand, frame):
        """To the mark of a frame, from the side that all are come to from."""
        target = reading_of(stand.plan.steps[frame])
        side = direction(stand.plan)
        now = self.rail.state().reading_mm
        if (target - now) * side <= 0 or stand.reading is None:
            back = target - side * self.rail.facts().take_up_mm
            low, high = self.rail.facts().from_mm, self.rail.facts().to_mm
            self.rail.move_to(min(max(back, low), high))
        return self.rail.move_to(target)

    def _found(self, stand, frame):
        """A frame that was set and may have been taken: ask the card. True where that settles it."""
        new = self.journal.new_files(stand)
        if len(new) == 1:
            self.journal.tell(RunEvent(kind="taken", frame=frame, file=new[0]))
            return True
        if new:
            raise DeviceError(
                "lost",
                f"{len(new)} pictures came that nobody counted.",
                f"Say which of them is frame {frame + 1}.",
            )
        return False

    def _again(self, error):
        """After trouble: True to try again by itself."""
        self._tries += 1
        if error.after is not None and self._tries <= MOST_RETRIES:
            self.clock.sleep(error.after)
            return True
        with contextlib.suppress(RefusedEventError):
            self.journal.tell(RunEvent(kind="trouble", words=f"{error.message} {error.remedy}".strip()))
        return False
