"""What a camera noted of a frame, against the plan and the frames before it, in sentences."""

from typing import NamedTuple

from just_plane.planning.words.numbers import f_stop, shutter_words

SAME_STOP = 0.03
"""Cameras round what they note: f/5.6 is 5.657."""
SAME_SHUTTER = 0.09
"""1/60 is 1/64, and 1/125 is 1/128: under half of a third of a stop."""
SAME_ISO = 0.09
SAME_FOCAL_LENGTH = 0.02


class Settings(NamedTuple):
    """What the plan asks for; None where it asks for nothing."""

    f_number: float | None = None
    shutter_s: float | None = None
    iso: float | None = None


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
                said.append(f"It was taken {_with(noun, words(noted))}; the frames before at {words(before)}.")
        elif asked and abs(noted / asked - 1) > slack:
            said.append(f"It was taken {_with(noun, words(noted))}; the plan says {words(asked)}.")
    if first is not None and _other(facts.focal_length_mm, first.focal_length_mm, SAME_FOCAL_LENGTH):
        said.append(
            f"It was taken at {facts.focal_length_mm:g} mm; the frames before at {first.focal_length_mm:g} mm. "
            "Was the zoom touched?"
        )
    return " ".join(said)


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
