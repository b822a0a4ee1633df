"""The notebook: what was set, what was done, what came out, and one line for next time."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer, Model

Word = Annotated[str, Field(min_length=1, max_length=60)]
USUAL_TROUBLE = ("dust", "bump", "wilted", "flare", "step too coarse", "light changed", "not square")


class LogSet(Answer):
    """What was set, as it was then."""

    shot_name: str
    subject: str
    rig: Annotated[list[str], Field(description="The pieces, subject to sensor, body last.")]
    magnification: float | None
    f_number: float
    works_as: float | None
    shutter_words: str
    iso: float
    way: str
    kind: Literal["one_frame", "rail", "ring", "hand"]
    depth_mm: float
    step_mm: float | None
    frames_planned: int
    time_planned_s: float
    gear_cost: Annotated[float | None, Field(description="Of the pieces whose cost is known; null: of none.")] = None
    gear_cost_unknown: Annotated[int, Field(description="Pieces whose cost is not known.")] = 0


class LogDone(Answer):
    """What was done."""

    state: Literal["running", "paused", "stopped", "finished"]
    frames_taken: int
    taken_again: int
    left_out: int
    added: int
    time_s: Annotated[float, Field(description="From the start to the last event.")]
    folder: Annotated[str | None, Field(description="That the frames are in; null: counted by hand.")]
    first_file: str | None


class LogOut(Answer):
    """What came out, by the check of its frames."""

    job_id: str
    may_come_down: bool
    answer: str
    findings: list[str]
    frames_used: int
    frames: int
    proofs: list[str]


class LogNote(Model):
    """What the photographer adds."""

    good: Annotated[Literal["lost", "usable", "good", "best yet"] | None, Field(title="How good it was")] = None
    wrong: Annotated[list[Word], Field(title="What went wrong", max_length=12)] = []
    next_time: Annotated[str, Field(title="Next time", max_length=300)] = ""


class LogEntry(Answer):
    """One entry."""

    entry_id: str
    shot_id: str
    run_id: str | None
    set: LogSet
    done: LogDone
    out: LogOut | None
    note: LogNote
    note_number: Annotated[int, Field(description="Of times that it was written: sent back with the next.")]
    made_at: str


class LogList(Answer):
    """The notebook, the newest first."""

    entries: list[LogEntry]
    words: Annotated[list[str], Field(description="What went wrong before, the most frequent first, with the usual.")]


class LogQuery(Model):
    """What to look for."""

    words: Annotated[str, Field(max_length=200, description="All of them must stand in the entry.")] = ""
    shot: Annotated[str, Field(max_length=40, description="Only of this shot.")] = ""
    day: Annotated[
        str, Field(max_length=10, pattern=r"^(\d{4}(-\d\d(-\d\d)?)?)?$", description="Or month, or year.")
    ] = ""


class NoteAsked(Model):
    """A note to keep."""

    note: LogNote
    note_number: Annotated[int, Field(ge=0, le=1_000_000)]


class EntryPath(Model):
    """An entry in the address."""

    entry_id: Annotated[str, Field(pattern="^[0-9a-f]{32}$")]


class EntryPictureQuery(Model):
    """How large a picture of an entry."""

    width: Annotated[int, Field(ge=64, le=20_000, strict=False, description="At most; its own where it is less.")] = (
        1400
    )


class LogFileQuery(Model):
    """As what to take the notebook away."""

    as_: Annotated[Literal["csv", "json"], Field(alias="as")] = "csv"


class Reminder(Answer):
    """A line from an entry that is like this shot."""

    entry_id: str
    why: Annotated[str, Field(description="What is alike: subject, rig, size.")]
    line: str
    from_: Annotated[str, Field(description="Name and day of the entry.")]


class Reminders(Answer):
    """What was written for next time, the most alike first."""

    reminders: list[Reminder]
