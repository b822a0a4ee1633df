"""The shot in a sentence, as a colleague would say it, and the way it points to."""

from just_plane.contract.plan import Verdict
from just_plane.planning.words.numbers import count, f_stop, percent, seconds

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
    if way.id == "tilt" and way.cover >= 1:
        return _tilt(way, plane)
    if way.frames == 1:
        return _single(way, ways, setup.depth, setup.wording)
    return _stack(setup.shot.subject.hold_still_s, way, ways)


def _tilt(way, plane):
    setting = plane.setting
    held = "both points" if way.points_held == 2 else f"all {way.points_held} points"
    cover = plane.covering_f_number
    stop = f" {f_stop(cover)} already does." if cover is not None and cover < way.f_number * 0.99 else ""
    return Verdict(
        headline=f"Tilt {setting.tilt_deg:.1f}°, the lens facing {setting.faces}: one frame at {f_stop(way.f_number)} "
        f"holds {held}.",
        detail=f"{way.note[:1].upper()}{way.note[1:]}: contrast {percent(max(way.worst_contrast, 0))}.{stop}",
        way=way.id,
    )


def _single(way, ways, depth, wording):
    stop = f_stop(way.f_number)
    place = _behind(way.worst_behind_nearest_mm, depth, wording)
    if way.cover >= 1:
        return Verdict(
            headline=f"One frame at {stop} holds all of it.",
            detail=f"Least contrast {percent(max(way.worst_contrast, 0))}, {place}.",
            way=way.id,
        )
    why = "No stack is possible here" if not any(other.frames > 1 for other in ways) else "It is the most there is"
    return Verdict(
        headline=f"One frame at {stop} holds only {percent(way.cover)} of the depth.",
        detail=f"{why}: " + ("; ".join(_objections(ways)) or way.note) + ".",
        way=way.id,
    )


def _behind(behind_nearest, depth, wording):
    if behind_nearest <= 1e-6 * depth:
        return "at the nearest point"
    if behind_nearest >= depth * (1 - 1e-6):
        return "at the farthest point"
    return f"{wording.length(behind_nearest)} behind the nearest point"


def _stack(hold, way, ways):
    singles = [other for other in ways if other.kind == "one_frame"]
    best = max(singles, key=lambda other: (other.cover, other.worst_contrast))
    single = f"One frame at {f_stop(best.f_number)} holds {percent(best.cover)}"
    mover = ("the tilt and " if way.id.startswith("tilt") else "") + ("rail" if way.kind == "rail" else "focus ring")
    if hold is not None and way.time_s > hold:
        return Verdict(
            headline=f"{count(way.frames, 'frame')} take {seconds(way.time_s)}; the subject holds {seconds(hold)}.",
            detail=f"{single}. Stop down, overlap less, settle shorter, or take a smaller size on the sensor.",
            way=way.id,
        )
    return Verdict(
        headline=f"{count(way.frames, 'frame')} by {mover} at {f_stop(way.f_number)} hold all of it, "
        f"in {seconds(way.time_s)}.",
        detail=f"{single}; contrast between frames stays at {percent(max(way.worst_contrast, 0))}.",
        way=way.id,
    )


def _objections(ways):
    return [f"{other.title.split(',')[0].lower()} {other.against[0]}" for other in ways if not other.frames]
