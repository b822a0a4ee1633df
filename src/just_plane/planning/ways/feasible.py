"""Whether a way can be carried out as things are: what subject, hand, support, rail and room have against it."""

import math
from dataclasses import replace

from just_plane.core.ranking import MAY_EXCEED, NEVER
from just_plane.planning.words.numbers import seconds, shutter_words

HANDHELD_RING = 4.0
"""Excess of stepping the ring by hand: the camera sways by more than a step between frames, some series come out."""
ISOS = (100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250, 1600, 2000, 2500, 3200, 4000, 5000, 6400, 8000,
        10000, 12800)  # fmt: skip
"""As cameras offer them, in thirds, as far as they are of use."""
ISO_SLACK = 0.05
"""Share by which an engraved ISO may fall short: they are rounded."""


def weighed(setup, item, steadiness):
    """A way with everything that stands against carrying it out (Setup, Compared, SteadyAnswer): Compared."""
    if not item.way.frames:
        return item
    said = [each for each in _hindrances(setup, item, steadiness) if each[0] > 1]
    clauses = [words for _, words in sorted(said, key=lambda each: -each[0])]
    excesses = [item.excess, *(excess for excess, _ in said)]
    worst = max(excesses)
    # Of what cannot be done, two things in the way are worse than one.
    return replace(
        item,
        against=(*clauses, *item.against),
        excess=worst if worst <= MAY_EXCEED else math.prod(excesses),
    )


def _times_over(takes, may):
    """How many times over a longest time another goes; times that a camera marks alike are alike."""
    return 1.0 if shutter_words(takes) == shutter_words(may) else takes / may


def _hindrances(setup, item, steadiness):
    """(how many times over, clause) of each thing that a way asks for."""
    shot, way = setup.shot, item.way
    by_hand = shot.steadiness.held == "hand"
    if by_hand and way.kind == "rail":
        yield NEVER, "a rail needs a support; the camera is in the hand"
    if by_hand and way.kind == "ring" and way.frames > 1:
        yield HANDHELD_RING, "in the hand the camera sways by more than a step between frames"
    thick = _thickest(shot)
    # Before the nearest point, as the Light station has it.
    room = setup.rigged.working_distance - setup.focus
    if item.back_off is not None:
        room = item.back_off.room_mm - way.focuses[0]
    if thick is not None and thick.thickness_mm >= room:
        length = setup.wording.length
        yield (
            NEVER,
            f"{thick.name or 'the diffuser'} is {length(thick.thickness_mm)} thick; there are {length(max(room, 0))}",
        )
    hold = shot.subject.hold_still_s
    if hold is not None and (shot.light.read or way.frames > 1):
        takes = f"it takes {shutter_words(way.hold)}"
        if way.frames > 1:
            takes = f"first to last frame take {seconds(way.hold)}"
        yield way.hold / hold, f"the subject holds {seconds(hold)}; {takes}"
    if not shot.light.read:
        return
    time = steadiness.shutter_s
    if steadiness.subject_s is not None:
        yield (
            _times_over(time, steadiness.subject_s),
            f"the subject moves: no longer than {shutter_words(steadiness.subject_s)}, it takes {shutter_words(time)}"
            f"{_iso_for(shot.light.iso, time / steadiness.subject_s)}",
        )
    if steadiness.hand_s is not None:
        yield (
            _times_over(time, steadiness.hand_s),
            f"by hand no longer than {shutter_words(steadiness.hand_s)}, it takes {shutter_words(time)}"
            f"{_iso_for(shot.light.iso, time / steadiness.hand_s)}",
        )
        if way.kind == "hand" and time > MAY_EXCEED * steadiness.hand_s:
            yield HANDHELD_RING, f"and each of {way.frames} frames must come out"
    if steadiness.support_s is not None:
        yield (
            _times_over(time, steadiness.support_s),
            f"on this support no longer than {shutter_words(steadiness.support_s)} was sharp, it takes "
            f"{shutter_words(time)}",
        )


def _iso_for(iso, times_over):
    """Which ISO would make a shutter as many times shorter, as a clause; nothing where none of the usual would."""
    enough = next((each for each in ISOS if each >= iso * times_over * (1 - ISO_SLACK)), None)
    return "" if enough is None or times_over <= 1 else f"; ISO {enough} would do"


def _thickest(shot):
    """The thickest diffuser on the set; None without one."""
    spreads = [thing.gear for thing in shot.on_set if thing.gear.kind == "diffuser"]
    return max(spreads, key=lambda gear: gear.thickness_mm, default=None)
