"""What was found in a stack, in sentences: what is wrong, what to do now, what it would cost at home."""

from just_plane.core.units import MM_PER_INCH

PICTURE, WORK, WORD = 3, 2, 1


def spoken(found, names, places, covered):
    """A finding in words.

    Parameters
    ----------
    found : Found
    names : list of str      Of the frames.
    places : dict            Frame to where to set it, in words; empty where not known.
    covered : bool           Nothing is missing without the frames that it takes out.

    Returns
    -------
    (str, str, int)          Message, remedy, cost.
    """
    name = names[found.frame] if found.frame is not None else ""
    before = names[found.before] if found.before is not None else ""
    return _SENTENCES[found.code](found, name, before, places.get(found.frame, ""), covered, names)


def number(value, digits):
    """A number as people write it, without an exponent."""
    return f"{value:,.0f}" if abs(value) >= 10 ** (digits - 1) else f"{value:.{digits}g}"


def lengths(values_mm, units):
    """Lengths that are told apart to 10 µm, in ``mm`` or ``in``, without the unit."""
    return [f"{value:.2f}" if units == "mm" else f"{value / MM_PER_INCH:.3f}" for value in values_mm]


def at_places(places_mm, units):
    """Where to focus, in words: ``at 6.48 and 7.78 mm behind the nearest point``."""
    told = lengths(places_mm, units)
    listed = told[0] if len(told) == 1 else f"{', '.join(told[:-1])} and {told[-1]}"
    return f"at {listed} {units} behind the nearest point"


def _again(at, covered):
    if covered:
        return "The frames beside it cover what it held: it is left out, and nothing is missing.", WORD
    return f"Take it again{at}.", PICTURE


def _instead(covered):
    if covered:
        return "It is left out, and nothing is missing.", WORD
    return "It is left out. Look for the frame that belongs there, or take it again.", PICTURE


def _foreign(found, name, before, at, covered, names):
    remedy, cost = _instead(covered)
    return f"{name} does not belong to this stack: nothing in it fits the frames beside it.", remedy, cost


def _failed(found, name, before, at, covered, names):
    count = int(found.amount or 1)
    which = name if count == 1 else f"{name} and {count - 1} more"
    return (
        f"{which} could not be laid on the others: too little of the view is the same.",
        "Look whether camera or subject was moved there, or frames between are missing; "
        "take the stack again from that frame on.",
        PICTURE,
    )


def _duplicate(found, name, before, at, covered, names):
    if len(found.frames) > 1:
        return (
            f"{name} and {len(found.frames) - 1} more are copies of frames that are here already, "
            f"{name} of {before}: the same pictures again.",
            "They are left out, and nothing is lost by it.",
            WORD,
        )
    if found.frames:
        remedy, cost = _instead(covered)
        return f"{name} is the same picture as {before}.", remedy, cost
    return (
        f"{name} stands where {before} stood: the rail was not moved between them.",
        "Nothing is missing because of it." if covered else f"Look for the step that was missed{at}.",
        WORD,
    )


def _retaken(found, name, before, at, covered, names):
    return (
        f"{_several(found.frames, names)} show again what {before} and those beside it show: it was taken twice.",
        "The longer take is judged, of two as long the later; these are left out. "
        "To have these judged, put them into a folder of their own.",
        WORD,
    )


def _order(found, name, before, at, covered, names):
    which = _several(found.frames, names)
    return f"{which} are not in the order of focus.", "They are merged in the order found.", WORD


def _several(frames, names):
    first, last, count = min(frames), max(frames), len(frames)
    if count > 4 and last - first == count - 1:
        return f"{names[first]} to {names[last]}, {count} frames,"
    return ", ".join(names[frame] for frame in frames[:4]) + (" and more" if count > 4 else "")


def _skipped(found, name, before, at, covered, names):
    count = int(found.amount)
    steps = "One step is" if count == 1 else f"{count} steps are"
    frames = "one more frame" if count == 1 else f"{count} more frames"
    if covered:
        return f"{steps} missing between {before} and {name}.", "It is still covered, just.", WORK
    return f"{steps} missing between {before} and {name}.", f"Take {frames} between them{at}.", PICTURE


def _bump(found, name, before, at, covered, names):
    return (
        f"Between {before} and {name} the view jumped by {number(found.amount, 2)} px.",
        "It is laid straight again. Look that nothing else moved, and that the view still holds all of it.",
        WORK,
    )


def _rotation(found, name, before, at, covered, names):
    return (
        f"Between {before} and {name} the view turned by {number(abs(found.amount), 2)}°.",
        "It is turned back. Tighten the camera before the next frame.",
        WORK,
    )


def _dead(found, name, before, at, covered, names):
    remedy, cost = _again(at, covered)
    return (
        f"{name} is {number(abs(found.amount), 2)} stops darker than the frames beside it: the light did not come.",
        remedy,
        cost,
    )


def _jump(found, name, before, at, covered, names):
    darker = "darker" if found.amount < 0 else "lighter"
    return (
        f"From {name} on the frames are {number(abs(found.amount), 2)} stops {darker}.",
        "Merging evens it out. Lock exposure, and look at lamps and windows.",
        WORD,
    )


def _drift(found, name, before, at, covered, names):
    darker = "darker" if found.amount < 0 else "lighter"
    return (
        f"The light drifts: {number(abs(found.amount), 2)} stops {darker} over the stack.",
        "Merging evens it out. Let lamps warm up, shut the daylight out.",
        WORD,
    )


def _shake(found, name, before, at, covered, names):
    remedy, cost = _again(at, covered)
    return f"{name} is shaken: it lost detail that the frames beside it hold.", remedy, cost


def _moved(found, name, before, at, covered, names):
    return (
        f"A part of the subject moved by {number(found.amount, 2)} px between {before} and {name}.",
        "A merge will show it twice. Take the stack again from there, or from the start.",
        PICTURE,
    )


def _dust(found, name, before, at, covered, names):
    return (
        f"Dust on the sensor: a spot at one place of every frame takes {number(100 * found.amount, 2)} % of the light.",
        "A merge draws it out into a line. Clean the sensor, or mend the line.",
        WORK,
    )


_SENTENCES = {
    "foreign_frame": _foreign,
    "registration_failed": _failed,
    "duplicate": _duplicate,
    "taken_again": _retaken,
    "wrong_order": _order,
    "skipped_step": _skipped,
    "bump": _bump,
    "rotation": _rotation,
    "dead_flash": _dead,
    "light_jump": _jump,
    "light_drift": _drift,
    "shake": _shake,
    "moved": _moved,
    "sensor_dust": _dust,
}
