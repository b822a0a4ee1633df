"""What a camera noted of a frame, against the plan and the frames before it, in sentences."""

from datetime import datetime, timedelta
from typing import NamedTuple

from just_plane.planning.words.numbers import f_stop, seconds, shutter_words

SAME_STOP = 0.03
"""Cameras round what they note: f/5.6 is 5.657."""
SAME_SHUTTER = 0.09
"""1/60 is 1/64, and 1/125 is 1/128: under half of a third of a stop."""
SAME_ISO = 0.09
SAME_FOCAL_LENGTH = 0.02
LONG_S = 1.0
"""Exposures from which cameras take a dark frame."""
DARK_FRAME = (0.7, 1.3)
"""Of an exposure, by which a frame that follows a dark one is late: clocks count whole seconds."""


class Settings(NamedTuple):
    """What the plan asks for; None where it asks for nothing."""

    f_number: float | None = None
    shutter_s: float | None = None
    iso: float | None = None
    every_s: float | None = None
    """From one frame to the next."""


NOTHING_ASKED = Settings()


def differs(facts, settings, first=None):
    """What was set otherwise than the plan, or than in the first frame of the run.

    Parameters
    ----------
    facts : FrameFacts
    settings : Settings
    first : FrameFacts or None   Of the run's first frame; None: this is it.

    Returns
    -------
    str                          Sentences; empty where nothing differs, or the camera noted nothing.

    Notes
    -----
    What the whole run has otherwise than the plan is said of its first frame, and not again of each.
    """
    said = []
    for noun, words, slack, asked, noted, before in (
        ("f/", f_stop, SAME_STOP, settings.f_number, facts.f_number, first and first.f_number),
        ("shutter", shutter_words, SAME_SHUTTER, settings.shutter_s, facts.exposure_s, first and first.exposure_s),
        ("ISO", _iso, SAME_ISO, settings.iso, facts.iso, first and first.iso),
    ):
        if not noted:
            continue
        if before:
            if abs(noted / before - 1) > slack:
                said.append(
                    f"It was taken {_with(noun, words(noted))}; the frames before {_with(noun, words(before))}."
                )
        elif asked and abs(noted / asked - 1) > slack:
            said.append(f"It was taken {_with(noun, words(noted))}; the plan says {words(asked)}.")
    if first is not None and _other(facts.focal_length_mm, first.focal_length_mm, SAME_FOCAL_LENGTH):
        said.append(
            f"It was taken at {facts.focal_length_mm:g} mm; the frames before at {first.focal_length_mm:g} mm. "
            "Was the zoom touched?"
        )
    return " ".join([*said, *_touched(facts, first)])


def _touched(facts, first):
    """Switches that stand otherwise than a stack wants them, said of the first frame, or than in it."""
    if first is None:
        if facts.auto_exposure:
            yield "The camera chose the exposure itself: set it by hand, so that all frames match."
        if facts.auto_white:
            yield "White balance is on automatic: set it to a fixed one, so that all frames match."
    elif facts.flash is not None and first.flash is not None and facts.flash != first.flash:
        yield ("The flash fired; before it did not." if facts.flash else "The flash did not fire; before it did.")
    if first is not None and facts.lens and first.lens and facts.lens != first.lens:
        yield f"It was taken through {facts.lens}; the frames before through {first.lens}."


def dark_frame(first, second, settings):
    """Whether the first two frames lie a whole exposure farther apart than planned: the camera takes a dark frame after
    each.

    Parameters
    ----------
    first, second : FrameFacts
    settings : Settings

    Returns
    -------
    str                          A sentence, or empty.
    """
    shutter = second.exposure_s or settings.shutter_s
    begun, ended = (_moment(facts.taken) for facts in (first, second))
    if not shutter or shutter < LONG_S or settings.every_s is None or begun is None or ended is None:
        return ""
    longer = (ended - begun).total_seconds() - settings.every_s
    if not DARK_FRAME[0] * shutter <= longer <= DARK_FRAME[1] * shutter:
        return ""
    return (
        f"It came {seconds(longer)} later than planned, about one exposure of {shutter_words(shutter)}: unless "
        "something held it up, the camera takes a dark frame after each. Switch that off, or tick it at Stack."
    )


def _moment(taken):
    try:
        whole, _, part = taken.partition(".")
        return datetime.strptime(whole, "%Y:%m:%d %H:%M:%S") + timedelta(seconds=float(f"0.{part or 0}"))
    except ValueError:
        return None


def doubt(facts, first, last):
    """Why a picture may be none of the run: sentence, or empty.

    Parameters
    ----------
    facts : FrameFacts
    first, last : FrameFacts or None   Of the run's first and latest frame.
    """
    if first is None:
        return ""
    if facts.camera and first.camera and facts.camera != first.camera:
        return f"It comes from another camera, {facts.camera}; the run's frames come from {first.camera}."
    if {facts.width, facts.height} != {first.width, first.height}:
        return f"It has {facts.width} x {facts.height} pixels; the run's frames have {first.width} x {first.height}."
    if last is not None and facts.taken and last.taken and facts.taken < last.taken:
        return "By the camera's clock it was taken before the frame that was counted last."
    return ""


def _other(one, two, slack):
    return bool(one and two and abs(one / two - 1) > slack)


def _with(noun, words):
    return f"with {words}" if noun == "shutter" else f"at {words}"


def _iso(iso):
    return f"ISO {iso:g}"
