"""The shot in a sentence, as a colleague would say it, and the way it points to."""

from just_plane.contract.plan import Verdict
from just_plane.planning.wording import count, f_stop, percent, seconds


def no_rig(findings):
    """The verdict when there is nothing to compare: the first trouble and its way out."""
    trouble = next(finding for finding in findings.said if finding.severity == "trouble")
    return Verdict(headline=trouble.message, detail=trouble.remedy, way=None)


def verdict(shot, ways, findings, wording, plane=None):
    """The recommended way in a sentence, and why."""
    way = next((way for way in ways if way.recommended), None)
    grave = next((finding for finding in findings.said if finding.code in GRAVE), None)
    if grave is not None:
        return Verdict(headline=grave.message, detail=grave.remedy, way=None)
    if way is None:
        return no_rig(findings)
    if way.id == "tilt" and way.cover >= 1:
        return _tilt(way, plane)
    if way.frames == 1:
        return _single(way, ways, shot.subject.depth_mm, wording)
    return _stack(shot, way, ways, wording)


GRAVE = {"working_distance.inside_lens", "subject.behind_lens_front", "f_number.not_on_lens"}
"""Findings that make every way moot."""


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
    place = _place(way.worst_behind_nearest_mm, depth, wording)
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


def _place(behind_nearest, depth, wording):
    if behind_nearest <= 1e-6 * depth:
        return "at the nearest point"
    if behind_nearest >= depth * (1 - 1e-6):
        return "at the farthest point"
    return f"{wording.length(behind_nearest)} behind the nearest point"


def _stack(shot, way, ways, wording):
    singles = [other for other in ways if other.kind == "one_frame"]
    best = max(singles, key=lambda other: (other.cover, other.worst_contrast))
    single = f"One frame at {f_stop(best.f_number)} holds {percent(best.cover)}"
    mover = ("the tilt and " if way.id.startswith("tilt") else "") + ("rail" if way.kind == "rail" else "focus ring")
    hold = shot.subject.hold_still_s
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
