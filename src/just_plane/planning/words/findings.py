"""What a plan has to say besides its numbers: findings are values, made where they arise and returned."""

from collections.abc import Iterable
from typing import Any, NamedTuple

from just_plane.contract.plan import Finding


class Answered(NamedTuple):
    """What a station answers: its section, and what it has to say."""

    section: Any
    said: tuple[Finding, ...] = ()


class RefusedError(Exception):
    """What was asked cannot be; ``finding`` says why and at which field."""

    def __init__(self, finding):
        super().__init__(finding.message)
        self.finding = finding


def trouble(code, field, message, remedy=""):
    """A finding that keeps the shot from working: Finding."""
    return Finding(severity="trouble", code=code, field=field, message=message, remedy=remedy)


def caution(code, field, message, remedy=""):
    """A finding to mind: Finding."""
    return Finding(severity="caution", code=code, field=field, message=message, remedy=remedy)


def note(code, field, message, remedy=""):
    """A finding that is good to know: Finding."""
    return Finding(severity="note", code=code, field=field, message=message, remedy=remedy)


def refused(error, field, wording, say=trouble):
    """A refusal of the core as a finding at the field that caused it, its quantities in the unit in use.

    Parameters
    ----------
    error : OpticsError
    field : str           JSON pointer.
    wording : Wording
    say : callable        ``trouble``, ``caution`` or ``note``.

    Returns
    -------
    Finding
    """
    message, remedy = error.spoken(wording.quantity)
    return say(error.code, field, message[:1].upper() + message[1:], remedy)


def gathered(said: Iterable[Finding], put_aside=()):
    """Findings of a plan: the first of a code and a field, and those the photographer put aside marked as such.

    Parameters
    ----------
    said : iterable of Finding   In the order of the job.
    put_aside : iterable of str  Codes of cautions and notes; trouble cannot be put aside.

    Returns
    -------
    list of Finding
    """
    aside, kept = frozenset(put_aside), {}
    for finding in said:
        place = finding.code, finding.field
        if place not in kept:
            if finding.code in aside and finding.severity != "trouble":
                finding = finding.model_copy(update={"put_aside": True})
            kept[place] = finding
    return list(kept.values())
