"""What trials measured of camera, hand and support, in place of what is assumed; and the notes that say so."""

from just_plane.contract.shot import Stack
from just_plane.core.motion import longest_shutter_by_hand
from just_plane.core.ways import Pace
from just_plane.planning.words.findings import note
from just_plane.planning.words.numbers import seconds, shutter_words

DARK_FROM_S = 1.0
"""Exposure from which cameras take a dark frame; the trial tries no shorter ones."""
ASSUMED_RECOVERY_S = Stack().recovery_s
NEAR = 1.4
"""A shutter that was tried holds for sizes so many times larger or smaller; past them it is scaled."""


def pace_of(shot):
    """What each frame of a shot takes besides its exposure.

    Parameters
    ----------
    shot : Shot

    Returns
    -------
    Pace
    """
    options, measured = shot.stack, shot.body.measured_times
    if measured is None:
        return Pace(options.settle_s, options.recovery_s, options.noise_reduction)
    # What was typed is meant; what was assumed gives way.
    typed = options.recovery_s != ASSUMED_RECOVERY_S
    recovery = options.recovery_s if typed else measured.write_s
    if options.noise_reduction:
        return Pace(options.settle_s, recovery, True)
    return Pace(options.settle_s, recovery, measured.dark_frame, DARK_FROM_S)


def by_hand_as_tried(shot, focal_length, crop, magnification):
    """Longest shutter held by hand, as tried and carried over to this lens and size by the rule of the hand.

    Parameters
    ----------
    shot : Shot
    focal_length : float    Of the lens as it is set, mm.
    crop : float            36 mm over the width of the sensor in use.
    magnification : float

    Returns
    -------
    float or None           s; None: not tried.
    """
    tried = shot.body.measured_by_hand
    if tried is None:
        return None
    there = longest_shutter_by_hand(tried.focal_length_mm or focal_length, crop, tried.magnification)
    return tried.shutter_s * longest_shutter_by_hand(focal_length, crop, magnification) / there


def on_support_as_tried(shot, magnification):
    """Longest shutter on the support of a shot, as tried; smear grows with the size.

    Parameters
    ----------
    shot : Shot
    magnification : float

    Returns
    -------
    float or None          s; None: none on the set was tried.
    """
    tried = [thing.gear.measured_still for thing in shot.on_set if thing.gear.kind == "support"]
    known = [each for each in tried if each is not None]
    return min((each.shutter_s * each.magnification / magnification for each in known), default=None)


def measured_notes(shot, magnification):
    """What of a plan is measured: tuple of Finding.

    Parameters
    ----------
    shot : Shot
    magnification : float   Of the framing.
    """
    return tuple(_notes(shot, magnification))


def _notes(shot, magnification):
    times, hand = shot.body.measured_times, shot.body.measured_by_hand
    if times is not None:
        dark = (
            "a dark frame as long follows each exposure of 1 s or more" if times.dark_frame else "no dark frame follows"
        )
        yield note(
            "measured.times",
            "/stack/recovery_s",
            f"Dark frames, by your trial of {times.measured_on}: {dark}; and writing takes {seconds(times.write_s)}.",
        )
    if hand is not None and shot.steadiness.held == "hand":
        yield note(
            "measured.hand",
            "/steadiness/held",
            f"By your trial of {hand.measured_on}, {shutter_words(hand.shutter_s)} stays sharp in your hands at "
            f"{hand.magnification:g}×.{_far(hand, magnification)}",
        )
    for place, thing in enumerate(shot.on_set):
        still = thing.gear.measured_still if thing.gear.kind == "support" else None
        if still is not None:
            yield note(
                "measured.support",
                f"/on_set/{place}",
                f"By your trial of {still.measured_on}, {shutter_words(still.shutter_s)} stays sharp on "
                f"{thing.gear.name or 'this support'} at {still.magnification:g}×.{_far(still, magnification)}",
            )


def _far(still, magnification):
    if 1 / NEAR <= magnification / still.magnification <= NEAR:
        return ""
    return " This shot is of another size: the time is carried over to it."
