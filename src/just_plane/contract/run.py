"""A run: what is set frame by frame, what was done, and where it stands."""

from typing import Annotated, Literal

from pydantic import Field

from just_plane.contract.base import Answer, Model, PathName
from just_plane.contract.shot import WayId

EventKind = Literal[
    "taken",
    "skipped",
    "once_more",
    "retake",
    "paused",
    "went_on",
    "stopped",
    "added",
    "watching",
    "devices",
    "set",
    "trouble",
    "passed",
    "grey",
]
Hand = Literal["hand", "simulated"]
WhatMayGoWrong = Literal[
    "rail_play",
    "rail_slips",
    "rail_drifts_sideways",
    "rail_swings",
    "rail_gone",
    "flash_misfires",
    "bump",
    "light_drifts",
    "set_creeps",
    "camera_hangs",
    "frame_missed",
    "card_full",
    "battery_flat",
    "dust",
]
Press = Annotated[str, Field(min_length=8, max_length=64, pattern="^[0-9a-z-]+$", description="Names this press once.")]
FOCUS = Annotated[float, Field(ge=-1e5, le=1e5)]


class Devices(Model):
    """Who moves and who releases, from now on."""

    rail: Annotated[Hand, Field(title="Who moves")] = "hand"
    camera: Annotated[Hand, Field(title="Who releases")] = "hand"
    in_real_time: Annotated[bool, Field(description="Else the set's time passes at once.")] = False
    raw_too: Annotated[bool, Field(description="A linear DNG beside each JPEG.")] = False
    faults: Annotated[list[WhatMayGoWrong], Field(title="What may go wrong", max_length=14)] = []
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1


class WhiteBalance(Model):
    """From a frame of something grey."""

    file: Annotated[str, Field(max_length=400)]
    red: Annotated[float, Field(gt=0, le=1000, description="That this channel is multiplied by, green left as it is.")]
    blue: Annotated[float, Field(gt=0, le=1000)]
    uneven: Annotated[float, Field(ge=0, le=1e6, description="How much brighter one side of the grey is, as a share.")]
    words: Annotated[str, Field(max_length=400)]


class GreyAsked(Model):
    """A frame of something grey for a run."""

    number: Annotated[int, Field(ge=0, le=1_000_000)]
    press: Press
    folder: Annotated[PathName, Field(title="Folder", min_length=1)]
    file: Annotated[PathName, Field(min_length=1, max_length=400)]


class RunEvent(Model):
    """Something that was done. Frames count from 0 in the order of the run's steps."""

    kind: EventKind
    frame: Annotated[int | None, Field(ge=0, le=100_000, description="That it is of; null: of the run.")] = None
    file: Annotated[str | None, Field(max_length=400, description="The picture that it is, in the folder watched.")] = (
        None
    )
    sha256: Annotated[
        str | None, Field(pattern="^[0-9a-f]{64}$", description="Its content; worked out here, whatever is sent.")
    ] = None
    folder: Annotated[PathName | None, Field(description="That is watched from now on.")] = None
    there_before: Annotated[
        list[str], Field(max_length=20_000, description="Pictures in it that are none of the run.")
    ] = []
    focuses_mm: Annotated[
        list[FOCUS], Field(max_length=200, description="Of frames added, behind the nearest point.")
    ] = []
    reading_mm: Annotated[float | None, Field(ge=-1e5, le=1e5, description="Of the rail, once it stood.")] = None
    words: Annotated[str, Field(max_length=600, description="What went wrong.")] = ""
    devices: Annotated[Devices | None, Field(description="That are used from now on.")] = None
    white: Annotated[WhiteBalance | None, Field(description="From a frame of something grey.")] = None


class RunStep(Answer):
    """One frame to be taken."""

    frame: int
    focus_mm: Annotated[float, Field(description="Behind the nearest point that must be sharp.")]
    move_mm: Annotated[float | None, Field(description="From the frame before in this order; null: the first.")]
    mark_mm: Annotated[float | None, Field(description="The rail's own mark; null: not known.")]
    sharp_from_mm: float
    sharp_to_mm: float
    knob_divisions: Annotated[
        float | None, Field(description="Of the knob, from the first frame; null: not known.")
    ] = None
    from_mm: Annotated[
        float | None, Field(description="Mark to go back to first, so that play is taken up; null: play not known.")
    ] = None
    added: Annotated[bool, Field(description="Not of the plan: to close a gap.")] = False


class RunPlan(Answer):
    """What a run was made from; kept with it whole."""

    way: WayId
    title: str
    kind: Literal["one_frame", "rail", "ring", "hand"]
    steps: list[RunStep]
    shutter_words: str
    f_number: float
    iso: float
    settle_s: Annotated[float | None, Field(description="To wait after a move; null: not known.")]
    time_s: Annotated[float, Field(description="Planned, for all frames.")]
    hold_still_s: Annotated[float | None, Field(description="That the subject holds; null: for ever.")]
    mark_grows: Annotated[int, Field(description="1: the rail's marks grow toward the subject; -1: away.")] = 1
    shutter_s: Annotated[float | None, Field(description="null: not known.")] = None
    divisions: Annotated[int | None, Field(description="Of the knob, a turn; null: not known.")] = None
    depth_mm: Annotated[
        float | None, Field(description="That must be sharp, from the nearest point on; null: not kept with old runs.")
    ] = None


class RunAsked(Model):
    """Begin a run of a shot."""

    way: Annotated[WayId | None, Field(description="null: the one decided on, else the recommended one.")] = None
    first_mark_mm: Annotated[
        float | None, Field(ge=-1e5, le=1e5, description="Where the rail stands for the first frame; null: not known.")
    ] = None


class EventAsked(Model):
    """A press in a run."""

    number: Annotated[int, Field(ge=0, le=1_000_000, description="Events that the one who pressed had seen.")]
    press: Press
    event: RunEvent


class RunPath(Model):
    """A run in the address."""

    run_id: Annotated[str, Field(pattern="^[0-9a-f]{32}$")]


class RunAnswer(Answer):
    """A run as it stands: a replay of its events."""

    run_id: str
    shot_id: str
    plan: RunPlan
    events: Annotated[int, Field(description="So far.")]
    state: Literal["running", "paused", "stopped", "finished"]
    next_frame: Annotated[int | None, Field(description="To take; null: none is left, or it is stopped.")]
    times_taken: Annotated[list[int], Field(description="By frame.")]
    skipped: list[int]
    folder: Annotated[str | None, Field(description="In which the camera's pictures arrive; null: counted by hand.")]
    files: Annotated[list[str | None], Field(description="By frame, the picture that it is.")]
    started_at: str
    last_at: Annotated[str | None, Field(description="Of the last event.")]
    shot_changed: Annotated[bool, Field(description="The shot was changed since; the run was not.")]
    devices: Devices
    driven: Annotated[bool, Field(description="A driver is at work on it now.")]
    set_frame: Annotated[int | None, Field(description="That the rail stands for, not taken yet as far as is known.")]
    reading_mm: Annotated[float | None, Field(description="Of the rail, the last that was noted.")]
    trouble: Annotated[str, Field(description="Why it stands still; else empty.")]
    white: Annotated[WhiteBalance | None, Field(description="null: no frame of grey was read.")] = None
    frames_left: Annotated[int | None, Field(description="On the camera's card; null: not known.")] = None
    battery: Annotated[float | None, Field(description="Share left in the camera's; null: not known.")] = None


class RunList(Answer):
    """Runs of a shot, the newest first."""

    runs: list[RunAnswer]


class WatchAsked(Model):
    """Watch a folder for the pictures of a run."""

    number: Annotated[int, Field(ge=0, le=1_000_000)]
    press: Press
    folder: Annotated[PathName, Field(title="Folder", min_length=1)]


class DriveAsked(Model):
    """Let devices move, release, or both, from now on."""

    number: Annotated[int, Field(ge=0, le=1_000_000)]
    press: Press
    devices: Devices


class LiveQuery(Model):
    """What of the live picture is shown."""

    frame: Annotated[int, Field(ge=0, le=100_000, strict=False, description="At whose mark the rail stands.")]
    marks: Annotated[Literal["no", "yes"], Field(description="Sharp edges marked.")] = "no"
    from_left: Annotated[
        float | None, Field(ge=0, le=1, strict=False, description="Of the magnifier; null: the whole of it.")
    ] = None
    from_top: Annotated[float | None, Field(ge=0, le=1, strict=False)] = None


class CodeQuery(Model):
    """What the controller of a rail understands."""

    wait: Annotated[
        Literal["P_seconds", "P_milliseconds", "S_seconds"], Field(description="How it counts a wait: ask its book.")
    ] = "P_seconds"
    contact: Annotated[Literal["M8", "M3", "M42", "hand"], Field(description="What closes the camera's contact.")] = (
        "M8"
    )
    trial: Annotated[Literal["no", "yes"], Field(description="Only three lines that show how it counts.")] = "no"


class FrameLook(Answer):
    """A frame beside those that came before it."""

    file: str
    light_ev: Annotated[float | None, Field(description="Against the first frame; null: cannot be told.")]
    moved_px: Annotated[float | None, Field(description="Of the view, from the frame before; null: cannot be told.")]
    said: Annotated[str, Field(description="What is wrong and what to do now; may be empty.")]


class FrameLooks(Answer):
    """Frames of a run looked at as they come, in the order they were taken."""

    looks: list[FrameLook]
    more: Annotated[bool, Field(description="Some are not looked at yet: ask again.")]


class RunFramePath(Model):
    """A picture of a run in the address."""

    run_id: Annotated[str, Field(pattern="^[0-9a-f]{32}$")]
    frame: Annotated[int, Field(ge=0, le=100_000)]


class ArrivedFile(Answer):
    """A picture that came since the last one counted."""

    name: str
    whole: Annotated[bool, Field(description="It is written to its end and can be read.")]
    said: Annotated[str, Field(description="What differs from the plan, or why it cannot be read; may be empty.")]
    doubt: Annotated[bool, Field(description="It may be none of the run: to be asked about, not counted.")] = False


class Arrived(Answer):
    """What came into the folder of a run."""

    folder: str
    files: Annotated[list[ArrivedFile], Field(description="In the order of their names.")]
    trouble: Annotated[str, Field(description="Why the folder cannot be looked into; else empty.")] = ""
