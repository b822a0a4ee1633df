"""The shot in a sentence, as a colleague would say it, and the way it points to."""

from just_plane.contract.plan import Verdict
from just_plane.planning.setup.own_steps import is_own
from just_plane.planning.words.numbers import count, f_stop, percent, seconds

TILT = ("tilt", "tilt_best")
"""The ways that tilt the lens and take one frame."""
GRAVE = ("working_distance.inside_lens", "subject.behind_lens_front", "f_number.not_on_lens")
"""Trouble that makes every way moot, the worst first."""
ORDER = (
    "rig.",
    "objective.",
    "lens.",
    "minimum_focus_distance.",
    "magnification.",
    *GRAVE,
    "focus.",
    "pixels_across.",
    "points.",
    "depth.",
)
"""Trouble in the order in which it is worth mending: what stands first makes the rest meaningless. Beginnings of codes;
what is not named comes after, in the order of the job."""


def no_setup(said):
    """The verdict when there is nothing to compare: the gravest trouble and its way out.

    Parameters
    ----------
    said : sequence of Finding   One of them trouble.

    Returns
    -------
    Verdict
    """
    trouble = min((finding for finding in said if finding.severity == "trouble"), key=_place)
    return Verdict(headline=trouble.message, detail=trouble.remedy, way=None)


def _place(finding):
    return next((place for place, code in enumerate(ORDER) if finding.code.startswith(code)), len(ORDER))


def verdict(setup, ways, plane, said):
    """The recommended way in a sentence, and why.

    Parameters
    ----------
    setup : Setup
    ways : sequence of WayAnswer
    plane : PlaneSection
    said : sequence of Finding     Everything that the plan has to say.

    Returns
    -------
    Verdict
    """
    way = next((way for way in ways if way.recommended), None)
    grave = [finding for finding in said if finding.code in GRAVE]
    if grave or way is None:
        return no_setup(grave or said)
    what = _what(setup, way, plane)
    price = f" {_capital(way.soft)}." if way.soft else ""
    if not way.feasible:
        return Verdict(
            headline=f"As things are this cannot be done: {way.against[0]}.",
            detail=f"{_cure(way.against[0])}Nearest to it: {_small(what)} {_share(way)}. {_leaves(way)}{price}",
            way=way.id,
        )
    if way.cover < 1 - 1e-9:
        return Verdict(
            headline=f"Nothing here holds all of it. The most that can be done: {_small(what)} {_share(way)}.",
            detail=f"{_leaves(way)}{price}{_minded(way)} {_why_no_more(setup, way, ways)}".strip(),
            way=way.id,
        )
    holds = "holds" if way.frames == 1 else "hold"
    if way.soft:
        holds = f"cover{'s' if way.frames == 1 else ''}"
    points = way.points_held
    all_of_it = "all of it" if points is None else "both points" if points == 2 else f"all {points} points"
    time = "" if way.frames == 1 else f", in {seconds(way.time_s)}"
    by_school = f" as the {setup.shot.sharp.depth_school} school reckons" if way.soft else ""
    return Verdict(
        headline=f"{what} {holds} {all_of_it}{by_school}{time}.",
        detail=f"{_least(setup, way)}{price}{_instead(setup, way, ways, plane)}{_late(way)}",
        way=way.id,
    )


CURES = {
    "by hand": "Put the camera on a support, add light, or raise the ISO. ",
    "a rail needs": "Put the camera on a support. ",
    "in the hand": "Put the camera on a support. ",
    "the subject moves": "Add light or flash, raise the ISO, or open up. ",
    "the subject holds": "Take fewer frames, settle shorter, or add light. ",
    "the lens would touch": "Use a longer lens, or a smaller size on the sensor. ",
}
"""What would make a way possible, by the beginning of what stands most against it."""


def _cure(clause):
    return next((cure for begins, cure in CURES.items() if clause.startswith(begins)), "")


def _what(setup, way, plane):
    """What is done, as the subject of a sentence, with the stop it is done at."""
    stop, others = f_stop(way.f_number), ""
    if abs(way.f_number / setup.stop.f_number - 1) > 1e-6:
        others = f" ({f_stop(setup.stop.f_number)} is set)"
    if way.kind == "one_frame":
        how = {
            **dict.fromkeys(
                TILT, lambda: f"Tilt {plane.setting.tilt_deg:.1f}°, the lens facing {plane.setting.faces}: one frame"
            ),
            "turn": lambda: f"Turn the camera {plane.turn.angle_deg:.0f}°: one frame",
            "back_off": lambda: f"Back off {way.back_off.factor:.2g}× and crop: one frame",
        }.get(way.id, lambda: "One frame")()
        return f"{how} at {stop}{others}"
    if way.kind == "hand":
        return f"{count(way.frames, 'frame')} from the hand, leaning in, at {stop}{others}"
    mover = ("the tilt and " if way.id.startswith("tilt") else "") + ("rail" if way.kind == "rail" else "focus ring")
    return f"{count(way.frames, 'frame')} by {mover} at {stop}{others}"


def _share(way):
    if way.points_held == 0:
        return f"hold{'s' if way.frames == 1 else ''} none of the points"
    if way.points_held is not None:
        return f"hold{'s' if way.frames == 1 else ''} {count(way.points_held, 'point')}, {percent(way.cover)} of them"
    about = "about " if way.kind == "hand" else ""
    return f"hold{'s' if way.frames == 1 else ''} {about}{percent(way.cover)} of the depth"


def _leaves(way):
    """What it leaves soft."""
    return f"{_capital(way.note)}."


def _why_no_more(setup, way, ways):
    """What stands against the others, two at most: first against what was asked for, steps of one's own."""
    others = [other for other in ways if other.against and not other.feasible and other.id != way.id]
    others.sort(key=lambda other: (not (other.id in ("rail", "ring") and is_own(setup, other.id)), -other.cover))
    objections: dict[str, str] = {}
    for other in others:
        objections.setdefault(other.against[0], f"{_small(other.title.split(',')[0])}: {other.against[0]}")
    return f"Not possible: {'; '.join(list(objections.values())[:2])}." if objections else ""


def _least(setup, way):
    if way.id in TILT:
        return f"{_capital(way.note)}: contrast {percent(max(way.worst_contrast, 0.0))}."
    place = _behind(way.worst_behind_nearest_mm, setup.depth, setup.wording)
    return f"Least contrast {percent(max(way.worst_contrast, 0.0))}, {place}."


def _instead(setup, way, ways, plane):
    """Of a stack: what one frame from the same place would do. Of a tilt: a wider stop that does too."""
    if way.id in TILT:
        cover = plane.covering_f_number
        return f" {f_stop(cover)} already does." if cover is not None and cover < way.f_number * 0.99 else ""
    singles = [other for other in ways if other.id in ("one", "one_best", "one_narrowest") and other.frames]
    if way.frames == 1 or not singles:
        return ""
    best = max(singles, key=lambda other: (other.cover, other.worst_contrast))
    return f" One frame at {f_stop(best.f_number)} {_share(best)}."


def _late(way):
    """What is a little over what subject or hand allow, and may do all the same."""
    return f" Close: {way.against[0]}." if way.against and _is_time(way.against[0]) else ""


def _minded(way):
    """What stands against a way that holds a part only, and is the most that can be done."""
    if not way.against or _is_time(way.against[0]):
        return _late(way)
    return f" {_capital(way.against[0])}."


def _is_time(clause):
    return clause.startswith(("the subject holds", "the subject moves", "by hand no longer"))


def _behind(behind_nearest, depth, wording):
    if behind_nearest <= 1e-6 * depth:
        return "at the nearest point"
    if behind_nearest >= depth * (1 - 1e-6):
        return "at the farthest point"
    return f"{wording.length(behind_nearest)} behind the nearest point"


def _capital(text):
    return text[:1].upper() + text[1:]


def _small(text):
    return text[:1].lower() + text[1:]
