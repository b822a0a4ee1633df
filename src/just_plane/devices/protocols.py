"""What a run asks of a rail, of a camera and of a clock. Lengths mm, times s.

No method returns before it is true; nothing but ``stop`` is called from a second thread; what a device cannot do it
says, and nothing is assumed of it. The planner never sees more than a device reports.
"""

from pathlib import Path
from typing import NamedTuple, Protocol, runtime_checkable

CODES = ("off", "busy", "jammed", "limit", "card_full", "battery_flat", "flash_not_ready", "lost", "refused")


class DeviceError(Exception):
    """A device that did not do what it was asked; ``message`` and ``remedy`` are sentences."""

    def __init__(self, code, message, remedy, after=None):
        """
        Parameters
        ----------
        code : str        Of ``CODES``.
        message, remedy : str
        after : float or None   s after which trying again makes sense; None: somebody must do something.
        """
        super().__init__(f"{message} {remedy}")
        assert code in CODES, code
        self.code = code
        self.message = message
        self.remedy = remedy
        self.after = after


class RailFacts(NamedTuple):
    """What a rail says of itself."""

    name: str
    from_mm: float
    to_mm: float
    smallest_step_mm: float
    take_up_mm: float
    """How far to go back past a mark, so that coming on to it takes up the play."""


class RailState(NamedTuple):
    """Where a rail believes that it stands."""

    reading_mm: float
    moving: bool


class CameraFacts(NamedTuple):
    """What a camera says of itself."""

    name: str
    can: frozenset
    """Of ``shoot``, ``set``, ``view``, ``dng``."""


class CameraState(NamedTuple):
    """What a camera reports."""

    shutter_s: float
    f_number: float
    iso: float
    frames_left: int | None
    """On the card; None: not known."""
    battery: float | None
    """Share that is left; None: not known."""


class Frame(NamedTuple):
    """A picture that is safe."""

    file: Path
    number: int
    """That the camera gave it."""
    taken_s: float
    """On the clock: the middle of the exposure."""


@runtime_checkable
class Clock(Protocol):
    """Time, which may run fast."""

    def now(self) -> float:
        """s since some start; never goes back."""

    def sleep(self, seconds: float) -> None:
        """Wait."""


@runtime_checkable
class Rail(Protocol):
    """What carries the camera, or the focus, along."""

    def facts(self) -> RailFacts:
        """What it is."""

    def state(self) -> RailState:
        """Where it believes that it stands."""

    def move_to(self, reading_mm: float) -> float:
        """Go to a reading, from whichever side; returns the reading once it stands. Raises DeviceError."""

    def stop(self) -> None:
        """Stand still, now; from any thread, at rest too."""


@runtime_checkable
class Camera(Protocol):
    """What takes the frames."""

    def facts(self) -> CameraFacts:
        """What it is."""

    def state(self) -> CameraState:
        """What it reports. Raises DeviceError."""

    def set(self, shutter_s: float, f_number: float, iso: float) -> CameraState:
        """Set what it has nearest; returns what was taken. Raises DeviceError."""

    def shoot(self) -> Frame:
        """One frame; returns when the file is safe. Raises DeviceError."""

    def close(self) -> None:
        """Let go of it."""
