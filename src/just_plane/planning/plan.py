"""A shot in, a plan out. The order of the job: reach, sharpness, aperture, light, ways, verdict."""

from just_plane.contract.plan import Plan
from just_plane.core.depth import best_focus
from just_plane.core.units import MM_PER_NM, UM_PER_MM
from just_plane.planning import apertures, cautions, light, plane_work, rigging, sharpness, ways, ways_bench
from just_plane.planning.care import say_care
from just_plane.planning.findings import Findings
from just_plane.planning.plane import plane
from just_plane.planning.reach import reach
from just_plane.planning.verdict import no_rig, verdict
from just_plane.planning.wording import Wording, f_stop, seconds, times


def plan_shot(shot, units="mm"):
    """Everything the program works out for a shot.

    Parameters
    ----------
    shot : Shot
    units : str   ``mm`` or ``in``: how the sentences speak of lengths. Numbers are in the units of their names.

    Returns
    -------
    Plan          Never raises for a valid shot: what cannot be worked out is null, and a finding says why.
    """
    wording, findings = Wording(units), Findings(shot.put_aside)
    parts: dict = {"depth_mm": shot.subject.depth_mm, "depth_from_points": False}
    say_care(shot, findings)
    if not _work_out(shot, findings, wording, parts):
        parts["verdict"] = no_rig(findings)
    return Plan(findings=findings.said, **parts)


def _work_out(shot, findings, wording, parts):
    """Fill in the parts of a plan, in order; False when one of them has no answer and a finding says why."""
    rigged = rigging.build_rig(shot, findings)
    if rigged is None:
        _say_subject(shot, findings, wording)
        return False
    points, shot, from_points = plane_work.points_of(shot, rigged, findings, wording)
    parts |= {"depth_mm": shot.subject.depth_mm, "depth_from_points": from_points}
    _say_subject(shot, findings, wording)
    depth = shot.subject.depth_mm
    focus = shot.focus_behind_nearest_mm
    if focus is None:
        focus = best_focus(depth, rigged.imaging.pupil_distance)
    parts["focus_behind_nearest_mm"] = focus
    parts["reach"] = reach(shot, rigged, focus, findings, wording)
    cautions.say_rig(shot, rigged, findings, wording)
    sharp = parts["sharpness"] = sharpness.sharpness(shot, rigged.imaging.magnification, findings, wording)
    if sharp is None or _behind_pupil(rigged, focus, findings):
        return False
    circle = sharp.circle_um / UM_PER_MM
    stops = apertures.work_out_stops(shot, rigged, circle, findings, wording)
    if stops is None:
        return False
    _say_no_depth(shot, rigged, circle, stops, findings, wording)
    work = plane_work.work_out(shot, rigged, points, focus, findings)
    bench = ways_bench.bench(shot, rigged, stops, circle, focus, wording, work)
    parts["plane"] = plane(bench, findings)
    compared = ways.compare(bench)
    _say_hold_still(shot, compared, findings)
    parts["aperture"] = apertures.aperture(shot, rigged, circle, stops)
    parts["light"] = light.light(shot, float(stops.f_numbers[stops.chosen]), rigged.imaging)
    parts["ways"] = compared
    parts["verdict"] = verdict(shot, compared, findings, wording, parts["plane"])
    return True


def _behind_pupil(rigged, focus, findings):
    """Say and return whether the nearest point would lie behind the entrance pupil, where blur means nothing."""
    behind = focus >= rigged.imaging.pupil_distance
    if behind:
        findings.trouble(
            "focus.behind_pupil",
            "/focus_behind_nearest_mm",
            "The nearest point would lie behind the lens with this focus.",
            "Focus nearer to the nearest point, or make less of the subject sharp.",
        )
    return behind


def _say_subject(shot, findings, wording):
    depth = shot.subject.depth_mm
    wavelength = shot.sharp.wavelength_nm * MM_PER_NM
    if depth == 0:
        findings.caution(
            "depth.zero",
            "/subject/depth_mm",
            "A depth of 0 leaves no room for an error of focus.",
            "Give how far the nearest and the farthest point lie apart; even a flat print has some tenths of a mm.",
        )
    elif depth < wavelength:
        findings.caution(
            "depth.below_wavelength",
            "/subject/depth_mm",
            f"A depth of {depth * UM_PER_MM:.3g} µm is less than one wavelength of light "
            f"({wavelength * UM_PER_MM:.3g} µm): no lens can tell its ends apart.",
            "Is the unit right? Type it with the value, such as 450um or 0.2mm.",
        )


def _say_no_depth(shot, rigged, circle, stops, findings, wording):
    if stops.blurs[stops.chosen] > 0:
        return
    effective = float(stops.effective_f_numbers[stops.chosen])
    left = [i for i in range(stops.clicks) if stops.blurs[i] > 0]
    wider = f"Open up to {f_stop(stops.f_numbers[left[-1]])}, use" if left else "No stop of this lens reaches it: use"
    airy = 2.44 * shot.sharp.wavelength_nm * MM_PER_NM * effective
    findings.trouble(
        "depth.none",
        "/aperture/f_number",
        f"At {times(rigged.imaging.magnification)} and {f_stop(stops.f_numbers[stops.chosen])} (works as "
        f"{f_stop(effective)}) light itself blurs {wording.length(airy)}: too much for detail of "
        f"{wording.length(circle)}.",
        f"{wider} a coarser measure of sharp, or reckon depth by the wave school.",
    )


def _say_hold_still(shot, compared, findings):
    hold = shot.subject.hold_still_s
    single = min((way.time_s for way in compared if way.frames == 1), default=0.0)
    if hold is not None and single > hold:
        findings.trouble(
            "hold_still.shorter_than_a_frame",
            "/subject/hold_still_s",
            f"The subject holds still for {seconds(hold)}; one frame alone takes {seconds(single)}.",
            "Add light, raise the sensitivity, or open up.",
        )
