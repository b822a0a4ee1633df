"""A run as G-code for a rail that understands it: take-up from one side, then only forward, a contact for the camera.

The wait is the trap: P counts seconds on some controllers and milliseconds on others, so it is asked for and printed
at the head. Never homing, never a spindle, never rapid moves with a camera on the carriage.
"""

import math
from itertools import pairwise
from typing import NamedTuple

from just_plane.runs.marks import direction, reading_of

FEED_MM_MIN = 120.0
HOLD_S = 0.2
TAKE_UP_MM = 0.2
WAITS = {
    "P_seconds": ("P", 1.0, "P counts seconds"),
    "P_milliseconds": ("P", 1000.0, "P counts milliseconds"),
    "S_seconds": ("S", 1.0, "S counts seconds"),
}
CONTACTS = {
    "M8": ("M8", "M9"),
    "M3": ("M3 S1000", "M5"),
    "M42": ("M42 P0 S255", "M42 P0 S0"),
    "hand": ("M0", ""),
}
"""Closing and opening; M0 stops and waits for a person."""
PLAIN = frozenset("abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789 -.")


class CodeError(ValueError):
    """A run that no code may be written for; ``message`` and ``remedy`` are sentences."""

    def __init__(self, message, remedy):
        super().__init__(f"{message} {remedy}")
        self.message = message
        self.remedy = remedy


class Controller(NamedTuple):
    """What the rail's controller understands."""

    wait: str = "P_seconds"
    contact: str = "M8"
    travel: tuple = (-math.inf, math.inf)
    """mm, readings of its ends."""


def run_code(plan, name, controller=None):
    """The G-code of a run.

    Parameters
    ----------
    plan : RunPlan
    name : str                Of the shot; put into a comment, so reduced to letters, digits, space, hyphen and dot.
    controller : Controller

    Returns
    -------
    str                       ASCII, a line an act.

    Raises
    ------
    CodeError                 No rail, no marks, marks that turn back, or past the travel.
    """
    controller = controller or Controller()
    marks = _marks(plan, controller)
    letter, times, said = WAITS[controller.wait]
    close, open_again = CONTACTS[controller.contact]
    side = direction(plan)

    def wait(seconds):
        return f"G4 {letter}{seconds * times:.3f}"

    after = max(plan.time_s / max(len(plan.steps), 1) - (plan.settle_s or 0.0) - HOLD_S, plan.shutter_s or 0.0, 0.1)
    lines = [
        f"( {_plain(name)} )",
        f"( {len(marks)} frames, {marks[0]:.4f} to {marks[-1]:.4f} mm )",
        f"( a wait: {said}. Try the three lines of the test first )",
        "G21",
        "G90",
        "G94",
        _move(marks[0] - side * TAKE_UP_MM),
    ]
    for index, mark in enumerate(marks):
        lines += [f"( frame {index + 1} )", _move(mark), wait(0.0), wait(plan.settle_s or 0.0), close]
        if open_again:
            lines += [wait(HOLD_S), open_again, wait(after)]
    return "\n".join([*lines, "M2", ""])


def trial_code(wait, seconds):
    """Three lines that show whether a controller's wait is what was said.

    Parameters
    ----------
    wait : str
    seconds : float

    Returns
    -------
    str
    """
    letter, times, said = WAITS[wait]
    return f"( {said}: this should take {seconds:g} s )\nG4 {letter}{seconds * times:.3f}\nM2\n"


def _marks(plan, controller):
    if plan.kind != "rail":
        raise CodeError("Only a run by rail can be driven so.", "Choose a stack by rail at Ways.")
    marks = [reading_of(step) for step in plan.steps]
    side = direction(plan)
    if any((later - earlier) * side <= 0 for earlier, later in pairwise(marks)):
        raise CodeError(
            "The frames do not all lie in one direction, so the play of the screw would come in.",
            "Write code for the plan without the frames that were added, or set those by hand.",
        )
    low, high = controller.travel
    ends = [marks[0] - side * TAKE_UP_MM, *marks]
    if min(ends) < low or max(ends) > high:
        raise CodeError(
            f"The run goes from {min(ends):.3f} to {max(ends):.3f} mm; the rail from {low:g} to {high:g}.",
            "Move the rail on its support, and give the first mark anew.",
        )
    return marks


def _move(mark):
    return f"G1 X{mark:.4f} F{FEED_MM_MIN:.1f}"


def _plain(name):
    return " ".join("".join(letter if letter in PLAIN else " " for letter in name).split())[:60] or "run"
